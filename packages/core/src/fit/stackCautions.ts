import type { StackChange, StackChangeInput } from './stackChange';

export type StackCautionCode =
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

export interface StackCaution {
  code: StackCautionCode;
  /** stop: something breaks if it is passed over · due: to be done or known. */
  kind: 'stop' | 'due';
}

/** From here on a bed that moves feels what was added, g. Common practice: a 3 mm pane of glass is about 170 g. */
const HEAVY = 300;

/** A switch gives by about so much past its trip point, mm. Common practice. */
const BEYOND = 0.3;

/** What has to be known beside the sum, the dangerous first. Source: common practice. */
export function stackCautions(
  result: Omit<StackChange, 'cautions'>,
  { finding, family = 'filament', home = null, after: layers }: StackChangeInput,
): StackCaution[] {
  const { collides, verdict, zero, change, adjusters } = result;
  const cautions: StackCaution[] = [];
  const add = (kind: StackCaution['kind'], code: StackCautionCode) => void cautions.push({ kind, code });
  const byTravel = finding.by !== 'contact-probe' && finding.by !== 'inductive-probe';

  if (byTravel && home !== 'away' && collides > 0) add('stop', 'zero-cannot-rescue');
  if (finding.by === 'inductive-probe' && verdict !== 'none') add(collides > 0 ? 'stop' : 'due', 'metal-through-top');
  if (result.steps.some((step) => step.do === 'probe')) add('due', 'probe-reach');
  if (home === 'away' && zero !== null && zero > 0) add('stop', 'zero-first');
  if (home === 'surface' && byTravel && zero !== null && zero < -BEYOND) add('due', 'beyond-trip');
  if (adjusters && !adjusters.enough) add('stop', 'adjusters-short');
  if (result.spacer) add('due', 'spacer-first');
  if (layers.some(({ measured }) => measured === false)) add('due', 'nominal');
  if (family === 'filament' && result.addedMass !== null && result.addedMass >= HEAVY) add('due', 'heavy');
  if (family === 'resin' && change !== 0) {
    add('due', 'vat-empty');
    add('due', 'zero-again');
  }
  if (change !== 0 && (verdict === 'do' || verdict === 'none')) add('due', 'home-again');
  return cautions;
}
