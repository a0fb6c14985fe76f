import type { Print } from '@even-bed/contract';
import { FAILURES, FAILURE_WORDS } from '@even-bed/core';
import type { Knex } from 'knex';
import { seededRandom } from '../../../../packages/core/src/level/seededMap.fixture';
import { connect, migrate } from '../db/connect';
import { saveArea, saveMachine } from '../fleet/store';
import { facts, newId, NOW, sheet } from '../app/shop.fixture';
import { recordEvent, saveSurface } from '../surfaces/store';
import { addPrints, listPrints, type NewPrint } from './store';

const NAMES = ['Dunlin', 'Avocet', 'Knot', 'Plover'];
const MATERIALS = ['PLA', 'PETG', 'ASA', 'PLA 100%', 'my_own'];
const NOTES = ['', '', '', 'harbour sign', 'asa again', '100% infill'];
const random = seededRandom(3);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

let db: Knex;
beforeAll(async () => {
  db = connect(':memory:');
  await migrate(db);
  const areaId = newId();
  await saveArea(db, areaId, { name: 'Long Room', position: 0, version: 0, at: NOW });
  const machines: string[] = [];
  // Eighty more of one name: a search for it hits more things than pages are made of.
  for (const name of [...NAMES, ...Array.from({ length: 80 }, (_, i) => `Ruff ${i}`)]) {
    const id = newId();
    await saveMachine(db, id, { ...facts(areaId, { name }), version: 0, at: NOW });
    machines.push(id);
  }
  for (const machineId of machines.slice(0, 3)) {
    const id = newId();
    await saveSurface(db, id, sheet(), NOW);
    const event = { kind: 'mounted', at: NOW, machineId, slot: 'top', sideUp: 'A', turned: 0 } as const;
    await recordEvent(db, id, event, NOW);
  }
  const prints = Array.from({ length: 900 }, (_, i): NewPrint => {
    const held = random() < 0.8;
    return {
      ...{ id: newId(), machineId: pick(machines.slice(0, random() < 0.8 ? 4 : 84)), material: pick(MATERIALS) },
      // Several end in the same moment: their order then goes by id.
      ...{ endedAt: NOW + Math.floor(i / 3) * 60_000, duration: null, grams: null, held },
      ...{ failure: held ? null : pick(FAILURES), release: null, note: pick(NOTES) },
    };
  });
  await addPrints(db, prints, { source: 'grid', list: 'a test', now: NOW + 1e9 });
});
afterAll(() => db.destroy());

/** Every print that matches, found by looking at each. */
async function byLooking(search: string): Promise<Print[]> {
  const word = search.toLowerCase();
  const { items } = await listPrints(db, { search: '', limit: 10_000 });
  expect(items).toHaveLength(900);
  return items.filter(({ machineName, surfaceTag, material, failure, note }) =>
    [machineName, surfaceTag ?? '', material, failure ? `${failure} ${FAILURE_WORDS[failure]}` : '', note].some(
      (text) => text.toLowerCase().includes(word),
    ),
  );
}

test.each([
  ...['Dunlin', 'dun', 'S-002', 's-00', 'PLA', 'asa', 'harbour', 'let go', 'let-go', 'ruff', 'ruff 7', 'zeppelin'],
  // Signs that LIKE would take for others.
  ...['100%', 'my_own', 'y_o', '%', '_', '\\'],
])('a search for %s finds what looking at each print finds, page by page', async (search) => {
  const wanted = (await byLooking(search)).map(({ id }) => id);
  const found: string[] = [];
  for (let after: string | undefined; ;) {
    const page = await listPrints(db, { search, after, limit: 37 });
    found.push(...page.items.map(({ id }) => id));
    if (page.next === null) break;
    after = page.next;
  }
  expect(found).toEqual(wanted);
});

test('other filters hold beside the words', async () => {
  const failed = (await byLooking('asa')).filter(({ held }) => !held);
  expect(failed.length).toBeGreaterThan(5);
  const { items } = await listPrints(db, { search: 'asa', held: false, limit: 500 });
  expect(items.map(({ id }) => id)).toEqual(failed.map(({ id }) => id));
  const [{ machineId }] = failed as [Print];
  const here = await listPrints(db, { search: 'asa', machineId, limit: 500 });
  expect(here.items.every((print) => print.machineId === machineId)).toBe(true);
  expect(here.items).toHaveLength((await byLooking('asa')).filter((print) => print.machineId === machineId).length);
});
