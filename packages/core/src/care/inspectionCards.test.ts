import { checkInspection, INSPECTION_CARDS } from './inspectionCards';

test('every card has codes of each kind it can end in, once each, and ranges that hold something', () => {
  for (const { codes, numbers } of INSPECTION_CARDS) {
    expect(new Set(codes.map(({ code }) => code)).size).toBe(codes.length);
    expect(codes.some(({ weight }) => weight === 'ready')).toBe(true);
    expect(numbers.every(({ min, max }) => min < max)).toBe(true);
  }
  expect(new Set(INSPECTION_CARDS.map(({ id }) => id)).size).toBe(INSPECTION_CARDS.length);
});

test('a reading is checked against its card', () => {
  expect(checkInspection('light-line', 'faint', { feeler: 0.1 })).toEqual({});
  expect(checkInspection('light-line', 'faint', {})).toEqual({});
  expect(checkInspection('aura', 'faint', {})).toHaveProperty('card');
  expect(checkInspection('light-line', 'bright', {})).toHaveProperty('code');
  expect(checkInspection('light-line', 'none', { feeler: 9 })).toEqual({
    'numbers.feeler': 'Thickest feeler that passes must lie between 0 and 5 mm.',
  });
  expect(checkInspection('light-line', 'none', { feeler: NaN })).toHaveProperty(['numbers.feeler']);
  expect(checkInspection('towel', 'grey', { feeler: 1 })).toHaveProperty(['numbers.feeler']);
});
