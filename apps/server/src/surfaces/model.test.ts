import type { SurfaceWrite } from '@even-bed/contract';
import {
  ImpossibleEvent,
  isHeld,
  replaySurface,
  type QuarterTurn,
  type Side,
  type SurfaceEvent,
  type SurfaceState,
} from '@even-bed/core';
import type Database from 'better-sqlite3';
import type { Knex } from 'knex';
import { seededRandom } from '../../../../packages/core/src/level/seededMap.fixture';
import { proved, trials } from '../../../../packages/core/src/simulated/prove.fixture';
import { verifyBook } from '../book/store';
import { connect, migrate } from '../db/connect';
import { saveArea, saveMachine } from '../fleet/store';
import { Problem } from '../kernel/problem';
import { facts, newId, NOW } from '../app/shop.fixture';
import { mount } from './mount';
import { stateOf, type SurfaceRow } from './rows';
import { needSurface, recordEvent, saveSurface } from './store';

const SEQUENCES = trials(10_000, 2_500);
const HOUR = 3_600_000;
const SHEET = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d0001';
const BASE = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d0007';

let db: Knex;
/** The driver beneath, for looking at what is there without asking the code under test. */
let raw: Database.Database;
const machines = [newId(), newId()];
let random = seededRandom(1);
const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;

beforeAll(async () => {
  db = connect(':memory:');
  await migrate(db);
  raw = (await db.client.acquireConnection()) as Database.Database;
  await db.client.releaseConnection(raw);
  const areaId = newId();
  await saveArea(db, areaId, { name: 'Long Room', position: 0, version: 0, at: NOW });
  for (const [i, id] of machines.entries())
    await saveMachine(db, id, { ...facts(areaId, { name: `M${i}` }), version: 0, at: NOW });
});
afterAll(() => db.destroy());

const surface = (kindId: string): SurfaceWrite => ({
  tag: '',
  kindId,
  width: 235,
  depth: 235,
  thickness: null,
  boughtAt: null,
  price: null,
  note: '',
  place: 'Rack 1',
  version: 0,
  at: NOW,
});

/** One thing that somebody might try, possible or not. */
function attempt(ids: readonly string[], at: number): { id: string; run: (trx: Knex) => Promise<unknown> } {
  const id = pick(ids);
  const event = (what: SurfaceEvent) => ({ id, run: (trx: Knex) => recordEvent(trx, id, what, at) });
  switch (Math.floor(random() * 12)) {
    case 0:
      return event({ kind: 'taken-off', at, place: pick(['Rack 1', 'Rack 2', '']) });
    case 1:
      return event({ kind: 'moved', at, place: pick(['Rack 1', 'Rack 2']) });
    case 2:
      return event({ kind: 'turned', at, sideUp: pick<Side>(['A', 'B']), turned: pick<QuarterTurn>([0, 180]) });
    case 3:
      return event({ kind: 'held', at, hold: 'cure', until: at + (random() * 4 - 0.5) * HOUR, reason: 'cure' });
    case 4:
      return event({ kind: 'hold-cut', at, reason: pick(['needed', '']) });
    case 5:
      return event({ kind: 'work-asked', at, what: 'scrub' });
    case 6:
      return event({
        kind: 'work-done',
        at,
        work: pick(['washed', 'renewed']),
        side: pick([null, 'A' as const]),
        note: '',
      });
    case 7:
      return random() < 0.3
        ? event({ kind: 'retired', at, why: 'gouged' })
        : event({ kind: 'brought-back', at, why: 'a mistake', place: 'Rack 1' });
    default:
      return { id, run: (trx) => putOn(trx, id, at) };
  }
}

/** Mounts as the app does, told of what gives way; now and then with what was true a while ago. */
async function putOn(trx: Knex, id: string, at: number): Promise<void> {
  const machineId = pick(machines);
  const { state, kind } = await needSurface(trx, id);
  const slot = kind.id === BASE ? 'base' : 'top';
  const there = (await trx('surfaces').where({ machine_id: machineId, slot }).first()) as { id: string } | undefined;
  const told = random() < 0.85;
  await mount(
    trx,
    machineId,
    {
      surfaceId: id,
      sideUp: kind.sides.length > 1 ? pick<Side>(['A', 'B']) : 'A',
      turned: pick<QuarterTurn>([0, 90, 180]),
      answers: ['clean-dry', 'front-mark', 'heat', 'size'],
      from: told && state.where.kind === 'machine' ? state.where.machineId : null,
      replaces: told && there && there.id !== id ? { surfaceId: there.id, place: 'Rack 3' } : null,
      at,
    },
    at,
  );
}

