import { shapeResult, type ShapeRaw } from './shapeRecord';

const map = [0, 1, 2].flatMap((row) =>
  [0, 1, 2].map((column) => ({ x: 100 * column, y: 100 * row, z: row === 1 ? -0.15 : 0 })),
);

test('what was laid is worked out anew from the heights it was planned by', () => {
  const strip = { along: 'x' as const, at: 100, from: 0, to: 200, layer: 1 };
  const raw: ShapeRaw = {
    kind: 'strips',
    map,
    tape: { thickness: 0.075, width: 50 },
    strips: [strip, { ...strip, layer: 2 }],
  };
  expect(shapeResult(raw)).toEqual({
    kind: 'strips',
    before: expect.closeTo(0.15, 9),
    // Nothing where it was read; beside the tape the dip is as it was, at its edge half of it is on two layers.
    after: expect.closeTo(0.15, 2),
    strips: 2,
    layers: 2,
  });
});

test('a survey that lacks a known line is refused', () => {
  const lines = ['along-left', 'along-right', 'across-front', 'nowhere'].map((id) => ({ id, stretches: [] }));
  const raw = { kind: 'light', plate: { width: 200, depth: 200 }, lines, aim: null } as unknown as ShapeRaw;
  expect(() => shapeResult(raw)).toThrow(/knows lines/);
});

test('a first layer is held against its map as it was kept', () => {
  const readings = map.map(({ x, y, z }) => ({ x, y, thickness: [0.3 - z, 0.3 - z, 0.31 - z, 0.29 - z], look: null }));
  const raw: ShapeRaw = { kind: 'layer', readings, map, nominal: 0.3, sign: 'higher', compensation: 'off' };
  expect(shapeResult(raw)).toMatchObject({ kind: 'layer', verdict: 'not-applied', compensation: 'off' });
});
