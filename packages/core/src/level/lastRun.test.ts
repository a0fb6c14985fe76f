import type { Reader } from './heightReading';
import { lastRun } from './lastRun';

const reader = (map?: string): Reader => ({
  options: map === undefined ? {} : { answers: { map } },
  warnings: [],
  questions: [],
});
/** Runs over so many places of a row each, one line a reading. */
const runs = (...counts: number[]) => {
  let line = 0;
  return counts.flatMap((count, run) =>
    Array.from({ length: count }, (_, i) => ({ line: ++line, x: 10 * i, y: 5, run })),
  );
};

test('of two runs over the same places the last counts, with a warning, and others are offered', () => {
  const said = reader();
  expect(lastRun(runs(4, 4), said).map(({ run }) => run)).toEqual([1, 1, 1, 1]);
  expect(said.questions).toEqual([{ code: 'map', options: ['1', '2', 'all'], taken: '2' }]);
  expect(said.warnings).toEqual([{ line: 5, message: '2 readings of the same places were found; number 2 was used.' }]);
  expect(lastRun(runs(4, 4), reader('1')).map(({ run }) => run)).toEqual([0, 0, 0, 0]);
  expect(lastRun(runs(4, 4), reader('all'))).toHaveLength(8);
});

test.each([
  ['one run', runs(6)],
  ['a few places looked at again', runs(9, 4)],
  ['more runs than anybody makes', runs(...Array.from({ length: 21 }, () => 2))],
  ['nothing', []],
])('%s is one reading, and nothing is asked', (_, rows) => {
  const said = reader();
  expect(lastRun(rows, said)).toEqual(rows);
  expect(said.questions).toEqual([]);
});

test('half the places are enough for a run of its own, and twenty runs are still maps', () => {
  const said = reader();
  lastRun(runs(8, 4), said);
  lastRun(runs(...Array.from({ length: 20 }, () => 3)), said);
  expect(said.questions.map(({ taken }) => taken)).toEqual(['2', '20']);
});
