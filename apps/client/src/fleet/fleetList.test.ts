import { fleetColumns, fleetUnits, readFleetLine } from './fleetList';

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

test('a list that was taken along from here is read back with all its facts', () => {
  const own = fleetColumns([
    'tag',
    'name',
    'area',
    'family',
    'plate width mm',
    'print width mm',
    'left margin mm',
    'adjusters',
    'seen from',
    'compensation',
    'aim mm',
    'finds z',
    'plus means',
    'map first x mm',
    'map last x mm',
    'map first y mm',
    'map last y mm',
    'map first row',
    'hottest bed C',
    'key of the platform mm',
    'next due',
    'note',
  ]);
  const cells = [
    'M-007',
    "'=Dunlin",
    'Loft',
    'filament',
    '235',
    '220',
    '4.5',
    'rear: 110, 205, M5, 0.8 a turn, raises; left: 15, 15, M4, 0.7 a turn, lowers; right: 205, 15, M4, 0.7 a turn, lowers',
    'below',
    'no',
    '0.08',
    'inductive-probe',
    'lower',
    '10',
    '210',
    '12.5',
    '207.5',
    'rear',
    '110',
    '4',
    '2026-12-01T00:00:00.000Z',
    'a note',
  ];
  expect(readFleetLine(cells, own, 2)).toMatchObject({
    faults: [],
    area: 'Loft',
    facts: {
      tag: 'M-007',
      name: '=Dunlin',
      originX: 4.5,
      seenFrom: 'below',
      compensation: false,
      aim: 0.08,
      finding: 'inductive-probe',
      plus: 'lower',
      mapExtent: { x0: 10, y0: 12.5, x1: 210, y1: 207.5 },
      mapFirstRow: 'rear',
      hottest: 110,
      platformKey: 4,
      note: 'a note',
      adjusters: [{ id: 'rear', x: 110, y: 205, pitch: 0.8, clockwise: 'raises' }, { id: 'left' }, { id: 'right' }],
    },
  });
  const both = cells.with(7, cells[7]!.replace('M5, 0.8', 'M4, 0.8'));
  expect(readFleetLine(both, own, 4).faults.join()).toContain('M4 rises 0.7 mm a turn, and the list says 0.8');
  const wrong = cells.with(11, 'magic').with(20, '');
  expect(readFleetLine(wrong, own, 3).faults.join()).toContain('What finds Z');
});

test('units of the heads count; a plate as narrow as one in inches is asked about', () => {
  const named = ['Name', 'Plate width (in)', 'Plate depth [cm]', 'Print width', 'Print depth mm', 'Hottest bed F'];
  const at = fleetColumns(named);
  const units = fleetUnits(named, at);
  expect(units).toEqual({ plateWidth: 'in', plateDepth: 'cm', printDepth: 'mm', hottest: 'f' });
  const { facts } = readFleetLine(['Knot', '9 1/4', '24', '220', '8 1/2 in', '212'], at, 2, units);
  expect(facts).toMatchObject({
    plateWidth: 234.95,
    plateDepth: 240,
    printWidth: 220,
    printDepth: 215.9,
    hottest: 100,
  });
  expect(read('Knot', '', '', '', '9.25', '9.25', '200', '200').faults).toEqual([
    'Plate, width: 9.25 mm is no plate of a printer. In inches? Write it with its unit: 9 1/4 in.',
    'Plate, depth: 9.25 mm is no plate of a printer. In inches? Write it with its unit: 9 1/4 in.',
  ]);
});
