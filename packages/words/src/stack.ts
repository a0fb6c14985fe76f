import type { Home, StackCautionCode, StackChange, StackStep, StackUnknown, ZFinding } from '@even-bed/core';
import { figuresFor, type Reader } from './figures';
import { turnWords } from './turn';

/** What the words of a change of stack are made from: what was worked out, and what it was worked out for. */
export interface StackFacts {
  result: Pick<StackChange, 'verdict' | 'steps' | 'missing' | 'why' | 'collides' | 'adjusters' | 'change' | 'zero'>;
  by: ZFinding['by'];
  family: 'filament' | 'resin';
  home: Home | null;
}

/** A length of a stack: with at most three decimals of a mm. */
const lengthsFor = (reader: Reader) => {
  const { size } = figuresFor(reader);
  return (mm: number) => size(mm, 3);
};

/** One step in words. */
export function stackStepWords(step: StackStep, family: 'filament' | 'resin', reader: Reader): string {
  const say = lengthsFor(reader);
  const surface = family === 'resin' ? 'screen' : 'surface';
  switch (step.do) {
    case 'spacer':
      return `Put a spacer of ${say(step.printed)}${step.layers > 0 ? ` (${step.layers} layers)` : ''} on the switch${step.replaces > 0 ? `, in place of the one of ${say(step.replaces)}` : ''}.`;
    case 'spacer-off':
      return `Take the spacer of ${say(step.thickness)} off the switch.`;
    case 'screw':
      return `Turn the stop screw ${turnWords(step.turns, reader)}, so that home trips ${step.trips}.`;
    case 'flag':
      return `Set the ${step.part} ${say(step.by)} ${step.way}, so that it trips ${step.trips}.`;
    case 'adjust':
      return `${step.way === 'raise' ? 'Raise' : 'Lower'} the ${step.what} by ${say(step.by)} with its adjusters${step.turns === null ? '' : `, each ${turnWords(step.turns, reader)}`}.`;
    case 'probe':
      return `Set the probe ${say(step.by)} lower in its holder.`;
    case 'home':
      return 'Home, slowly.';
    case 'zero':
      return `Set zero ${say(step.by)} ${step.way === 'further' ? `further from the ${surface}, before anything goes to it` : `nearer the ${surface}`}.`;
    case 'zero-anew':
      return 'Set zero anew with paper: another metal is sensed at another distance, by how much has to be seen.';
  }
}

const ASKED: Record<StackUnknown, string> = {
  moves: 'what moves along Z, the head or the bed',
  home: 'where home lies, at the surface or at the far end of travel',
  'sensing-range': "the probe's sensing distance on steel (its data sheet says it)",
  'probe-height': "how high the probe's face hangs above the nozzle tip",
};

/** All that is to be done, in order; or why nothing can be said. */
export function stackSentence(facts: StackFacts, reader: Reader): string {
  const { result, by, family } = facts;
  const { verdict, steps, missing } = result;
  if (verdict === 'ask') return `Don't home yet. Say ${missing.map((code) => ASKED[code]).join(', and ')}.`;
  if (verdict === 'stop') return stopped(facts, reader);
  if (verdict === 'none')
    return by === 'contact-probe'
      ? 'Nothing has to move: home follows the surface. Home, and check the nozzle-to-probe offset.'
      : by === 'inductive-probe'
        ? 'Nothing has to move: home follows the metal, and as much lies on it as before. Home, and check the offset.'
        : 'The height stays: nothing has to move. Home again.';
  const words = steps.map((step) => stackStepWords(step, family, reader)).join(' ');
  return steps[0]!.do === 'home' ? words : `Before homing: ${lowerFirst(words)}`;
}

function stopped({ result, family }: StackFacts, reader: Reader): string {
  const say = lengthsFor(reader);
  const { collides } = result;
  if (result.why === 'no-metal')
    return "Don't home: no layer of the new stack is metal, and the probe would find nothing.";
  if (result.why === 'probe-reach')
    return `Don't home: the probe can't sense the metal through the new top. The nozzle would stand ${say(collides)} in it before the trip, and a probe set as much lower would hang below the nozzle. Take a thinner top, one with steel on it, or a probe that reaches further.`;
  const [thing, way] = family === 'resin' ? ['platform', 'raise'] : ['bed', 'lower'];
  const short = result.adjusters
    ? `the adjusters can ${way} the ${thing} by ${say(result.adjusters.have)} and ${say(collides)} are needed`
    : `the trip point can't move and the ${family === 'resin' ? "platform's face stands" : 'surface stands'} ${say(collides)} too ${family === 'resin' ? 'low' : 'high'}`;
  return `Don't home: ${short}. Find a way to trip sooner, or a thinner stack.`;
}

const lowerFirst = (text: string) => text[0]!.toLowerCase() + text.slice(1);

/** What has to be known beside the steps. */
export function stackCautionWords(code: StackCautionCode, { result, family }: StackFacts, reader: Reader): string {
  const say = lengthsFor(reader);
  const [tool, surface, bed] =
    family === 'resin' ? (['platform', 'screen', 'platform'] as const) : (['nozzle', 'surface', 'bed'] as const);
  switch (code) {
    case 'zero-cannot-rescue':
      return `A software zero cannot rescue a home that is too low: homing as it is now would drive the ${tool} ${say(result.collides)} into the ${surface}.`;
    case 'metal-through-top':
      return 'An inductive probe sees metal through the new top: it trips at the same distance from the metal, whatever lies on it.';
    case 'probe-reach':
      return "Look that the probe's face hangs above the nozzle tip and stays clear of the new top.";
    case 'zero-first':
      return `Home stays safe, zero does not: until it is set anew, going to it drives the ${tool} ${say(result.change)} into the ${surface}.`;
    case 'beyond-trip':
      return `Zero then lies ${say(-result.zero!)} beyond the trip point: look that the switch can be pressed that far.`;
    case 'adjusters-short': {
      const { take, have } = result.adjusters!;
      return `The adjusters would have to ${take > 0 ? 'raise' : 'lower'} the ${bed} by ${say(Math.abs(take))} and have ${say(have)}.`;
    }
    case 'spacer-first':
      return 'Print the spacer before the machine is taken apart, and measure it with calipers: one that came out thinner lets home trip too late.';
    case 'nominal':
      return 'Some thicknesses stand as on the label. Measure them with calipers before anything is stuck.';
    case 'heavy':
      return 'A heavier bed that moves wants gentler acceleration. Look for ringing on the first prints.';
    case 'vat-empty':
      return 'Rehearse with the vat empty: lower it slowly by hand or by jog, and nothing touches.';
    case 'zero-again':
      return 'Set zero again after levelling.';
    case 'home-again':
      return 'Home again, slowly, with a hand at the switch, and check Z before the first print.';
  }
}
