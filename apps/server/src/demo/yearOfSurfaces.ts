import {
  PLATE_PLACES,
  slotOf,
  type PlatePlace,
  type PrintFailure,
  type PrintRelease,
  type Side,
  type SurfaceEvent,
} from '@even-bed/core';
import type { Knex } from 'knex';
import seedrandom from 'seedrandom';
import { saveInspection, savePhoto } from '../care/store';
import { keepPhoto } from '../care/photoFile';
import { keepOffset } from '../surfaces/offsetStore';
import { saveStack } from '../surfaces/stackStore';
import { recordEvent, saveSurface } from '../surfaces/store';
import { addPrints, logPrint, type NewPrint } from '../wear/store';
import { drawnPlate, type PlateLook } from './drawnPlate';
import { SURFACES, type HallSurface } from './hallSurfaces';
import type { DemoEvent } from './loadDemo';
import { DAY_MS, MACHINES, MODELS, type DemoMachine } from './saltmarsh';
import type { SeededIds } from './seededIds';

const HOUR_MS = 3_600_000;
/** Older prints came in from the week's sheet of paper; those of the last days one by one. */
const BY_HAND_DAYS = 9;
/** Of the hall's first hour: machines first, then what lies on them. */
const OPENING = 3 * HOUR_MS;
const MATERIALS = ['PLA', 'PLA', 'PLA', 'PETG', 'PETG', 'ASA', 'TPU'] as const;
const RESINS = ['standard resin', 'standard resin', 'tough resin', 'clear resin'] as const;

/** Who sends the photos: nobody goes while they are read. */
const DEMO = { who: 'the demo', signal: new AbortController().signal };

export interface Hall {
  machineIds: ReadonlyMap<string, string>;
  ids: SeededIds;
  seed: string;
  begin: number;
  now: number;
  /** Where photos go; null: none are made. */
  photoFolder: string | null;
}

/** A year of what happened to the hall's surfaces: put on, swapped, turned, printed on, cleaned, looked at, worn out. */
export function yearOfSurfaces(hall: Hall): DemoEvent[] {
  const ids = new Map(SURFACES.map(({ tag }, i) => [tag, hall.ids.next(hall.begin + i)]));
  const year: Year = { ...hall, surfaceIds: ids, random: seedrandom(`${hall.seed} surfaces`), events: [] };
  open(year);
  swaps(year);
  prints(year);
  offsets(year);
  upkeep(year);
  stories(year);
  today(year);
  return year.events;
}

interface Year extends Hall {
  surfaceIds: ReadonlyMap<string, string>;
  random: () => number;
  events: DemoEvent[];
}

const day = ({ begin }: Hall, days: number, hour = 10) => begin + days * DAY_MS + (hour - 9) * HOUR_MS;
const surfaceOf = (tag: string) => SURFACES.find((known) => known.tag === tag)!;

function happens(year: Year, tag: string, event: SurfaceEvent): void {
  const id = year.surfaceIds.get(tag)!;
  year.events.push({ at: event.at, write: async (db) => void (await recordEvent(db, id, event, year.now)) });
}

function putOn(year: Year, tag: string, at: number, machine: string, sideUp: Side = 'A'): void {
  const { group } = surfaceOf(tag);
  const machineId = year.machineIds.get(machine)!;
  happens(year, tag, { kind: 'mounted', at, machineId, slot: slotOf(group), sideUp, turned: 0 });
}

function add(year: Year, surface: HallSurface, at: number): void {
  const { plate } = MODELS[surface.model];
  const id = year.surfaceIds.get(surface.tag)!;
  const write = {
    tag: surface.tag,
    kindId: surface.kindId,
    width: plate[0],
    depth: plate[1],
    thickness: surface.thickness ?? null,
    boughtAt: at - 3 * DAY_MS,
    price: surface.price,
    note: surface.note ?? '',
    place: placeFor(surface),
    version: 0,
    at,
  };
  year.events.push({ at, write: async (db) => void (await saveSurface(db, id, write, at)) });
}

const placeFor = ({ group, model }: Pick<HallSurface, 'group' | 'model'>): string =>
  model === 'mono' ? 'Wet cabinet' : group === 'base' ? 'Drawer 3' : model === 'gantry' ? 'Rack 2' : 'Rack 1';