/** The state that the book alone tells. */
function replayed(id: string): SurfaceState | null {
  const told = raw.prepare('SELECT data FROM book WHERE surface_id = ? ORDER BY seq').all(id) as { data: string }[];
  return replaySurface(told.map(({ data }) => (JSON.parse(data) as { event: SurfaceEvent }).event));
}

const stateNow = (id: string): SurfaceState =>
  stateOf(raw.prepare('SELECT * FROM surfaces WHERE id = ?').get(id) as SurfaceRow);
const lines = () => (raw.prepare('SELECT max(seq) AS last FROM book').get() as { last: number }).last;

test(`${SEQUENCES} random sequences through the real store: never two places, no negative hold, every change in the book, and the book gives the same state`, async () => {
  let done = 0;
  let refused = 0;
  let linesBefore = lines();
  for (let seed = 1; seed <= SEQUENCES; seed++) {
    random = seededRandom(seed);
    const ids = [newId(), newId()];
    let now = NOW;
    await db.transaction(async (trx) => {
      await saveSurface(trx, ids[0]!, surface(SHEET), now);
      await saveSurface(trx, ids[1]!, surface(random() < 0.6 ? SHEET : BASE), now);
    });
    let written = 2;
    const steps = 2 + Math.floor(random() * 5);
    for (let step = 0; step < steps; step++) {
      now += Math.floor(random() * 2 * HOUR);
      const before = lines();
      const { run } = attempt(ids, random() < 0.1 ? now - HOUR : now);
      try {
        await db.transaction((trx) => run(trx));
        done++;
        // Something happened: at least one line says so.
        expect(lines()).toBeGreaterThan(before);
      } catch (error) {
        if (!(error instanceof ImpossibleEvent) && !(error instanceof Problem)) throw error;
        refused++;
        // All or nothing: what was refused half-way left nothing behind.
        expect(lines()).toBe(before);
      }
      written += lines() - before;
      holds(ids, now);
    }
    expect(lines()).toBe(linesBefore + written);
    linesBefore += written;
    for (const id of ids) expect(replayed(id)).toEqual(stateNow(id));
    // Leave the machines empty for the next sequence.
    await db.transaction(async (trx) => {
      for (const id of ids) {
        const { state } = await needSurface(trx, id);
        if (state.retired === null) {
          await recordEvent(trx, id, { kind: 'retired', at: now, why: 'end' }, now + 100 * HOUR);
          linesBefore++;
        }
      }
    });
  }
  proved('the store', 'random sequences of mounts, holds and undoings', `${done} done, ${refused} refused, none half`);
  expect(done).toBeGreaterThan(SEQUENCES);
  expect(refused).toBeGreaterThan(SEQUENCES);
  expect(await db('mounts').whereNull('to_at')).toEqual([]);
  expect(await verifyBook(db)).toMatchObject({ sound: true });
}, 900_000);

/** What must hold after every step. */
function holds(ids: readonly string[], now: number): void {
  const open = raw.prepare('SELECT surface_id, machine_id, slot FROM mounts WHERE to_at IS NULL').all() as {
    surface_id: string;
    machine_id: string;
    slot: string;
  }[];
  for (const id of ids) {
    const state = stateNow(id);
    const mine = open.filter(({ surface_id }) => surface_id === id).map(({ machine_id }) => machine_id);
    // One place: on a machine just when one span is open, and that span names the machine.
    const wanted = state.where.kind === 'machine' ? [state.where.machineId] : [];
    if (mine.join() !== wanted.join()) throw new Error(`${id} lies in ${mine.join()}, its state says ${wanted.join()}`);
    if (state.hold && !(state.hold.until > state.hold.since))
      throw new Error(`${id} has a hold that ends before it begins`);
    if (state.retired !== null && (isHeld(state, now) || wanted.length > 0))
      throw new Error(`${id} is retired and in use`);
  }
  const slots = open.map(({ machine_id, slot }) => `${machine_id} ${slot}`);
  if (new Set(slots).size !== slots.length) throw new Error(`two surfaces in one slot: ${slots.join()}`);
}
