import type { MachineOverview } from '@even-bed/contract';
import { timeLeft } from '@even-bed/words/span';
import { dueSignal, dueWords } from '../rounds/dueWords';
import type { PlanPlate } from '../ui/BedPlan';
import type { SignalKind } from '../ui/Signal';

export interface MachineState {
  signal: SignalKind;
  words: string;
}

/** A machine's state in a shape and a few words: what lies on it on hold or a job waiting, a check under way, its level due, or ready. */
export function machineState(machine: MachineOverview, now: number, draftHere: boolean): MachineState {
  if (machine.heldUntil !== null && machine.heldUntil > now)
    return { signal: 'hold', words: `Held, ${timeLeft(machine.heldUntil - now)}` };
  if (draftHere || machine.openCheckId) return { signal: 'hold', words: 'Check under way' };
  if (machine.rule && dueSignal(machine.rule, now) === 'due')
    return { signal: 'due', words: `Level ${dueWords(machine.rule, now)}` };
  return { signal: 'ready', words: 'Ready' };
}

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
