import type { AgainstPrinting } from '@even-bed/core/fleet/readiness';
import { againstSentence, againstWords, readinessWords } from './readiness';

const HOUSE = { units: 'mm', zone: 'Europe/Oslo', numbers: 'point' } as const;
const INCHES = { units: 'in', zone: 'America/Denver', numbers: 'comma' } as const;
const NOW = Date.UTC(2026, 10, 25, 12);
const HOUR = 3_600_000;

test.each<[AgainstPrinting, short: string, sentence: string]>([
  [{ code: 'held', until: NOW + 3 * HOUR }, 'Held, 3 h', 'It is on hold, or a job on it waits: 3 h left.'],
  [{ code: 'job', title: 'Mount glass' }, 'Job under way', 'A job is under way on it: Mount glass.'],
  [{ code: 'check' }, 'Check under way', 'A level check of it is under way.'],
  [
    { code: 'bare' },
    'Nothing to print on',
    'No sheet or plate is written down on it. Put one on, or write down what lies there.',
  ],
  [
    { code: 'zero', state: 'expired' },
    'Zero expired',
    'Its zero has expired: something between home and film has changed since it was set. Level it and set zero.',
  ],
  [{ code: 'zero', state: 'never' }, 'Zero not set', 'Nobody has written down that its zero was set.'],
  [{ code: 'asked', tag: 'S-014', what: 'sand it' }, 'S-014 waits for work', 'S-014 on it waits for work: sand it.'],
  [
    { code: 'failing', failed: 5, of: 20 },
    '5 of 20 failed',
    '5 of its last 20 prints failed. Look at them before the next.',
  ],
  [
    { code: 'over-aim', range: 0.127, aim: 0.1 },
    'Range 0.13 mm, over its aim',
    'Its last check left a range of 0.13 mm, over the aim of 0.1 mm.',
  ],
  [{ code: 'level-due', since: NOW - 48 * HOUR }, 'Level 2 days late', 'Its level check is 2 days late.'],
])('%j', (against, short, sentence) => {
  expect(againstWords(against, HOUSE, NOW)).toBe(short);
  expect(againstSentence(against, HOUSE, NOW)).toBe(sentence);
});

test('in inches, with a comma; the first of several is what a list says', () => {
  const over = { code: 'over-aim', range: 0.127, aim: 0.1 } as const;
  expect(againstWords(over, INCHES, NOW)).toBe('Range 0,005 in, over its aim');
  expect(readinessWords({ state: 'look', against: [over, { code: 'check' }] }, INCHES, NOW)).toBe(
    'Range 0,005 in, over its aim',
  );
  expect(readinessWords({ state: 'ready', against: [] }, HOUSE, NOW)).toBe('Ready');
});
