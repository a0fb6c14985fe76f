import type { CheckSetup, MachineLearned, MachineOverview } from '@even-bed/contract';
import type { ParseOptions } from '@even-bed/core';
import { asLearned } from '@even-bed/core/level/asLearned';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { plainAdjuster } from '@even-bed/core/level/plainAdjuster';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import type { CheckDraft, HeightEntry } from './levelSlice';
import { plateOf } from '../fleet/machineState';

/** What earlier checks have shown: what its adjusters do, how its probe scatters. */
export type Known = Pick<MachineLearned, 'adjusters' | 'noise'>;
export const NOTHING_KNOWN: Known = { adjusters: [], noise: null };

/** What a check of this machine rests on, as its facts stand now, and as its adjusters and its probe are known to be. */
export function setupOf(machine: MachineOverview, known: Known = NOTHING_KNOWN): CheckSetup {
  const adjusters = machine.adjusters.map(plainAdjuster);
  const said = lookingDown(adjusters, machine.seenFrom);
  const taken = asLearned(said, known.adjusters);
  return {
    adjusters: taken.adjusters,
    ...(taken.otherwise.length > 0 ? { said } : {}),
    seenFrom: machine.seenFrom,
    aim: aimOf(machine),
    printWidth: machine.printWidth,
    printDepth: machine.printDepth,
    ...(known.noise === null ? {} : { noise: known.noise }),
  };
}

/** How this machine's readings are to be read, as far as the shop knows. */
export function readingOf({ plus, mapExtent, mapFirstRow }: MachineOverview): ParseOptions {
  return { plus, ...(mapExtent ? { extent: mapExtent } : {}), ...(mapFirstRow ? { firstRow: mapFirstRow } : {}) };
}

export function newEntry(machine: MachineOverview): HeightEntry {
  return {
    way: machine.console ? 'machine' : 'typed',
    text: '',
    fileName: '',
    typed: null,
    scanId: null,
    reading: readingOf(machine),
  };
}

/** A check of a machine, not begun yet. */
export function newDraft(
  machine: MachineOverview,
  id: string,
  personId: string | null,
  now: number,
  known: Known = NOTHING_KNOWN,
): CheckDraft {
  return {
    id,
    personId,
    machineId: machine.id,
    machineName: machine.name,
    areaName: machine.areaName,
    startedAt: now,
    setup: setupOf(machine, known),
    adjusterNames: Object.fromEntries(machine.adjusters.map((adjuster) => [adjuster.id, adjuster.name])),
    plate: plateOf(machine),
    hasConsole: machine.console !== null,
    stage: 'reading',
    entry: newEntry(machine),
    rounds: [],
    note: '',
    end: null,
    sent: [],
  };
}
