import { fleetColumns, readFleetLine } from './fleetList';

const heads = [
  'Name',
  'Area',
  'Model',
  'Family',
  'Plate width (mm)',
  'Plate depth',
  'Print width',
  'Print depth',
  'Screws',
];
const columns = fleetColumns(heads);
const read = (...cells: string[]) => readFleetLine(cells, columns, 2);

test('columns are found by their heads', () =>
  expect(columns).toEqual({
    name: 0,
    area: 1,
    model: 2,
    family: 3,
    plateWidth: 4,
    plateDepth: 5,
    printWidth: 6,
    printDepth: 7,
    adjusters: 8,
  }));

test('a line becomes a machine with its margins centred and its adjusters placed', () => {
  const { facts, area } = read('Dunlin', 'Loft', '225 slinger', '', '235', '235', '225', '8 1/2 in', '3');
  expect(area).toBe('Loft');
  expect(facts).toMatchObject({ name: 'Dunlin', printDepth: 215.9, originX: 5, originY: 9.55, family: 'filament' });
  expect(facts!.adjusters.map(({ id }) => id)).toEqual(['front-left', 'front-right', 'rear']);
});

test('what is not said gets the usual values; resin has no adjusters', () => {
  expect(read('Knot', '', '', 'Resin', '', '', '192', '120').facts).toMatchObject({
    plateWidth: 192,
    firstLayer: 0.05,
    adjusters: [],
    finding: 'endstop',
  });
});

test.each([
  [['', '', '', '', '', '', '200', '200'], 'name'],
  [['Ruff', '', '', '', 'wide', '', '200', '200'], 'Plate, width'],
  [['Ruff', '', '', '', '', '', '', ''], 'Print area, width'],
  [['Ruff', '', '', '', '', '', '200', '200', 'many'], 'Adjusters'],
])('%j is refused', (cells, word) => {
  const line = read(...cells);
  expect(line.facts).toBeNull();
  expect(line.faults.join()).toContain(word);
});
