import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { DOMParser } from '@xmldom/xmldom';
import DxfReader from 'dxf-parser';
import { unzipSync } from 'fflate';
import { blankDxf, blankSvg, CHECK_LINE } from './blankFiles';
import { planBlanks } from './planBlanks';
import { meshOf, stlOf, threeMfOf, type Mesh } from './solidFile';
import { spacerSolid, type SpacerAsk } from './spacerSolid';

const SPACERS: SpacerAsk[] = [
  { shape: 'pad', thickness: 3.175, layer: 0.2, width: 12, depth: 20, hole: 3.4 },
  { shape: 'pad', thickness: 1.7, layer: null, width: 12, depth: 20, hole: 0 },
  { shape: 'slide-in', thickness: 3.175, layer: 0.2, width: 12, depth: 20, screw: 3, play: 0.4 },
  { shape: 'clip-over', thickness: 2.3, layer: 0.25, bodyWidth: 6.4, depth: 10, cheek: 5, wall: 1.6, play: 0.15 },
  { shape: 'gauge', thickness: 3.175, layer: 0.2, step: 10, depth: 15 },
  { shape: 'gauge', thickness: 0.1, layer: 0.2, step: 10, depth: 15 },
];

interface Solid {
  /** Nine numbers a triangle. */
  points: number[];
}

/** What the loader of three.js finds in a binary STL; a process of its own, since it is no CommonJS. */
function readStl(file: Uint8Array): Solid {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-stl-'));
  try {
    const name = path.join(folder, 'spacer.stl');
    fs.writeFileSync(name, file);
    const reader = path.join(__dirname, 'readStl.fixture.mjs');
    return {
      points: (JSON.parse(execFileSync(process.execPath, [reader, name], { encoding: 'utf8' })) as number[][])[0]!,
    };
  } finally {
    fs.rmSync(folder, { recursive: true });
  }
}

/** What a zip reader and an XML parser find in a 3MF package. */
function readThreeMf(file: Uint8Array): Solid {
  const parts = unzipSync(file);
  const xml = (name: string) => new DOMParser().parseFromString(new TextDecoder().decode(parts[name]), 'text/xml');
  const target = xml('_rels/.rels').getElementsByTagName('Relationship')[0]!.getAttribute('Target')!;
  const model = xml(target.slice(1));
  expect(model.documentElement!.getAttribute('unit')).toBe('millimeter');
  const vertices = [...model.getElementsByTagName('vertex')].map((vertex) =>
    ['x', 'y', 'z'].map((axis) => Number(vertex.getAttribute(axis))),
  );
  const points = [...model.getElementsByTagName('triangle')].flatMap((triangle) =>
    ['v1', 'v2', 'v3'].flatMap((v) => vertices[Number(triangle.getAttribute(v))]!),
  );
  return { points };
}

/** Volume by the divergence theorem, and whether every edge is met once each way. */
function examine({ points }: Solid) {
  const corner = (i: number) => points.slice(3 * i, 3 * i + 3).map((v) => Math.fround(v));
  const key = (i: number) => corner(i).join(' ');
  const edges = new Map<string, number>();
  let volume = 0;
  for (let t = 0; t < points.length / 9; t++) {
    const [a, b, c] = [0, 1, 2].map((i) => corner(3 * t + i)) as [number[], number[], number[]];
    volume +=
      (a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) -
        a[1]! * (b[0]! * c[2]! - b[2]! * c[0]!) +
        a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!)) /
      6;
    for (let i = 0; i < 3; i++) {
      const edge = `${key(3 * t + i)}>${key(3 * t + ((i + 1) % 3))}`;
      edges.set(edge, (edges.get(edge) ?? 0) + 1);
    }
  }
  const closed = [...edges].every(
    ([edge, count]) => count === 1 && edges.get(edge.split('>').reverse().join('>')) === 1,
  );
  const zs = [...new Set(points.filter((_, i) => i % 3 === 2))].sort((p, q) => p - q);
  return { volume, closed, zs };
}

describe.each(SPACERS)('spacer $shape of $thickness at $layer', (ask) => {
  const spacer = spacerSolid(ask);
  const mesh = meshOf(spacer.solid);

  test.each([
    ['STL', (m: Mesh) => readStl(stlOf(m))],
    ['3MF', (m: Mesh) => readThreeMf(threeMfOf(m))],
  ] as const)('%s is closed, has the volume of its formula to 0.1 %% and its exact thickness', (_, read) => {
    const { volume, closed, zs } = examine(read(mesh));
    expect(closed).toBe(true);
    expect(Math.abs(volume / spacer.volume - 1)).toBeLessThan(0.001);
    expect(zs.map(Math.fround)).toContain(Math.fround(spacer.printed));
    expect(zs[0]).toBe(0);
    expect(Math.fround(zs.at(-1)!)).toBe(Math.fround(spacer.size.height));
  });

  test('a drawing of it has edges, and each belongs to two corners that are there', () => {
    expect(mesh.edges.length).toBeGreaterThan(11);
    for (const edge of mesh.edges) for (const i of edge) expect(mesh.corners[i]).toBeDefined();
  });
});