/** Layers that are part of the machines, then the surfaces in the order in which they lie. */
function open(year: Year): void {
  for (const machine of MACHINES) {
    const layer = MODELS[machine.model].family === 'resin' ? null : heatedPlate(machine);
    if (layer === null) continue;
    const at = year.begin + OPENING;
    year.events.push({
      at,
      write: async (db) =>
        void (await saveStack(db, year.machineIds.get(machine.name)!, { layers: [layer], version: 0, at })),
    });
  }
  const order = ['platform', 'base', 'top', 'film'];
  SURFACES.forEach((surface, i) => {
    const at = year.begin + OPENING + (1 + i) * 60_000;
    add(year, surface, at);
    if (surface.on === undefined) return;
    const slot = order.indexOf(slotOf(surface.group));
    putOn(year, surface.tag, at + (2 + slot) * HOUR_MS, surface.on);
  });
}

const heatedPlate = ({ model }: DemoMachine) => ({
  name: 'Heated plate, aluminium',
  under: 'base' as const,
  thickness: model === 'gantry' ? 6.02 : 3,
  measured: model === 'gantry',
  limit: 130,
});

/** Sheets of one size change places now and then, and are turned over. */
function swaps(year: Year): void {
  const swap = (days: number, machine: string, off: string, on: string, sideUp: Side = 'A') => {
    happens(year, off, { kind: 'taken-off', at: day(year, days), place: placeFor(surfaceOf(off)) });
    putOn(year, on, day(year, days) + 5 * 60_000, machine, sideUp);
  };
  const over = (days: number, tag: string, sideUp: Side) =>
    happens(year, tag, { kind: 'turned', at: day(year, days, 11), sideUp, turned: 0 });
  swap(34, 'Dunlin', 'S-001', 'S-005');
  swap(58, 'Avocet', 'S-002', 'S-001');
  swap(77, 'Turnstone', 'S-007', 'S-009');
  swap(96, 'Curlew', 'S-008', 'S-007');
  over(110, 'S-003', 'B');
  swap(131, 'Whimbrel', 'S-010', 'S-012');
  swap(140, 'Dunlin', 'S-005', 'S-002');
  over(152, 'S-001', 'B');
  swap(171, 'Knot', 'S-003', 'S-006');
  swap(188, 'Oystercatcher', 'S-017', 'S-018');
  over(203, 'S-004', 'B');
  swap(222, 'Redshank', 'S-011', 'S-010');
  swap(240, 'Plover', 'S-004', 'S-005');
  over(251, 'S-014', 'B');
  swap(268, 'Turnstone', 'S-009', 'S-008');
  over(290, 'S-002', 'B');
  swap(301, 'Ruff', 'S-024', 'S-025');
  swap(330, 'Avocet', 'S-001', 'S-019');
  swap(345, 'Avocet', 'S-019', 'S-003');
  over(352, 'S-007', 'B');
}

/** How likely a print is to fail for what it lies on, from the stories. Days since the beginning. */
function failureChance(machine: string, days: number, random: () => number): [number, PrintFailure] {
  const usual: PrintFailure = random() < 0.5 ? 'let-go' : random() < 0.6 ? 'lifted-corner' : 'foot';
  if (machine === 'Godwit') return [days % 125 > 85 ? 0.04 + ((days % 125) - 85) * 0.006 : 0.03, 'lifted-corner'];
  if (machine === 'Greenshank' && days < 40) return [0.3, 'marks'];
  if (machine === 'Stilt' && days > 150 && days < 196) return [0.3, 'let-go'];
  if (machine === 'Lapwing' && days > 118 && days < 142) return [0.22, 'foot'];
  return [0.045, usual];
}

function prints(year: Year): void {
  const { random, now, begin } = year;
  const weeks = new Map<number, NewPrint[]>();
  const last = Math.floor((now - begin) / DAY_MS);
  for (const machine of MACHINES) {
    const resin = MODELS[machine.model].family === 'resin';
    const perDay = resin ? 0.45 : machine.name === 'Godwit' ? 1.25 : 0.75;
    const machineId = year.machineIds.get(machine.name)!;
    for (let days = 1; days <= last; days++) {
      for (let tries = 0; tries < 2; tries++) {
        if (random() >= perDay / 2) continue;
        const endedAt = day(year, days, 11 + tries * 4) + Math.floor(random() * 3 * HOUR_MS);
        if (endedAt >= now - HOUR_MS) continue;
        const [chance, failure] = failureChance(machine.name, days, random);
        const held = random() >= chance;
        const print: NewPrint = {
          id: year.ids.next(endedAt),
          machineId,
          material: resin ? some(RESINS, random) : some(MATERIALS, random),
          endedAt,
          duration: 1800 + Math.floor(random() ** 2 * 40_000),
          grams: Number((4 + random() ** 2 * 220).toFixed(1)),
          held,
          failure: held ? null : failure,
          release: held ? released(resin, random) : null,
          places: held ? [] : placesOf(failure, days),
          note: '',
        };
        if (days > last - BY_HAND_DAYS) {
          const source = machine.layout && tries === 1 ? 'machine' : 'tap';
          year.events.push({
            at: endedAt,
            write: async (db) => void (await logPrint(db, print, { source, now: endedAt })),
          });
        } else {
          const week = Math.floor(days / 7);
          weeks.set(week, [...(weeks.get(week) ?? []), print]);
        }
      }
    }
  }
  for (const [week, list] of weeks) {
    const at = day(year, week * 7 + 7, 17);
    const options = { source: 'grid' as const, list: "the week's sheet", now: at };
    year.events.push({ at, write: async (db) => void (await addPrints(db, list, options)) });
  }
}

