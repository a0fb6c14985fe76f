import type { FitLayer } from './stackChange';
import type { StackWords } from './stackSentence';

export interface StackCaution {
  code:
    | 'zero-cannot-rescue'
    | 'metal-through-top'
    | 'probe-reach'
    | 'zero-first'
    | 'beyond-trip'
    | 'spacer-first'
    | 'adjusters-short'
    | 'nominal'
    | 'heavy'
    | 'home-again'
    | 'zero-again'
    | 'vat-empty';
  text: string;
  /** stop: something breaks if it is passed over · due: to be done or known. */
  kind: 'stop' | 'due';
}

/** From here on a bed that moves feels what was added, g. Common practice: a 3 mm pane of glass is about 170 g. */
const HEAVY = 300;

/** A switch gives by about so much past its trip point, mm. Common practice. */
const BEYOND = 0.3;

/** What has to be known beside the sum, the dangerous first. Source: common practice. */
export function stackCautions({
  result,
  finding,
  family,
  home,
  collides,
  layers,
  say,
}: StackWords & { layers: readonly FitLayer[] }): StackCaution[] {
  const cautions: StackCaution[] = [];
  const add = (kind: StackCaution['kind'], code: StackCaution['code'], text: string) =>
    void cautions.push({ kind, code, text });
  const tool = family === 'resin' ? 'platform' : 'nozzle';
  const byTravel = finding.by !== 'contact-probe' && finding.by !== 'inductive-probe';

  if (byTravel && home !== 'away' && collides > 0)
    add(
      'stop',
      'zero-cannot-rescue',
      `A software zero cannot rescue a home that is too low: homing as it is now would drive the ${tool} ${say(collides)} into the ${family === 'resin' ? 'screen' : 'surface'}.`,
    );
  if (finding.by === 'inductive-probe' && result.verdict !== 'none')
    add(
      collides > 0 ? 'stop' : 'due',
      'metal-through-top',
      'An inductive probe sees metal through the new top: it trips at the same distance from the metal, whatever lies on it.',
    );
  if (result.steps.some((step) => step.do === 'probe'))
    add('due', 'probe-reach', "Look that the probe's face hangs above the nozzle tip and stays clear of the new top.");
  if (home === 'away' && result.zero !== null && result.zero > 0)
    add(
      'stop',
      'zero-first',
      `Home stays safe, zero does not: until it is set anew, going to it drives the ${tool} ${say(result.change)} into the ${family === 'resin' ? 'screen' : 'surface'}.`,
    );
  if (home === 'surface' && byTravel && result.zero !== null && result.zero < -BEYOND)
    add(
      'due',
      'beyond-trip',
      `Zero then lies ${say(-result.zero)} beyond the trip point: look that the switch can be pressed that far.`,
    );
  if (result.adjusters && !result.adjusters.enough)
    add(
      'stop',
      'adjusters-short',
      `The adjusters would have to ${result.adjusters.take > 0 ? 'raise' : 'lower'} the ${family === 'resin' ? 'platform' : 'bed'} by ${say(Math.abs(result.adjusters.take))} and have ${say(result.adjusters.have)}.`,
    );
  if (result.spacer)
    add(
      'due',
      'spacer-first',
      'Print the spacer before the machine is taken apart, and measure it with calipers: one that came out thinner lets home trip too late.',
    );
  if (layers.some(({ measured }) => measured === false))
    add(
      'due',
      'nominal',
      'Some thicknesses stand as on the label. Measure them with calipers before anything is stuck.',
    );
  if (family === 'filament' && result.addedMass !== null && result.addedMass >= HEAVY)
    add('due', 'heavy', 'A heavier bed that moves wants gentler acceleration. Look for ringing on the first prints.');
  if (family === 'resin' && result.change !== 0) {
    add('due', 'vat-empty', 'Rehearse with the vat empty: lower it slowly by hand or by jog, and nothing touches.');
    add('due', 'zero-again', 'Set zero again after levelling.');
  }
  if (result.change !== 0 && (result.verdict === 'do' || result.verdict === 'none'))
    add('due', 'home-again', 'Home again, slowly, with a hand at the switch, and check Z before the first print.');
  return cautions;
}
