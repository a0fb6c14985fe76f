import { changeable, changed } from './changeParked';
import type { Waiting } from './waiting';

const parked = (body: unknown, fields: Record<string, string> = {}, kind: 'refused' | 'broken' = 'refused') =>
  ({ key: 'k', body, tries: 2, parked: { kind, reason: 'No.', fields, at: 1 } }) as unknown as Waiting;

const print = { machineId: 'm', material: 'PLA', endedAt: 5, duration: null, grams: 12.5, held: true, note: '' };

test('what the server named can be put right, with what it said of it', () => {
  const one = parked({ ...print, numbers: { feeler: 9 } }, { 'numbers.feeler': 'Too thick.', grams: 'Too heavy.' });
  expect(changeable(one)).toEqual([
    { path: 'numbers.feeler', label: 'Numbers: feeler', text: '9', fault: 'Too thick.' },
    { path: 'grams', label: 'Grams', text: '12.5', fault: 'Too heavy.' },
  ]);
});

test('where it named nothing, all that was typed; no names of records, moments, or ticks', () =>
  expect(changeable(parked(print)).map(({ path }) => path)).toEqual(['material', 'duration', 'grams', 'note']));

test('nothing where it failed by itself, or where what is wrong can’t be typed', () => {
  expect(changeable(parked(print, {}, 'broken'))).toEqual([]);
  expect(changeable(parked(print, { machineId: 'Not here.' }))).toEqual([]);
  expect(changeable(parked(print, { 'parts.sheet': 'Choose one.' }))).toEqual([]);
  expect(changeable(parked(null))).toEqual([]);
});

test('put right, it waits anew: numbers with a comma stay numbers, and nothing else is touched', () => {
  const one = parked({ ...print, numbers: { feeler: 9 } });
  const done = changed(one, { grams: '7,5', 'numbers.feeler': '0.2', duration: '', note: 'thin' });
  expect(done).toMatchObject({ ok: true, waiting: { tries: 0, parked: null } });
  expect(done.ok && done.waiting.body).toEqual({ ...print, grams: 7.5, numbers: { feeler: 0.2 }, note: 'thin' });
  expect((one.body as typeof print).grams).toBe(12.5);
});

test('what is no number is said at its field, and nothing is changed', () => {
  expect(changed(parked(print), { grams: 'much' })).toEqual({ ok: false, faults: { grams: 'This is not a number.' } });
});
