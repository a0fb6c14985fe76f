import type { MachineOverview } from '@even-bed/contract';
import { readiness, type Readiness, type ReadinessFacts } from '@even-bed/core/fleet/readiness';
import { readinessWords } from '@even-bed/words/readiness';
import type { PlanPlate } from '../ui/BedPlan';
import { currentManner } from '../ui/manner';
import type { Crumb } from '../ui/Page';
import type { SignalKind } from '../ui/Signal';

export interface MachineState {
  signal: SignalKind;
  words: string;
  readiness: Readiness;
}

/** Answers kept by an older app say nothing of it. */
const NOTHING_KNOWN: ReadinessFacts = {
  ...{ heldUntil: null, checking: false, job: null, followed: false, top: false, zero: null, asked: null },
  ...{ prints: { of: 0, failed: 0, lastThree: 0 }, rule: null, left: null },
};
/** How each state is drawn. */
export const SIGNALS: Record<Readiness['state'], SignalKind> = {
  ready: 'ready',
  look: 'due',
  busy: 'hold',
  not: 'stop',
};

/** A machine's state in a shape and a few words: the weightiest thing that stands against printing on it, or that it is ready. */
export function machineState(
  { stands = NOTHING_KNOWN }: Partial<Pick<MachineOverview, 'stands'>>,
  now: number,
  draftHere: boolean,
): MachineState {
  const found = readiness(draftHere ? { ...stands, checking: true } : stands, now);
  return { signal: SIGNALS[found.state], words: readinessWords(found, currentManner(), now), readiness: found };
}

/** The way back from a page of a machine: to it, and to the floor. */
export const crumbsOf = (machine: Pick<MachineOverview, 'id' | 'name'> | undefined): Crumb[] => [
  { label: 'Floor', href: '/floor' },
  ...(machine ? [{ label: machine.name, href: `/floor/${machine.id}` } as const] : []),
];

/** Its plate as plans draw it. */
export const plateOf = (
  machine: Pick<MachineOverview, 'plateWidth' | 'plateDepth' | 'originX' | 'originY' | 'printWidth' | 'printDepth'>,
): PlanPlate => ({
  width: machine.plateWidth,
  depth: machine.plateDepth,
  originX: machine.originX,
  originY: machine.originY,
  printWidth: machine.printWidth,
  printDepth: machine.printDepth,
});

/** A machine can be levelled by turns when it has at least three adjusters. */
export const canBeLevelled = ({ adjusters }: Pick<MachineOverview, 'adjusters'>) => adjusters.length >= 3;

/** Whether a machine matches what was typed: every word begins a word of its name, model, area or shelf. */
export function matchesSearch({ name, model, areaName, shelf }: MachineOverview, search: string): boolean {
  const words = `${name} ${model} ${areaName} ${shelf}`.toLowerCase().split(/\s+/);
  return search
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((typed) => words.some((word) => word.startsWith(typed)));
}
