import { levelNoteResult, noteFromJob } from './levelNote';
import { CORNERS } from './tugs';

const alike = Object.fromEntries(CORNERS.map((corner) => [corner, 1]));

test('quarter sheets as a job read them: even with effort all round, and how far apart at most', () => {
  const raw = noteFromJob('quarters', 'firm', { ...alike, ten: 1.02 })!;
  expect(raw).toMatchObject({ way: 'quarters', drag: 'firm', ten: 1.02, tugs: { 'rear-left': 'comes with effort' } });
  expect(levelNoteResult(raw)).toMatchObject({ verdict: 'even', range: { least: 0, most: 0.03 } });
});

test('one corner slides: uneven, and from where to tighten', () => {
  const raw = noteFromJob('quarters', 'firm', { ...alike, 'front-left': 0 })!;
  expect(levelNoteResult(raw)).toMatchObject({
    verdict: 'uneven',
    next: {
      tugs: { verdict: 'corner', at: ['front-left'], order: ['front-left', 'rear-right', 'rear-left', 'front-right'] },
    },
  });
});

test('one sheet, the film and the lock prove nothing of the corners', () => {
  for (const [way, readings] of [
    ['sheet', { all: 1 }],
    ['film', {}],
    ['lock', {}],
  ] as const)
    expect(levelNoteResult(noteFromJob(way, 'still', readings)!)).toEqual({
      verdict: 'unproven',
      range: null,
      next: null,
    });
});

test('what was not read is no note; words that are none are refused', () => {
  expect(noteFromJob('quarters', 'firm', { 'rear-left': 1 })).toBeNull();
  expect(noteFromJob('sheet', 'firm', {})).toBeNull();
  expect(noteFromJob('by-eye', 'firm', alike)).toBeNull();
  expect(noteFromJob('sheet', 'firm', { all: NaN })).toBeNull();
  expect(() => levelNoteResult({ way: 'sheet', tug: 'soft' as never, drag: 'firm', ten: null })).toThrow('knows tugs');
});

test('a skirt that touches all round is even within half a class', () => {
  const looks = { front: 'touching', right: 'touching', rear: 'touching', left: 'touching' } as const;
  const print = { x: 0, y: 0, width: 200, depth: 200 };
  expect(levelNoteResult({ way: 'skirt', adjusters: [], print, rounds: [{ looks, made: null }] })).toMatchObject({
    verdict: 'even',
    range: { least: 0, most: 0.05 },
    next: { skirt: { do: 'done' } },
  });
});
