import { describeTurn } from '../level/describeTurn';
import type { LengthWords } from './lengthWords';
import type { StackChange, ZFinding } from './stackChange';
import type { Home, StackStep, StackUnknown } from './stackStep';

export interface StackWords {
  result: Omit<StackChange, 'cautions' | 'sentence'>;
  finding: ZFinding;
  family: 'filament' | 'resin';
  home: Home | null;
  /** By how much home would drive into the surface if nothing were done. */
  collides: number;
  say: LengthWords;
}

/** One step in words. */
export function stepWords(step: StackStep, family: 'filament' | 'resin', say: LengthWords): string {
  const surface = family === 'resin' ? 'screen' : 'surface';
  switch (step.do) {
    case 'spacer':
      return `Put a spacer of ${say(step.printed)}${step.layers > 0 ? ` (${step.layers} layers)` : ''} on the switch${step.replaces > 0 ? `, in place of the one of ${say(step.replaces)}` : ''}.`;
    case 'spacer-off':
      return `Take the spacer of ${say(step.thickness)} off the switch.`;
    case 'screw':
      return `Turn the stop screw ${describeTurn(step.turns)}, so that home trips ${step.trips}.`;
    case 'flag':
      return `Set the ${step.part} ${say(step.by)} ${step.way}, so that it trips ${step.trips}.`;
    case 'adjust':
      return `${step.way === 'raise' ? 'Raise' : 'Lower'} the ${step.what} by ${say(step.by)} with its adjusters${step.turns === null ? '' : `, each ${describeTurn(step.turns)}`}.`;
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
export function stackSentence({ result, finding, family, collides, say }: StackWords): string {
  const { verdict, steps, missing } = result;
  if (verdict === 'ask') return `Don't home yet. Say ${missing.map((code) => ASKED[code]).join(', and ')}.`;
  if (verdict === 'stop') return stopped({ result, family, collides, say });
  if (verdict === 'none')
    return finding.by === 'contact-probe'
      ? 'Nothing has to move: home follows the surface. Home, and check the nozzle-to-probe offset.'
      : finding.by === 'inductive-probe'
        ? 'Nothing has to move: home follows the metal, and as much lies on it as before. Home, and check the offset.'
        : 'The height stays: nothing has to move. Home again.';
  const words = steps.map((step) => stepWords(step, family, say)).join(' ');
  return steps[0]!.do === 'home' ? words : `Before homing: ${lowerFirst(words)}`;
}

function stopped({
  result,
  family,
  collides,
  say,
}: Pick<StackWords, 'result' | 'family' | 'collides' | 'say'>): string {
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