test('3.175 at 0.2 is 16 layers, 3.2, 0.025 over; a gauge steps by a layer', () => {
  expect(spacerSolid(SPACERS[0]!)).toMatchObject({ printed: 3.2, layers: 16, leftover: 0.025 });
  expect(spacerSolid(SPACERS[4]!).size).toEqual({ width: 30, depth: 15, height: 3.4 });
});

test('the same spacer gives the same bytes', () => {
  const again = () => threeMfOf(meshOf(spacerSolid(SPACERS[0]!).solid));
  expect(again()).toEqual(again());
});

test.each([
  [{ ...SPACERS[0]!, thickness: 0 }, 'thickness above 0'],
  [{ ...SPACERS[0]!, layer: -1 }, 'layer above 0'],
  [{ ...SPACERS[0]!, hole: 12 }, 'hole must be narrower'],
  [{ ...SPACERS[2]!, screw: 13 }, 'slot must be narrower'],
  [{ ...SPACERS[3]!, wall: 0 }, 'wall above 0'],
  [{ ...SPACERS[4]!, depth: NaN }, 'depth is NaN'],
])('%#: a spacer that can not be is refused', (ask, words) => {
  expect(() => spacerSolid(ask as SpacerAsk)).toThrow(words);
});

describe('blanks at true size', () => {
  const plan = planBlanks({
    sheet: { width: 305, depth: 300 },
    piece: { width: 133.35, depth: 158.75, corners: 9 },
    method: 'snap',
    mayRotate: true,
  });
  const layout = plan.layouts[0]!;
  const apart = (points: readonly { x: number; y: number }[]) =>
    points.map((p, i) => {
      const q = points[(i + 1) % points.length]!;
      return Math.hypot(q.x - p.x, q.y - p.y);
    });
  const wanted = layout.pieces.map(({ width, depth }) => {
    const cut = 9 * Math.SQRT2;
    return [width - 18, cut, depth - 18, cut, width - 18, cut, depth - 18, cut];
  });

  test('SVG: one unit is one millimetre, and every edge reads back to its length', () => {
    const svg = new DOMParser().parseFromString(blankSvg(plan, layout), 'text/xml').documentElement!;
    const [, , boxWidth, boxHeight] = svg.getAttribute('viewBox')!.split(' ').map(Number);
    expect(svg.getAttribute('width')).toBe(`${boxWidth}mm`);
    expect(svg.getAttribute('height')).toBe(`${boxHeight}mm`);
    const polygons = [...svg.getElementsByTagName('polygon')].map((polygon) =>
      polygon
        .getAttribute('points')!
        .split(' ')
        .map((pair) => pair.split(',').map(Number))
        .map(([x, y]) => ({ x: x!, y: y! })),
    );
    expect(polygons).toHaveLength(plan.perSheet!);
    polygons.forEach((points, i) =>
      apart(points).forEach((length, e) => expect(length).toBeCloseTo(wanted[i]![e]!, 3)),
    );
    // The sheet's front edge is at the bottom, as on a bench.
    layout.pieces.forEach(({ y, depth: deep }, i) => {
      const down = polygons[i]!.map((point) => point.y);
      expect(Math.max(...down)).toBeCloseTo(plan.sheet.depth - y, 3);
      expect(Math.min(...down)).toBeCloseTo(plan.sheet.depth - y - deep, 3);
    });
    const check = svg.getElementsByTagName('line')[0]!;
    expect(Number(check.getAttribute('x2')) - Number(check.getAttribute('x1'))).toBe(CHECK_LINE);
  });

  test('DXF: another reader finds millimetres, the sheet, the pieces and the check line', () => {
    const dxf = new DxfReader().parseSync(blankDxf(plan, layout))!;
    // $INSUNITS 4 is millimetres.
    expect(dxf.header['$INSUNITS']).toBe(4);
    const on = (layer: string) =>
      dxf.entities.filter((entity) => entity.layer === layer) as unknown as {
        type: string;
        vertices: { x: number; y: number }[];
        shape?: boolean;
      }[];
    expect(apart(on('SHEET')[0]!.vertices)).toEqual([305, 300, 305, 300]);
    expect(on('PIECES').map(({ vertices }) => apart(vertices).map((length) => Number(length.toFixed(6))))).toEqual(
      wanted.map((lengths) => lengths.map((length) => Number(length.toFixed(6)))),
    );
    expect(on('PIECES').every(({ shape }) => shape === true)).toBe(true);
    const line = on('CHECK').find(({ type }) => type === 'LINE')!;
    expect(Math.abs(line.vertices[1]!.x - line.vertices[0]!.x)).toBe(CHECK_LINE);
  });
});
