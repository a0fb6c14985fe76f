import type { HeightPoint } from './HeightPoint';

/** Repeatable numbers in [0, 1) for tests (mulberry32, public domain). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A made-up bed: tilt, dome, twist and noise on a grid of 3 to 11 readings a side, mm. */
export function seededMap(seed: number, side?: { columns: number; rows: number }): HeightPoint[] {
  const random = seededRandom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  const columns = side?.columns ?? 3 + Math.floor(random() * 9);
  const rows = side?.rows ?? 3 + Math.floor(random() * 9);
  const [width, depth] = [between(100, 400), between(100, 400)];
  const [a, b, dome, twist, noise] = [
    between(-4, 4),
    between(-4, 4),
    between(-0.3, 0.3),
    between(-0.2, 0.2),
    between(0, 0.02),
  ];
  const points: HeightPoint[] = [];
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < columns; i++) {
      const u = i / (columns - 1) - 0.5;
      const v = j / (rows - 1) - 0.5;
      const z =
        a * 0.2 * u + b * 0.2 * v + dome * (1 - 2 * u * u - 2 * v * v) + twist * 4 * u * v + noise * (random() - 0.5);
      points.push({ x: 5 + width * (u + 0.5), y: 5 + depth * (v + 0.5), z });
    }
  }
  return points;
}
