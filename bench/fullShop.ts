import Database from 'better-sqlite3';
import { entryHash, FIRST_HASH } from '../apps/server/src/db/entryHash';
import { STARTING_KINDS } from '../apps/server/src/db/migrations/startingKinds';
import { seededRandom } from '../packages/core/src/level/seededMap.fixture';

export const SIZE = { machines: 500, surfaces: 5_000, prints: 1_000_000, book: 2_000_000 };
export const LAST = Date.UTC(2026, 10, 25);
const YEAR_MS = 365 * 86_400_000;
const NAMES = ['Dunlin', 'Avocet', 'Knot', 'Plover', 'Turnstone', 'Whimbrel', 'Godwit', 'Curlew', 'Ruff', 'Stint'];
const MATERIALS = ['PLA', 'PETG', 'ASA', 'TPU', 'PC blend'];

export const machineId = (i: number) => `00000000-0000-7000-8000-${String(i).padStart(12, '0')}`;
export const surfaceId = (i: number) => `00000000-0000-7000-8001-${String(i).padStart(12, '0')}`;
const printId = (i: number) => `00000000-0000-7000-8002-${String(i).padStart(12, '0')}`;
export const PERSON = '00000000-0000-7000-8003-000000000001';

/** Fills a migrated, empty shop with the records of many years; made up from a seed. */
export function fillShop(file: string): void {
  const raw = new Database(file);
  raw.pragma('synchronous = OFF');
  raw.pragma('cache_size = -400000');
  const random = seededRandom(11);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const insert = (table: string, row: Record<string, unknown>) =>
    `INSERT INTO ${table} (${Object.keys(row)
      .map((name) => `"${name}"`)
      .join(', ')}) VALUES (${Object.keys(row)
      .map((name) => `@${name}`)
      .join(', ')})`;
  const many = (table: string, count: number, row: (i: number) => Record<string, unknown>) => {
    const first = row(0);
    const statement = raw.prepare(insert(table, first));
    for (let from = 0; from < count; from += 100_000)
      raw.transaction(() => {
        for (let i = from; i < Math.min(count, from + 100_000); i++) statement.run(i === 0 ? first : row(i));
      })();
  };
  const stamps = { version: 1, created_at: 1, updated_at: 1 };
  many('people', 1, () => ({
    id: PERSON,
    name: 'Bench',
    name_key: 'bench',
    role: 'lead',
    active: 1,
    secret: '-',
    secret_kind: 'passphrase',
    ...stamps,
  }));
  many('areas', 10, (i) => ({ id: `area-${i}`, name: `Room ${i}`, position: i, ...stamps }));
  many('machines', SIZE.machines, (i) => ({
    ...{ id: machineId(i), area_id: `area-${i % 10}`, name: `${NAMES[i % NAMES.length]} ${i}`, shelf: `A${i % 40}` },
    ...{ model: '225 bed-slinger', family: 'filament', plate_width: 235, plate_depth: 235, print_width: 225 },
    ...{ print_depth: 225, origin_x: 5, origin_y: 5, first_layer: 0.2, seen_from: 'above', compensation: 1, aim: null },
    ...{
      finding: 'endstop',
      plus: 'higher',
      note: '',
      tag: `M-${String(i + 1).padStart(3, '0')}`,
      hottest: 100,
      ...stamps,
    },
  }));
  many('adjusters', SIZE.machines * 4, (i) => ({
    ...{ machine_id: machineId(Math.floor(i / 4)), id: `k${i % 4}`, position: i % 4, name: `knob ${i % 4}` },
    ...{ x: 25 + 175 * (i % 2), y: 25 + 175 * (i % 4 > 1 ? 1 : 0), thread: 'M4', pitch: 0.7, clockwise: 'lowers' },
  }));
  many('surfaces', SIZE.surfaces, (i) => ({
    ...{ id: surfaceId(i), tag: `S-${String(i + 1).padStart(3, '0')}`, kind_id: STARTING_KINDS[i % 3]!.id },
    ...{ width: 235, depth: 235, note: i % 50 === 0 ? 'a scratch rear left' : '', place: `Rack ${i % 60}` },
    machine_id: i < SIZE.machines ? machineId(i) : null,
    ...(i < SIZE.machines ? { slot: 'top', side_up: 'A', turned: 0 } : { slot: null, side_up: null, turned: null }),
    ...{ changed_at: 1, ...stamps },
  }));
  many('mounts', SIZE.machines, (i) => ({
    ...{
      surface_id: surfaceId(i),
      machine_id: machineId(i),
      slot: 'top',
      side_up: 'A',
      turned: 0,
      from_at: 1,
      fitted_at: 1,
      fitted_by: PERSON,
      to_at: null,
    },
  }));
  many('prints', SIZE.prints, (i) => {
    const at = Math.floor(LAST - 5 * YEAR_MS * (1 - i / SIZE.prints));
    const held = random() > 0.05;
    const machine = Math.floor(random() * SIZE.machines);
    return {
      ...{ id: printId(i), machine_id: machineId(machine), surface_id: surfaceId(machine), side: 'A' },
      ...{ material: pick(MATERIALS), ended_at: at, duration: 7000, grams: 40, held: held ? 1 : 0 },
      ...{
        failure: held ? null : pick(['let-go', 'foot']),
        release: null,
        note: i % 200_000 === 77 ? 'harbour sign' : '',
      },
      ...{ source: 'machine', person_id: null, created_at: at, withdrawn_at: null },
    };
  });
  const indexed = raw.prepare(`SELECT sql FROM sqlite_master WHERE name = 'book_indexed'`).pluck().get() as string;
  raw.exec('DROP TRIGGER book_indexed');
  let before = FIRST_HASH;
  many('book', SIZE.book, (i) => {
    const machine = Math.floor(random() * SIZE.machines);
    const entry = {
      ...{ seq: i + 1, id: `e${i}`, at: Math.floor(LAST - 5 * YEAR_MS * (1 - i / SIZE.book)), kind: 'print-logged' },
      ...{ machine_id: machineId(machine), check_id: null, surface_id: surfaceId(machine), person_id: PERSON },
      text: `${NAMES[machine % NAMES.length]} ${machine}: print held on S-${String(machine + 1).padStart(3, '0')}, ${pick(MATERIALS)}.${i % 400_000 === 5 ? ' For the harbour fair.' : ''}`,
      ...{ data: '{"held":true}', corrects: null },
    };
    const row = { ...entry, before_hash: before, hash: entryHash(before, entry) };
    before = row.hash;
    return row;
  });
  raw.exec(`INSERT INTO book_text(book_text) VALUES ('rebuild')`);
  raw.exec(indexed);
  raw.exec('ANALYZE');
  raw.close();
}
