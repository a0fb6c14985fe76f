import { plateSizes } from './plateSizes';

const machine = (name: string, family: 'filament' | 'resin', plateWidth: number, plateDepth = plateWidth) => ({
  name,
  family,
  plateWidth,
  plateDepth,
});
const hall = [
  machine('Knot', 'filament', 310),
  machine('Dunlin', 'filament', 235),
  machine('Avocet', 'filament', 235),
  machine('Stilt', 'resin', 202, 130),
];

test('a sheet is as large as one of the plates, those of most machines first', () =>
  expect(plateSizes(hall, 'sheet')).toEqual([
    { width: 235, depth: 235, names: ['Dunlin', 'Avocet'] },
    { width: 310, depth: 310, names: ['Knot'] },
  ]));

test('a film goes on resin machines alone, a base on either', () => {
  expect(plateSizes(hall, 'film').map(({ names }) => names)).toEqual([['Stilt']]);
  expect(plateSizes(hall, 'base')).toHaveLength(3);
  expect(plateSizes([], 'sheet')).toEqual([]);
});
