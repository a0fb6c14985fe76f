import type { MachineOverview } from '@even-bed/contract';
import type { Adjuster, AdjusterLearned } from '@even-bed/core';
import { canBeLevelled } from '../fleet/machineState';
import type { FeltBed } from './FeelHeights';
import { setupOf } from './newDraft';

/** A bed that a tool works with: a machine's own, or a plain one with three or four adjusters. */
export interface BenchBed extends FeltBed {
  /** The machine that it is; null: a plain bed. */
  machine: MachineOverview | null;
  print: { x: number; y: number; width: number; depth: number };
}

/** Which bed a tool works with: the id of a machine, or a plain one and what clockwise does at it. */
export interface BedAsk {
  machineId: string | null;
  plain: '3' | '4';
  clockwise: 'raises' | 'lowers';
}

export const PLAIN_BED: BedAsk = { machineId: null, plain: '4', clockwise: 'lowers' };

/** A plain bed: corners at 20 and 200 mm, M4. Our own figures. */
const PLACES: Record<BedAsk['plain'], [id: string, x: number, y: number][]> = {
  '3': [
    ['front', 110, 20],
    ['rear left', 20, 200],
    ['rear right', 200, 200],
  ],
  '4': [
    ['front left', 20, 20],
    ['front right', 200, 20],
    ['rear left', 20, 200],
    ['rear right', 200, 200],
  ],
};

/** The bed that is asked for, its adjusters as they are known to be; of a machine that can't be turned level, none. */
export function benchBed(
  { machineId, plain, clockwise }: BedAsk,
  machines: readonly MachineOverview[],
  learned: readonly AdjusterLearned[] = [],
): BenchBed {
  const machine = machines.find((one) => one.id === machineId) ?? null;
  if (machine) {
    const { seenFrom, printWidth, printDepth } = machine;
    const adjusters = canBeLevelled(machine)
      ? setupOf(machine, { adjusters: [...learned], noise: null }).adjusters
      : [];
    return {
      machine,
      adjusters,
      seenFrom,
      names: Object.fromEntries(machine.adjusters.map(({ id, name }) => [id, name])),
      print: { x: 0, y: 0, width: printWidth, depth: printDepth },
    };
  }
  const adjusters = PLACES[plain].map(([id, x, y]): Adjuster => ({ id, x, y, pitch: 0.7, clockwise }));
  return {
    machine: null,
    adjusters,
    seenFrom: 'above',
    names: Object.fromEntries(adjusters.map(({ id }) => [id, id])),
    print: { x: 0, y: 0, width: 220, depth: 220 },
  };
}
