import type { HeightPoint } from './HeightPoint';

export const PLANTED = ['dome', 'dish', 'saddle', 'bow', 'twist', 'ridge', 'valley', 'region', 'bump'] as const;
export type Planted = (typeof PLANTED)[number];

/** Two independent normal deviates a call would waste one: this wastes it. Box and Muller 1958. */
export const normalFrom = (random: () => number) =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** A bed of 220 × 220 mm with one shape of a size, a tilt, and noise. */
export function plantedBed({
  shape,
  size,
  noise,
  side,
  random,
}: {
  shape: Planted | 'flat';
  size: number;
  noise: number;
  side: number;
  random: () => number;
}): HeightPoint[] {
  const [a, b] = [random() - 0.5, random() - 0.5];
  const alongX = random() < 0.5;
  const place = () => -0.6 + 1.2 * random();
  const [pu, pv] = [place(), place()];
  const single = Math.floor(random() * side * side);
  const of: Record<Planted | 'flat', (u: number, v: number, i: number) => number> = {
    flat: () => 0,
    dome: (u, v) => size * (1 - u * u) + size * (1 - v * v),
    dish: (u, v) => -size * (1 - u * u) - size * (1 - v * v),
    saddle: (u, v) => size * (v * v - u * u),
    bow: (u, v) => size * (1 - (alongX ? u * u : v * v)),
    twist: (u, v) => size * u * v,
    ridge: (u, v) => size * Math.exp(-(((alongX ? v - pv : u - pu) / 0.25) ** 2) / 2),
    valley: (u, v) => -size * Math.exp(-(((alongX ? v - pv : u - pu) / 0.25) ** 2) / 2),
    region: (u, v) => size * Math.exp(-(((u - pu) / 0.4) ** 2 + ((v - pv) / 0.4) ** 2) / 2),
    bump: (_u, _v, i) => (i === single ? size : 0),
  };
  return Array.from({ length: side * side }, (_, i) => {
    const [u, v] = [(2 * (i % side)) / (side - 1) - 1, (2 * Math.floor(i / side)) / (side - 1) - 1];
    return {
      x: 115 + 110 * u,
      y: 115 + 110 * v,
      z: 0.3 * a * u + 0.3 * b * v + of[shape](u, v, i) + noise * normalFrom(random),
    };
  });
}
