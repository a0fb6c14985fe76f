import { LIGHT, lightVerdict } from './lightVerdict';

const { none, middle, ends, first } = LIGHT;

// Common practice: a straightedge on its ends over a dip, rocking over a rise, diagonals that disagree over a twist.
test.each([
  ['flat', [none, none, none, none, none, none]],
  ['dish', [middle, middle, middle, middle, middle, middle]],
  ['dish', [none, none, middle, middle, middle, middle]],
  ['dome', [ends, ends, ends, ends, ends, ends]],
  ['twist', [none, none, none, none, middle, ends]],
  ['twist', [none, none, none, none, ends, middle]],
  ['region', [none, first, none, none, first, none]],
  ['mixed', [middle, ends, none, none, none, none]],
] as const)('%s: %j', (shape, lines) => expect(lightVerdict(lines)).toBe(shape));

test('nothing is said while a line is missing', () => {
  expect(lightVerdict([0, 0, 0, 0, 0, undefined])).toBeNull();
  expect(lightVerdict([])).toBeNull();
});

/** A plate as heights over its middle, and what a straightedge along a line shows: its two contacts, light elsewhere. */
function shown(height: (x: number, y: number) => number, [x1, y1, x2, y2]: readonly number[]): number {
  const along = Array.from({ length: 41 }, (_, i) => i / 40);
  const z = along.map((t) => height(x1! + (x2! - x1!) * t, y1! + (y2! - y1!) * t));
  // It rests on the two points whose chord no other point rises above.
  let best = { gap: [] as number[], worst: Infinity };
  for (let i = 0; i < z.length; i++)
    for (let j = i + 1; j < z.length; j++) {
      const line = along.map((_, k) => z[i]! + ((z[j]! - z[i]!) * (k - i)) / (j - i));
      const gap = line.map((value, k) => value - z[k]!);
      if (Math.min(...gap) < -1e-9) continue;
      const worst = Math.max(...gap);
      if (worst < best.worst) best = { gap, worst };
    }
  if (best.worst < 0.01) return none;
  const [a, m, b] = [best.gap[0]!, best.gap[20]!, best.gap[40]!];
  if (m > a && m > b) return middle;
  return ends;
}
const LINES = [
  [-0.66, -1, -0.66, 1],
  [0.66, -1, 0.66, 1],
  [-1, -0.66, 1, -0.66],
  [-1, 0.66, 1, 0.66],
  [-1, -1, 1, 1],
  [1, -1, -1, 1],
];

test.each([
  ['flat', () => 0],
  ['flat', (x: number, y: number) => 0.3 * x - 0.2 * y],
  ['dish', (x: number, y: number) => 0.1 * (x * x + y * y)],
  ['dome', (x: number, y: number) => -0.1 * (x * x + y * y) + 0.2 * x],
  ['twist', (x: number, y: number) => 0.1 * x * y],
] as const)('a straightedge laid on a made-up plate, %s', (shape, height) => {
  expect(lightVerdict(LINES.map((line) => shown(height, line)))).toBe(shape);
});
