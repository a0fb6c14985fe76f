import { stackAfter } from './stackAfter';

const layer = (name: string, thickness: number, slot: 'base' | 'top' | null) => ({
  name,
  thickness,
  slot,
  measured: true,
  limit: null,
  material: null,
});
const withGlass = [layer('plate', 3, null), layer('glass', 4, 'top')];
const NEW = [
  { slot: 'base', reading: 'measure.base' },
  { slot: 'top', reading: 'measure.sheet' },
] as const;

test('a base and a sheet take the place of glass: 3 + 1.2 + 0.5', () => {
  const after = stackAfter(withGlass, [...NEW], { readings: { 'measure.base': 1.2, 'measure.sheet': 0.5 } })!;
  expect(after.map(({ thickness }) => thickness)).toEqual([3, 1.2, 0.5]);
});

test('glass on a plate whose mat comes off: only plate and glass', () => {
  const before = [layer('plate', 3, null), layer('mat', 1.2, 'base'), layer('sheet', 0.5, 'top')];
  const after = stackAfter(before, [{ slot: 'base' }, { slot: 'top', reading: 'm.t' }], {
    readings: { 'm.t': 3.175 },
  })!;
  expect(after.map(({ thickness }) => thickness)).toEqual([3, 3.175]);
});

test('a top alone leaves the base where it is; nothing is said before it was measured', () => {
  const before = [layer('plate', 3, null), layer('mat', 1.2, 'base'), layer('sheet', 0.5, 'top')];
  expect(
    stackAfter(before, [{ slot: 'top', reading: 'm.t' }], { readings: { 'm.t': 0.7 } })!.map(
      ({ thickness }) => thickness,
    ),
  ).toEqual([3, 1.2, 0.7]);
  expect(stackAfter(before, [{ slot: 'top', reading: 'm.t' }], { readings: {} })).toBeNull();
});

test('a pane on a conductive pad brings both: 4 on 1 is 5 more, and clipped 4', () => {
  const layers = [
    { slot: 'base' },
    { slot: 'top', reading: 'p.t', name: 'conductive pad', only: { choice: 'way', is: ['pad'] } },
    { slot: 'top', reading: 'm.t' },
  ] as const satisfies Parameters<typeof stackAfter>[1];
  const sum = (way: string, readings: Record<string, number>) =>
    stackAfter([layer('plate', 3, null)], [...layers] as never, { readings, choices: { way } })
      ?.map(({ thickness }) => thickness)
      .reduce((total, thickness) => total + thickness, 0);
  expect(sum('pad', { 'p.t': 1, 'm.t': 4 })).toBe(8);
  expect(sum('pad', { 'm.t': 4 })).toBeUndefined();
  expect(sum('clips', { 'm.t': 4 })).toBe(7);
});

test('an adhesive goes with what it held, since a new base is measured with its own; a pad stays counted', () => {
  const before = [
    layer('plate', 3, null),
    { ...layer('adhesive', 0.2, null), material: 'adhesive' },
    layer('mat', 1.2, 'base'),
    { ...layer('pad', 1, null), material: 'pad' },
    layer('glass', 4, 'top'),
  ];
  const after = stackAfter(before, [{ slot: 'base', reading: 'm.b' }], { readings: { 'm.b': 1.5 } })!;
  expect(after.map(({ name, thickness }) => [name, thickness])).toEqual([
    ['plate', 3],
    ['pad', 1],
    ['base', 1.5],
  ]);
});

test('a base on glass: pad, pane and base lie in their order under the sheet; washers raise what is there', () => {
  const layers = [
    { slot: 'base', reading: 'm.pad', name: 'conductive pad' },
    { slot: 'base', reading: 'm.pane', name: 'glass pane' },
    { slot: 'base', reading: 'm.base' },
    { slot: 'top', reading: 'm.sheet' },
  ] as const;
  const readings = { 'm.pad': 0.8, 'm.pane': 3.9, 'm.base': 1.4, 'm.sheet': 0.5, 'w.pile': 1.5 };
  expect(stackAfter(withGlass, [...layers], { readings })!.map(({ name }) => name)).toEqual([
    'plate',
    'conductive pad',
    'glass pane',
    'base',
    'top',
  ]);
  const raised = stackAfter(withGlass, [{ slot: 'platform', reading: 'w.pile', name: 'washers', beside: true }], {
    readings,
  })!;
  expect(raised.map(({ thickness }) => thickness)).toEqual([3, 1.5, 4]);
});
