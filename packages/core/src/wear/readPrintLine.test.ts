import { guessColumns, readPrintLine, type ColumnMatch } from './readPrintLine';
import { readFailure, readHeld, readRelease } from './printWords';
import { readSpan, readTime } from './readTime';

const utc = { dayFirst: true, zone: 'UTC' };
const AT = Date.UTC(2026, 10, 25, 14, 20);

test.each([
  ['2026-11-25 14:20', AT],
  ['2026-11-25T14:20:00Z', AT],
  ['2026-11-25T15:20:00+01:00', AT],
  ['2026-11-25T09:20:00.000-0500', AT],
  ['25.11.2026 14:20', AT],
  ['25/11/2026, 14:20', AT],
  ['25-11-2026 2:20 pm', AT],
  ['25/11/2026 12:20 am', Date.UTC(2026, 10, 25, 0, 20)],
  ['2026-11-25', Date.UTC(2026, 10, 25)],
  [String(AT / 1000), AT],
  [String(AT), AT],
])('%s', (text, at) => expect(readTime(text, utc)).toBe(at));

test.each(['', 'yesterday', '31.02.2026', '2026-13-01', '25.11.26', '2026-11-25 25:00'])('“%s” is no time', (text) =>
  expect(readTime(text, utc)).toBeNull(),
);

// Facts of the IANA time zone database: Lisbon is at UTC+0 in winter and +1 in summer; New York at −5 and −4.
test.each([
  ['2026-07-01 12:00', 'Europe/Lisbon', Date.UTC(2026, 6, 1, 11)],
  ['2026-12-01 12:00', 'Europe/Lisbon', Date.UTC(2026, 11, 1, 12)],
  ['2026-07-01 12:00', 'America/New_York', Date.UTC(2026, 6, 1, 16)],
  ['2026-12-01 12:00', 'America/New_York', Date.UTC(2026, 11, 1, 17)],
])('%s in %s', (text, zone, at) => expect(readTime(text, { dayFirst: true, zone })).toBe(at));

test('what follows a mark behind "failed" says how', () => {
  const match = { columns: { machine: 0, ended: 1, held: 2 }, dayFirst: true, durationUnit: 's' as const };
  const read = (held: string) => readPrintLine(['Dunlin', '2026-11-20 14:00', held], { match, zone: 'UTC', now: AT });
  expect(read('failed, corner lifted')).toMatchObject({ ok: true, print: { held: false, failure: 'lifted-corner' } });
  expect(read('ok (a corner was close)')).toMatchObject({ ok: true, print: { held: true, failure: null } });
  expect(read('no issues')).toMatchObject({ ok: false });
});

test('the zone of a list doesn’t move a time that says its own, and 3/4 is asked about', () => {
  expect(readTime('2026-07-01T12:00Z', { dayFirst: true, zone: 'America/New_York' })).toBe(Date.UTC(2026, 6, 1, 12));
  expect(readTime('3/4/2026', { dayFirst: true, zone: 'UTC' })).toBe(Date.UTC(2026, 3, 3));
  expect(readTime('3/4/2026', { dayFirst: false, zone: 'UTC' })).toBe(Date.UTC(2026, 2, 4));
  expect(readTime('3.4.2026', { dayFirst: false, zone: 'UTC' })).toBe(Date.UTC(2026, 3, 3));
});

test.each([
  ['1:30', 's', 5400],
  ['1:30:15', 's', 5415],
  ['90', 'min', 5400],
  ['1,5', 'h', 5400],
  ['1 h 30 min', 's', 5400],
  ['2h', 'min', 7200],
  ['1d 2h', 's', 93_600],
  ['45 seconds', 's', 45],
  ['long', 's', null],
  ['2 h or so', 's', null],
] as const)('%s', (text, unit, seconds) => expect(readSpan(text, unit)).toBe(seconds));

test('words of lists', () => {
  expect(['ok', 'Held', 'SUCCESS', '1', 'failed', 'Cancelled', 'no', 'maybe', ''].map(readHeld)).toEqual([
    true,
    true,
    true,
    true,
    false,
    false,
    false,
    null,
    null,
  ]);
  expect(
    ['warping', 'came off mid-print', 'welded', 'Elephant foot', 'scratches', 'cat', 'none', ''].map(readFailure),
  ).toEqual(['lifted-corner', 'let-go', 'welded', 'foot', 'marks', 'other', null, null]);
  expect(['popped off', 'flexed', 'pried', 'tapped', 'x'].map(readRelease)).toEqual([
    'by-itself',
    'flexed',
    'forced',
    'nudged',
    null,
  ]);
});

test('columns are guessed by their heads, dates by what they can only mean', () => {
  const guess = guessColumns(
    [
      'Printer',
      'File',
      'Finished at',
      'Print time (min)',
      'Filament',
      'Used (g)',
      'Status',
      'Fail reason',
      'How removed',
    ],
    [['', '', '11/25/2026 10:00']],
  );
  expect(guess).toEqual({
    columns: { machine: 0, note: 1, ended: 2, duration: 3, material: 4, grams: 5, held: 6, failure: 7, release: 8 },
    dayFirst: false,
    durationUnit: 'min',
    weightUnit: 'g',
  });
  expect(guessColumns(['a', 'b'], []).columns).toEqual({});
  // A head that is the column's own name goes before one that only holds a like word.
  expect(guessColumns(['Old machine name', 'Machine'], []).columns.machine).toBe(1);
});

