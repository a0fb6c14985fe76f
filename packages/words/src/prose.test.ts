import { PROCEDURES } from '@even-bed/core/care/procedures';
import { CAUTIONS } from '@even-bed/core/care/cautions';
import { documentIn, quantitiesIn } from './prose';

const inches = { units: 'in', numbers: 'point', zone: 'UTC' } as const;
const comma = { units: 'mm', numbers: 'comma', zone: 'UTC' } as const;

test('in inches and °F, ranges and speeds too; metric word for word', () => {
  expect(quantitiesIn('Fold 40 mm of liner back.', inches)).toBe('Fold 1.57 in of liner back.');
  expect(quantitiesIn('They differ by 5 to 30 mm.', inches)).toBe('They differ by 0.197 to 1.18 in.');
  expect(quantitiesIn('slower (about 30 mm/s), 5 to 10 minutes at 100 °C', inches)).toBe(
    'slower (about 1.18 in/s), 5 to 10 minutes at 212 °F',
  );
  expect(quantitiesIn('Let them cool below 43 °C.', inches)).toBe('Let them cool below 109 °F.');
  expect(quantitiesIn('A skew of 0.25° over 235 mm is 1 mm.', { ...inches, numbers: 'comma' })).toBe(
    'A skew of 0,25° over 9,25 in is 0,0394 in.',
  );
  expect(quantitiesIn('nearer by 0.02 mm, with 90 % or more', comma)).toBe('nearer by 0,02 mm, with 90 % or more');
});

test('what is no quantity stays word for word, however it reads', () => {
  for (const text of [
    '',
    'M3 screws, 4 to 6 of them',
    'S-014 at 12:30, v1.2.3',
    'W/m²K 12',
    '10 mmol',
    '١٢ mm',
    '5 mm² of it',
  ])
    expect(quantitiesIn(text, inches)).toBe(text);
  expect(quantitiesIn('9 mm '.repeat(20_000), inches)).toHaveLength('0.354 in '.length * 20_000);
});

test('no document that ships keeps a metric quantity for a reader of inches; its ids stay', () => {
  const texts = (value: unknown): string[] =>
    typeof value === 'string' ? [value] : typeof value === 'object' && value ? Object.values(value).flatMap(texts) : [];
  for (const doc of [...PROCEDURES, CAUTIONS]) {
    expect(texts(documentIn(doc, inches)).filter((text) => /\d ?(mm|cm|°C|µm)\b/.test(text))).toEqual([]);
    expect(documentIn(doc, { units: 'mm', numbers: 'point', zone: 'UTC' })).toEqual(doc);
  }
  for (const doc of PROCEDURES) {
    const ids = ({ id, steps, choices }: typeof doc) => [
      id,
      ...steps.map((step) => step.id),
      ...choices.map((one) => one.id),
    ];
    expect(ids(documentIn(doc, inches))).toEqual(ids(doc));
  }
});
