import { taughtFactWords, taughtJobWords } from './taught';

const HOUSE = { units: 'mm', zone: 'Europe/Oslo', numbers: 'point' } as const;
const INCHES = { units: 'in', zone: 'America/Denver', numbers: 'comma' } as const;
const glass = {
  homeMoved: true,
  fitted: [{ tag: 'G-002', kind: 'Borosilicate pane', width: 235, depth: 230, thickness: 3.05 }],
  readings: [
    { label: 'Clip above the plate', value: 4.2, unit: 'mm' as const, said: null },
    { label: 'Countersunk screw', value: 4, unit: '' as const, said: 'M4' },
  ],
};

test('what was fitted, measured and moved, in the reader’s units', () => {
  expect(taughtJobWords(glass, HOUSE)).toEqual([
    'Home had to be moved.',
    'G-002 went on: Borosilicate pane, 235 × 230 × 3.05 mm.',
    'Clip above the plate: 4.2 mm.',
    'Countersunk screw: M4.',
  ]);
  expect(taughtJobWords({ ...glass, homeMoved: false, readings: [] }, INCHES)).toEqual([
    'Home was not moved.',
    'G-002 went on: Borosilicate pane, 9,252 × 9,055 × 0,1201 in.',
  ]);
});

test('what nobody measured or asked is not said', () => {
  const bare = { homeMoved: null, fitted: [{ ...glass.fitted[0]!, thickness: null }], readings: [] };
  expect(taughtJobWords(bare, HOUSE)).toEqual(['G-002 went on: Borosilicate pane, 235 × 230 mm.']);
  expect(taughtFactWords({ platformKey: null, threads: [] }, HOUSE)).toEqual([]);
  expect(taughtFactWords({ platformKey: 4, threads: ['M4'] }, HOUSE)).toEqual([
    'Adjusters: M4.',
    'Key of the platform’s screws: 4 mm.',
  ]);
});
