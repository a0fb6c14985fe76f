import { parseHeights, planTurns, type Adjuster, type HeightPoint } from '@even-bed/core';
import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { seededMap } from '../packages/core/src/level/seededMap.fixture';
import { medianMs, report } from './measure';

const adjusters: Adjuster[] = [
  { id: 'fl', x: 20, y: 20, pitch: 0.7, clockwise: 'lowers' },
  { id: 'fr', x: 200, y: 20, pitch: 0.7, clockwise: 'lowers' },
  { id: 'rl', x: 20, y: 200, pitch: 0.7, clockwise: 'lowers' },
  { id: 'rr', x: 200, y: 200, pitch: 0.7, clockwise: 'lowers' },
];
const points: HeightPoint[] = seededMap(42, { columns: 100, rows: 100 });

/** What the plan rests on, by the matrix library: slopes by SVD of the centred map, ranges and RMS before and after. */
function planBySvd() {
  const n = points.length;
  let [mx, my, mz] = [0, 0, 0];
  for (const { x, y, z } of points) {
    mx += x / n;
    my += y / n;
    mz += z / n;
  }
  const places = new Matrix(points.map(({ x, y }) => [x - mx, y - my]));
  const heights = Matrix.columnVector(points.map(({ z }) => z - mz));
  const slopes = new SingularValueDecomposition(places).solve(heights);
  const residuals = Matrix.sub(heights, places.mmul(slopes));
  const spread = (column: Matrix) => ({ range: column.max() - column.min(), rms: column.norm() / Math.sqrt(n) });
  return { a: slopes.get(0, 0), b: slopes.get(1, 0), before: spread(heights), ideal: spread(residuals) };
}

const plan = planTurns({ points, adjusters, aim: 0.1 });
const reference = planBySvd();
const apart = Math.max(
  Math.hypot(plan.plane.a - reference.a, plan.plane.b - reference.b) / Math.hypot(reference.a, reference.b),
  Math.abs(plan.before.rms / reference.before.rms - 1),
  Math.abs(plan.ideal.range / reference.ideal.range - 1),
);
if (!(apart < 1e-9)) throw new Error(`the two plans differ by ${apart}`);
const ours = medianMs(() => planTurns({ points, adjusters, aim: 0.1 }));
const svd = medianMs(planBySvd);
report('plan for a 100 × 100 map', {
  ours,
  other: svd,
  otherName: 'plane and ranges by ml-matrix (SVD)',
  unit: 'ms',
  ratio: `${(svd / ours).toFixed(1)} times faster, answers within ${apart.toExponential(0)}`,
  aim: 'at least 5 times faster, same answer',
  met: svd / ours >= 5,
});

const rows = Array.from({ length: 100 }, (_, r) => points.slice(100 * r, 100 * r + 100).map(({ z }) => z.toFixed(4)));
const text = rows.map((row) => row.join(' ')).join('\n');
const options = { extent: { x0: 0, y0: 0, x1: 300, y1: 300 }, firstRow: 'front' as const };
const splitOnly = () => text.split('\n').map((line) => line.split(' ').map(Number));
if (parseHeights(text, options).grid!.heights[99]![99] !== splitOnly()[99]![99])
  throw new Error('the two readings differ');
const parse = medianMs(() => parseHeights(text, options));
const split = medianMs(splitOnly);
report('parse a 100 × 100 matrix', {
  ours: parse,
  other: split,
  otherName: 'split and Number',
  unit: 'ms',
  ratio: `${(parse / split).toFixed(1)} times as long`,
  aim: 'within 3 times',
  met: parse / split <= 3,
});
