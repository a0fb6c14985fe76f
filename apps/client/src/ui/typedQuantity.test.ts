import { readAs } from './manner';
import { quantityKept, quantityShown, unitShown } from './typedQuantity';

const inShop = (units: 'mm' | 'in', numbers: 'point' | 'comma') => readAs({ units, numbers, zone: 'UTC' });
afterAll(() => readAs(null));

test('in a metric shop what is typed is kept as it is, and shown with the shop’s mark', () => {
  inShop('mm', 'comma');
  expect(quantityKept('0,25', 'mm')).toBe('0,25');
  expect(quantityShown('0.25', 'mm')).toBe('0,25');
  expect(quantityShown('60', '°C')).toBe('60');
  expect([unitShown('mm'), unitShown('°C'), unitShown('K'), unitShown('days')]).toEqual(['mm', '°C', '°C', 'days']);
});

test('in a shop of inches a bare number is inches, as the field says; its own unit counts before that', () => {
  inShop('in', 'comma');
  expect([unitShown('mm'), unitShown('°C'), unitShown('K'), unitShown('min')]).toEqual(['in', '°F', '°F', 'min']);
  expect(quantityKept('2', 'mm')).toBe('50.8');
  expect(quantityKept('9 1/4', 'mm')).toBe('234.95');
  expect(quantityKept('235 mm', 'mm')).toBe('235');
  expect(quantityKept('-0,05', 'mm')).toBe('-1.27');
  expect(quantityShown('234.95', 'mm')).toBe('9,25');
  expect(quantityShown('0.2', 'mm')).toBe('0,007874');
});

test('temperatures by their scale, differences without its zero', () => {
  inShop('in', 'point');
  expect(quantityKept('140', '°C')).toBe('60');
  expect(quantityShown('60', '°C')).toBe('140');
  expect(quantityKept('-40', '°C')).toBe('-40');
  expect(quantityKept('3.6', 'K')).toBe('2');
  expect(quantityShown('2', 'K')).toBe('3.6');
  expect(quantityKept('70', 'min')).toBe('70');
});

test('what was typed comes back as it was typed: every 64th and every thousandth of an inch, every degree', () => {
  inShop('in', 'point');
  const back = (typed: string, unit: string) =>
    Number(quantityShown(quantityKept(typed, unit), unit).replace('\u2212', '-'));
  for (let part = 1; part < 64; part++) expect(back(`${part}/64`, 'mm')).toBe(part / 64);
  for (let part = 1; part < 1000; part++) expect(back(String(part / 1000), 'mm')).toBe(part / 1000);
  for (let degree = -60; degree < 600; degree++) expect(back(String(degree), '°C')).toBe(degree);
});

test('what is no quantity stays as it is, however it is typed', () => {
  inShop('in', 'comma');
  for (const text of ['', ' ', '-', '9 1/', '1e9', 'NaN', 'two', '5 12', '١٢', '"'])
    for (const unit of ['mm', '°C', 'K'])
      expect([quantityKept(text, unit), quantityShown(text, unit)]).toEqual([text, text]);
});