const match: ColumnMatch = {
  columns: { machine: 0, ended: 1, held: 2, material: 3, grams: 4, duration: 5, failure: 6 },
  dayFirst: true,
  durationUnit: 's',
};
const read = (cells: string[]) => readPrintLine(cells, { match, zone: 'UTC', now: AT });

test('a good line, with a decimal comma', () =>
  expect(read([' Dunlin ', '25.11.2026 14:20', 'ok', 'PETG', '12,5 g', '1:30', ''])).toEqual({
    ok: true,
    print: {
      machine: 'Dunlin',
      endedAt: AT,
      held: true,
      material: 'PETG',
      grams: 12.5,
      duration: 5400,
      failure: null,
      release: null,
      note: '',
    },
  }));

test.each([
  ['12', 12],
  ['12.345', 12.345],
  ['7 grams', 7],
  ['', null],
])('“%s” is a weight', (text, grams) =>
  expect(read(['Dunlin', '25.11.2026 14:20', 'ok', '', text, '', ''])).toMatchObject({ ok: true, print: { grams } }),
);

test('kilograms are grams where cell or head says so; a unit in the cell counts first', () => {
  const cells = (weight: string) => ['Dunlin', '25.11.2026 14:20', 'ok', '', weight, '', ''];
  const asked = (weight: string, weightUnit?: 'g' | 'kg') =>
    readPrintLine(cells(weight), { match: { ...match, weightUnit }, zone: 'UTC', now: AT });
  expect(asked('0,25 kg')).toMatchObject({ print: { grams: 250 } });
  expect(asked('0.25', 'kg')).toMatchObject({ print: { grams: 250 } });
  expect(asked('12 g', 'kg')).toMatchObject({ print: { grams: 12 } });
  expect(guessColumns(['Weight (kg)'], []).weightUnit).toBe('kg');
});

test.each([
  [['03/04/2026', '25/11/2026'], true],
  [['03/04/2026', '11/25/2026'], false],
  [['03/04/2026', '04/04/2026'], null],
  [['04/04/2026'], true],
  [['2026-04-03', '3.4.2026'], true],
])('dates %j: the day leads, %s', (dates, dayFirst) =>
  expect(
    guessColumns(
      ['ended'],
      dates.map((one) => [one]),
    ).dayFirst,
  ).toBe(dayFirst),
);

test.each(['about 12', '12 or 13', '1.2.3', '-4', '12.', '1e3', '1000001'])('“%s” is no weight', (text) =>
  expect(read(['Dunlin', '25.11.2026 14:20', 'ok', '', text, '', '']).ok).toBe(false),
);

test('a line that only says how it failed is a failure', () =>
  expect(read(['Dunlin', '25.11.2026', '', '', '', '', 'warped'])).toMatchObject({
    ok: true,
    print: { held: false, failure: 'lifted-corner' },
  }));

test.each([
  [['', '25.11.2026', 'ok'], ['machine']],
  [['Dunlin', '', 'ok'], ['ended']],
  [['Dunlin', '27.11.2026', 'ok'], ['ended']],
  [
    ['Dunlin', 'soon', 'perhaps', '', '-3', 'ages'],
    ['ended', 'held', 'grams', 'duration'],
  ],
  [['Dunlin', '25.11.2026', 'ok', '', '', '', 'warped'], ['failure']],
  [[], ['machine', 'ended', 'held']],
])('%j has faults at %j', (cells, columns) => {
  const line = read(cells);
  expect(line.ok ? [] : Object.keys(line.faults)).toEqual(columns);
});

test('a time is read in the zone and the order that the list is said to have, and a day ahead at most', () => {
  const at = (text: string, now: number, more: Partial<ColumnMatch> = {}) =>
    readPrintLine(['Dunlin', text, 'ok', '', '', '', ''], {
      match: { ...match, ...more },
      zone: 'America/New_York',
      now,
    });
  const noon = Date.UTC(2026, 3, 3, 16);
  expect(at('  3/4/2026 12:00 ', noon)).toMatchObject({ ok: true, print: { endedAt: noon } });
  expect(at('4/3/2026 12:00', noon, { dayFirst: false })).toMatchObject({ ok: true, print: { endedAt: noon } });
  // A clock that runs ahead by a day is let pass, no more than that.
  expect(at('3/4/2026 12:00', noon - 86_400_000).ok).toBe(true);
  expect(at('3/4/2026 12:00', noon - 86_400_001).ok).toBe(false);
});

// Facts of the IANA time zone database: on 29 March 2026 Lisbon goes from UTC to UTC+1 at 1:00.
test.each([
  ['2026-03-29 00:30', Date.UTC(2026, 2, 29, 0, 30)],
  ['2026-03-29 02:30', Date.UTC(2026, 2, 29, 1, 30)],
  ['  2026-03-29 03:30', Date.UTC(2026, 2, 29, 2, 30)],
])('the day the clocks change: “%s”', (text, at) =>
  expect(readTime(text, { dayFirst: true, zone: 'Europe/Lisbon' })).toBe(at),
);