const some = <T>(list: readonly T[], random: () => number): T => list[Math.floor(random() * list.length)]!;
/** Corners lift at corners; whatever else fails, fails anywhere. Of the day alone, so that the rest of the year stays. */
const placesOf = (failure: PrintFailure, days: number): PlatePlace[] =>
  failure === 'lifted-corner'
    ? [(['front-left', 'back-right', 'back-left', 'front-right'] as const)[days % 4]!]
    : days % 3 === 0
      ? []
      : [PLATE_PLACES[days % PLATE_PLACES.length]!];
const released = (resin: boolean, random: () => number): PrintRelease =>
  random() < 0.6 ? (resin ? 'flexed' : 'by-itself') : random() < 0.8 ? 'flexed' : 'nudged';

/** Z offsets that worked: the machine's own part, the sheet's part (its thickness), and a little of the hand. */
function offsets(year: Year): void {
  const part = (name: string) => (seedrandom(`${year.seed} offset ${name}`)() - 0.5) * 0.5;
  const kept: [number, string, string][] = [
    [1, 'Dunlin', 'S-001'],
    [1, 'Avocet', 'S-002'],
    [1, 'Knot', 'S-003'],
    [2, 'Plover', 'S-004'],
    [2, 'Turnstone', 'S-007'],
    [2, 'Curlew', 'S-008'],
    [35, 'Dunlin', 'S-005'],
    [59, 'Avocet', 'S-001'],
    [78, 'Turnstone', 'S-009'],
    [97, 'Curlew', 'S-007'],
    [141, 'Dunlin', 'S-002'],
    [172, 'Knot', 'S-006'],
    [241, 'Plover', 'S-005'],
    [269, 'Turnstone', 'S-008'],
    [346, 'Avocet', 'S-003'],
    [1, 'Whimbrel', 'S-010'],
    [2, 'Redshank', 'S-011'],
    [42, 'Greenshank', 'S-013'],
    [132, 'Whimbrel', 'S-012'],
    [223, 'Redshank', 'S-010'],
    [1, 'Godwit', 'S-014'],
    [3, 'Lapwing', 'S-016'],
    [3, 'Oystercatcher', 'S-017'],
    [189, 'Oystercatcher', 'S-018'],
  ];
  // Most were set again after a while, and came out a little different.
  const again = kept
    .filter((_, i) => i % 3 !== 2)
    .map(([days, ...pair]): (typeof kept)[number] => [days + 17, ...pair]);
  for (const [days, machine, tag] of [...kept, ...again]) {
    const at = day(year, days, 15);
    const offset = -1.2 + part(machine) + part(tag) / 4 + (year.random() - 0.5) * 0.02;
    const write = {
      machineId: year.machineIds.get(machine)!,
      surfaceId: year.surfaceIds.get(tag)!,
      offset: Number(offset.toFixed(3)),
      weight: 1,
      note: '',
      at,
    };
    const id = year.ids.next(at);
    year.events.push({ at, write: (db) => keepOffset(db, id, write) });
  }
}

