import type { CheckSetup, MachineOverview } from '@even-bed/contract';
import type { AdjusterLearned, ParseOptions } from '@even-bed/core';
import { asLearned } from '@even-bed/core/level/asLearned';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { plainAdjuster } from '@even-bed/core/level/plainAdjuster';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import type { CheckDraft, HeightEntry } from './levelSlice';
import { plateOf } from '../fleet/machineState';

/** What a check of this machine rests on, as its facts stand now, and as its adjusters are known to be. */
export function setupOf(machine: MachineOverview, learned: readonly AdjusterLearned[] = []): CheckSetup {
  const adjusters = machine.adjusters.map(plainAdjuster);
  const said = lookingDown(adjusters, machine.seenFrom);
  const taken = asLearned(said, learned);
  return {
    adjusters: taken.adjusters,
    ...(taken.otherwise.length > 0 ? { said } : {}),
    seenFrom: machine.seenFrom,
    aim: aimOf(machine),
    printWidth: machine.printWidth,
    printDepth: machine.printDepth,
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
  learned: readonly AdjusterLearned[] = [],
): CheckDraft {
  return {
    id,
    personId,
    machineId: machine.id,
    machineName: machine.name,
    areaName: machine.areaName,
    startedAt: now,
    setup: setupOf(machine, learned),
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
