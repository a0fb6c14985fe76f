import type { LevelNoteRaw } from '@even-bed/core';
import { plainAdjuster } from '@even-bed/core/level/plainAdjuster';
import { CORNERS, TUGS, type Corner, type Tug } from '@even-bed/core/level/tugs';
import seedrandom from 'seedrandom';
import { keepLevelNote, keepZMark } from '../level/noteStore';
import type { DemoEvent } from './loadDemo';
import { DAY_MS, MACHINES, MODELS } from './saltmarsh';
import type { SeededIds } from './seededIds';

interface Year {
  machineIds: ReadonlyMap<string, string>;
  ids: SeededIds;
  seed: string;
  begin: number;
  now: number;
}

const MINUTE_MS = 60_000;
/** Its home was moved and nobody has set zero since. */
const MOVED = 'Sandpiper';
const MOVED_DAYS_AGO = 2;

/** A year of levels by hand: quarter sheets and zero in the Wet Room, a skirt now and then elsewhere. */
export function yearOfLevels({ machineIds, ids, seed, begin, now }: Year): DemoEvent[] {
  const events: DemoEvent[] = [];
  const note = (machineId: string, at: number, raw: LevelNoteRaw) => {
    const id = ids.next(at);
    events.push({ at, write: (db) => keepLevelNote(db, id, { machineId, at, raw }) });
  };
  const mark = (machineId: string, at: number, kind: 'home' | 'zero') => {
    const id = ids.next(at);
    events.push({ at, write: (db) => keepZMark(db, id, { machineId, kind, at }) });
  };
  for (const machine of MACHINES) {
    const machineId = machineIds.get(machine.name)!;
    const model = MODELS[machine.model];
    const random = seedrandom(`${seed} levels ${machine.name}`);
    const between = (low: number, high: number) => low + (high - low) * random();
    if (model.family === 'resin') {
      const first = begin + 3 * DAY_MS;
      for (let at = now - Math.round(between(4, 20) * DAY_MS); at > first; at -= Math.round(between(28, 60) * DAY_MS)) {
        const ten = Math.round(between(98, 106)) / 100;
        const loose = random() < 0.4 ? CORNERS[Math.floor(random() * 4)]! : null;
        if (loose) note(machineId, at - 6 * MINUTE_MS, { way: 'quarters', tugs: tugs(loose), drag: 'firm', ten });
        note(machineId, at, { way: 'quarters', tugs: tugs(null), drag: 'firm', ten });
        mark(machineId, at, 'zero');
      }
      if (machine.name === MOVED) mark(machineId, now - MOVED_DAYS_AGO * DAY_MS, 'home');
    } else if (random() < 0.4) {
      const [width, depth] = model.print;
      const adjusters = model.adjusters.map(plainAdjuster);
      for (const days of [310, 205, 96, 33]) {
        const at = now - Math.round((days + between(0, 9)) * DAY_MS);
        const touching = { front: 'touching', right: 'touching', rear: 'touching', left: 'touching' } as const;
        note(machineId, at, {
          way: 'skirt',
          adjusters,
          print: { x: 0, y: 0, width, depth },
          rounds: [
            { looks: { ...touching, front: 'gaps' }, made: { do: 'offset', by: -0.01 } },
            { looks: touching, made: null },
          ],
        });
      }
    }
  }
  return events;
}

const tugs = (loose: Corner | null) =>
  Object.fromEntries(CORNERS.map((corner) => [corner, corner === loose ? TUGS[0] : TUGS[1]])) as Record<Corner, Tug>;
