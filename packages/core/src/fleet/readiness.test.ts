import { readiness, type AgainstPrinting, type Readiness, type ReadinessFacts } from './readiness';

const NOW = 1_000_000_000;
const DAY = 86_400_000;
const READY: ReadinessFacts = {
  ...{ heldUntil: null, checking: false, job: null, followed: true, top: true, zero: null, asked: null },
  ...{ prints: { of: 20, failed: 0, lastThree: 0 }, rule: null, left: null },
};
type Row = [name: string, facts: Partial<ReadinessFacts>, state: Readiness['state'], codes: AgainstPrinting['code'][]];

test.each<Row>([
  ['nothing against it', {}, 'ready', []],
  ['a hold that is over', { heldUntil: NOW }, 'ready', []],
  ['a hold', { heldUntil: NOW + 1 }, 'busy', ['held']],
  ['a job under way', { job: 'Mount glass' }, 'busy', ['job']],
  ['a check under way', { checking: true }, 'busy', ['check']],
  ['nothing to print on', { top: false }, 'not', ['bare']],
  ['surfaces that nobody follows', { top: false, followed: false }, 'ready', []],
  ['a zero that stands', { zero: 'stands' }, 'ready', []],
  ['a zero that has expired', { zero: 'expired' }, 'not', ['zero']],
  ['a zero that nobody wrote down', { zero: 'never' }, 'look', ['zero']],
  ['a sheet that waits for work', { asked: { tag: 'S-1', what: 'sand it' } }, 'look', ['asked']],
  ['four of twenty failed', { prints: { of: 20, failed: 4, lastThree: 2 } }, 'ready', []],
  ['five of twenty failed', { prints: { of: 20, failed: 5, lastThree: 0 } }, 'look', ['failing']],
  ['the last three failed', { prints: { of: 3, failed: 3, lastThree: 3 } }, 'look', ['failing']],
  ['a check that ended within its aim', { left: { range: 0.1, aim: 0.1 } }, 'ready', []],
  ['a check that ended over its aim', { left: { range: 0.11, aim: 0.1 } }, 'look', ['over-aim']],
  ['a level due tomorrow', { rule: { everyDays: 14, nextDueAt: NOW + DAY } }, 'ready', []],
  ['a level due now', { rule: { everyDays: 14, nextDueAt: NOW } }, 'look', ['level-due']],
])('%s', (_, facts, state, codes) => {
  const found = readiness({ ...READY, ...facts }, NOW);
  expect(found.state).toBe(state);
  expect(found.against.map(({ code }) => code)).toEqual(codes);
});

test('the weightiest thing comes first and says the state, whatever else there is: every pair of things', () => {
  const things: [AgainstPrinting['code'], Partial<ReadinessFacts>][] = [
    ['held', { heldUntil: NOW + DAY }],
    ['job', { job: 'Mount glass' }],
    ['check', { checking: true }],
    ['bare', { top: false }],
    ['zero', { zero: 'expired' }],
    ['asked', { asked: { tag: 'S-1', what: 'sand it' } }],
    ['failing', { prints: { of: 20, failed: 9, lastThree: 3 } }],
    ['over-aim', { left: { range: 0.2, aim: 0.1 } }],
    ['level-due', { rule: { everyDays: 14, nextDueAt: NOW - DAY } }],
  ];
  for (const [i, [first, one]] of things.entries())
    for (const [second, other] of things.slice(i + 1)) {
      const found = readiness({ ...READY, ...one, ...other }, NOW);
      expect(found.against.map(({ code }) => code)).toEqual([first, second]);
      expect(found.state).toBe(readiness({ ...READY, ...one }, NOW).state);
    }
});

test('three in a row are said as three in a row, many as many', () => {
  const failing = (prints: ReadinessFacts['prints']) => readiness({ ...READY, prints }, NOW).against[0];
  expect(failing({ of: 20, failed: 4, lastThree: 3 })).toEqual({ code: 'failing', failed: 3, of: 3 });
  expect(failing({ of: 20, failed: 6, lastThree: 3 })).toEqual({ code: 'failing', failed: 6, of: 20 });
});

test('a time that is none is refused', () => expect(() => readiness(READY, NaN)).toThrow(RangeError));
