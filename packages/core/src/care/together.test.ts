import { PROCEDURES } from './procedures';
import { carryList, nextTogether, partLosses, type TogetherRun } from './together';
import { beginRun, type RunSetup } from './runProcedure';
import { usualChoices } from './workWell.fixture';

const doc = PROCEDURES.find(({ id }) => id === 'fit-base-and-sheet')!;
const setup: RunSetup = { procedure: doc, choices: { ...usualChoices(doc), wait: '24' }, startedAt: 0 };
const run = (id: string, at: string | null, enteredAt = 0): TogetherRun => ({
  id,
  setup,
  state: { ...beginRun(setup), at, enteredAt, ended: at === null ? 'done' : null },
});

test('all machines go through a phase before the next begins; what waits or has ended is passed over', () => {
  expect(nextTogether([run('a', 'degrease'), run('b', 'room'), run('c', 'room')], 'a', 0)).toBe('b');
  expect(nextTogether([run('a', 'degrease'), run('b', 'degrease'), run('c', 'room')], 'b', 0)).toBe('c');
  expect(nextTogether([run('a', 'degrease'), run('b', 'degrease'), run('c', 'degrease')], 'c', 0)).toBe('a');
  // The only one that hands can go on with is the one that they have.
  expect(nextTogether([run('a', 'home'), run('b', 'weight'), run('c', null)], 'a', 5)).toBe('a');
  expect(nextTogether([run('b', 'weight')], null, 5)).toBeNull();
  expect(nextTogether([run('b', 'weight')], null, 24 * 3_600_000)).toBe('b');
  expect(nextTogether([], null, 0)).toBeNull();
});

test('what is carried: tools once, materials and parts for each machine', () => {
  const list = carryList(doc, [
    { machine: 'Avocet', parts: { base: { tag: 'B-004', place: 'Rack 1' } } },
    { machine: 'Knot', parts: {} },
  ]);
  expect(list.tools).toEqual(doc.tools);
  expect(list.materials[0]).toEqual({ name: 'base with its liner', count: 2 });
  expect(list.parts).toEqual([
    { machine: 'Avocet', part: 'The base', tag: 'B-004', place: 'Rack 1' },
    { machine: 'Avocet', part: 'The sheet', tag: null, place: '' },
    { machine: 'Knot', part: 'The base', tag: null, place: '' },
    { machine: 'Knot', part: 'The sheet', tag: null, place: '' },
  ]);
});

test('what is lost when a part is not followed goes by what its job writes of it', () => {
  expect(partLosses(doc, 'base')).toEqual(['place', 'hold', 'retired']);
  expect(partLosses(doc, 'old')).toEqual(['place']);
  expect(partLosses(doc, 'nobody')).toEqual([]);
  // Every part of every job is there for something.
  for (const one of PROCEDURES)
    for (const { id } of one.parts)
      expect([one.id, id, partLosses(one, id).length > 0 || one.steps.some(({ about }) => about === id)]).toEqual([
        one.id,
        id,
        true,
      ]);
});