/** Sheets are washed now and then; what is looked at is written down. */
function upkeep(year: Year): void {
  const mounted = SURFACES.filter(
    ({ on, group }) => on !== undefined && ['sheet', 'glass', 'laminate'].includes(group),
  );
  mounted.forEach(({ tag }, i) => {
    for (let days = 20 + i * 2; days < 350; days += 45)
      happens(year, tag, { kind: 'work-done', at: day(year, days, 9), work: 'washed', side: null, note: '' });
    look(year, day(year, 300 + (i % 40), 9), tag, 'coat', 'even');
    look(year, day(year, 301 + (i % 40), 9), tag, 'release', i % 5 === 0 ? 'nudge' : 'by-itself');
  });
  for (const tag of ['F-001', 'F-002', 'F-004', 'F-005']) look(year, day(year, 340, 9), tag, 'film', 'clear');
  look(year, day(year, 351, 9), 'F-006', 'film', 'hazy', {}, 'Still prints; watch it.', { kind: 'film', haze: 0.7 });
  for (const tag of ['B-001', 'B-002', 'B-005', 'B-007']) look(year, day(year, 320, 9), tag, 'pull', 'strong');
  look(year, day(year, 322, 9), 'B-004', 'edges', 'lifting', { front: 0.4 }, 'Front edge; nothing under it.', {
    kind: 'lifted',
    edge: 'front',
    amount: 0.4,
  });
}

/** What a photo was taken of, for its note. */
const photoWords: Record<PlateLook['kind'], (side: Side) => string> = {
  sheet: (side) => `Side ${side}`,
  line: () => 'Straightedge, light behind',
  ridges: () => 'As the cover lies',
  lifted: () => 'The edge from the side',
  film: () => 'Over dark cloth',
};

type Numbers = Record<string, number>;
function look(
  year: Year,
  at: number,
  tag: string,
  card: string,
  code: string,
  numbers: Numbers = {},
  note = '',
  photo?: PlateLook,
  side: Side = 'A',
): void {
  const surfaceId = year.surfaceIds.get(tag)!;
  const id = year.ids.next(at);
  const photoId = photo ? year.ids.next(at + 1) : null;
  year.events.push({
    at,
    write: async (db: Knex) => {
      await saveInspection(db, id, { surfaceId, machineId: null, card, code, numbers, note, at });
      if (!photo || photoId === null || year.photoFolder === null) return;
      const drawn = await drawnPlate(photo, `${year.seed} ${tag} ${at}`);
      const file = await keepPhoto(year.photoFolder, photoId, drawn, DEMO);
      await savePhoto(
        db,
        photoId,
        { surfaceId, inspectionId: id, at, note: `${photoWords[photo.kind](side)}, ${code}` },
        file,
      );
    },
  });
}

function stories(year: Year): void {
  const asked = (tag: string, days: number, what: string) =>
    happens(year, tag, { kind: 'work-asked', at: day(year, days, 16), what });
  const done = (tag: string, days: number, work: 'renewed' | 'repaired', note: string, side: Side | null = 'A') =>
    happens(year, tag, { kind: 'work-done', at: day(year, days, 12), work, side, note });

  // A sheet that fades, is sanded and fades again.
  look(year, day(year, 2, 9), 'S-014', 'coat', 'even', {}, '', { kind: 'sheet', worn: 0 });
  look(year, day(year, 118, 9), 'S-014', 'coat', 'faded', {}, 'Corners lift on long brackets.', {
    kind: 'sheet',
    worn: 0.8,
  });
  done('S-014', 125, 'renewed', 'Sanded with 1500 grit, even strokes all over, washed.');
  look(year, day(year, 126, 9), 'S-014', 'coat', 'even', {}, '', { kind: 'sheet', worn: 0, sanded: true });
  look(year, day(year, 244, 9), 'S-014', 'coat', 'faded', {}, 'The middle first again.', { kind: 'sheet', worn: 0.6 });
  done('S-014', 250, 'renewed', 'Sanded with 2000 grit, then washed.');
  look(
    year,
    day(year, 361, 9),
    'S-014',
    'coat',
    'faded',
    {},
    'Fading on side B too.',
    { kind: 'sheet', worn: 0.45 },
    'B',
  );

  // A base that was laid a quarter turn wrong: its mark was under the liner.
  look(
    year,
    day(year, 30, 9),
    'B-010',
    'pull',
    'weak',
    {},
    'The cover lies in ridges; first layers show lines left to right.',
    { kind: 'ridges' },
  );
  happens(year, 'S-013', { kind: 'taken-off', at: day(year, 40, 9), place: 'Rack 1' });
  happens(year, 'B-010', { kind: 'taken-off', at: day(year, 40, 10), place: 'Drawer 3' });
  happens(year, 'B-010', {
    kind: 'retired',
    at: day(year, 40, 11),
    why: 'Laid a quarter turn wrong: its poles crossed those of the cover. Adhesive spoiled when peeled.',
  });
  putOn(year, 'B-011', day(year, 40, 12), 'Greenshank');
  happens(year, 'B-011', {
    kind: 'held',
    at: day(year, 40, 12) + 60_000,
    hold: 'cure',
    until: day(year, 42, 12),
    reason: 'Adhesive of the new base',
  });
  putOn(year, 'S-013', day(year, 42, 13), 'Greenshank');

  // A cure that was interrupted: the base let go at its edge three weeks later.
  happens(year, 'B-012', {
    kind: 'held',
    at: day(year, 98, 17),
    hold: 'cure',
    until: day(year, 101, 17),
    reason: 'Bonded again after the bed was off',
  });
  happens(year, 'B-012', { kind: 'hold-cut', at: day(year, 99, 13), reason: 'Signs for the harbour fair had to run' });
  look(year, day(year, 99, 14), 'B-012', 'cure', 'cut', { hours: 20 });
  look(
    year,
    day(year, 120, 9),
    'B-012',
    'edges',
    'lifting',
    { right: 0.8 },
    'Right edge, where the cure was cut short.',
    { kind: 'lifted', edge: 'right', amount: 0.8 },
  );
  happens(year, 'S-016', { kind: 'taken-off', at: day(year, 142, 9), place: 'Rack 2' });
  happens(year, 'B-012', { kind: 'taken-off', at: day(year, 142, 10), place: 'Drawer 3' });
  happens(year, 'B-012', {
    kind: 'retired',
    at: day(year, 142, 11),
    why: 'Right edge let go after a cure of 20 h in 72',
  });
  putOn(year, 'B-014', day(year, 142, 12), 'Lapwing');
  happens(year, 'B-014', {
    kind: 'held',
    at: day(year, 142, 12) + 60_000,
    hold: 'cure',
    until: day(year, 145, 12),
    reason: 'Adhesive of the new base, the full 72 h',
  });
  putOn(year, 'S-016', day(year, 145, 13), 'Lapwing');

  // A platform that needed lapping.
  look(year, day(year, 178, 9), 'P-003', 'light-line', 'faint', { feeler: 0.05 }, '', { kind: 'line', gap: 0.05 });
  look(year, day(year, 186, 9), 'P-003', 'light-line', 'clear', { feeler: 0.15 }, 'Prints let go in the middle.', {
    kind: 'line',
    gap: 0.15,
  });
  asked('P-003', 186, 'lap flat on float glass');
  done('P-003', 195, 'repaired', 'Lapped on glass: 400, then 800, wet, figure eights. No light at any place.', null);
  look(year, day(year, 196, 9), 'P-003', 'light-line', 'none', {}, '', { kind: 'line', gap: 0 });

  // Films wear out.
  for (const [tag, machine, days, why] of [
    ['F-001', 'Sandpiper', 214, 'dented in the middle'],
    ['F-003', 'Stilt', 188, 'pierced by a flake of cured resin'],
  ] as const) {
    const spare = tag === 'F-001' ? 'F-007' : 'F-008';
    happens(year, tag, { kind: 'taken-off', at: day(year, days, 9), place: 'Wet cabinet' });
    happens(year, tag, { kind: 'retired', at: day(year, days, 9) + 60_000, why });
    putOn(year, spare, day(year, days, 10), machine);
  }
  happens(year, 'S-020', { kind: 'retired', at: day(year, 280, 9), why: 'Film of the pattern torn at the front edge' });
  happens(year, 'S-024', { kind: 'retired', at: day(year, 302, 9), why: 'Curled at two corners' });
}

/** What is going on in the hall right now. */
function today(year: Year): void {
  const { now } = year;
  const held = (tag: string, hold: 'cure' | 'dry' | 'cool', since: number, hours: number, reason: string) =>
    happens(year, tag, { kind: 'held', at: now - since * HOUR_MS, hold, until: now + hours * HOUR_MS, reason });
  held('B-013', 'cure', 49, 23, 'Bonded again on Oystercatcher: 72 h');
  held('S-018', 'cool', 0.2, 0.7, 'Just printed ASA: let it cool before it is lifted');
  held('S-033', 'dry', 1, 2.5, 'Washed: plate and magnet dry before they meet');
  held('S-006', 'dry', 0.5, 0.3, 'Washed');
  const wants = (tag: string, days: number, what: string) =>
    happens(year, tag, { kind: 'work-asked', at: now - days * DAY_MS, what });
  wants('S-014', 3, 'sand with 2000 grit, both sides');
  wants('S-011', 6, 'scrub off the PETG film');
  wants('B-004', 12, 'press the front edge down and look for what lifts it');
}
