import { DegenerateAdjusters } from './errors';

/** Where an adjuster stands under the plate, mm. */
export interface Position {
  x: number;
  y: number;
}

/** The move of a stiff plate: dz(x, y) = a·x + b·y + c, mm, and how far the adjusters' moves are from one plane. */
export interface BedMove {
  a: number;
  b: number;
  c: number;
  /** Largest distance of a move from that plane, mm: taken up by springs, or by bending the plate. */
  bind: number;
}

const LINE_TOLERANCE = 1e-6;

/** No adjuster stands farther from the origin, or moves farther, mm. */
const LARGEST = 1e9;

/**
 * Returns the function that turns moves of the adjusters (mm, + up) into the move of a stiff plate.
 *
 * Three adjusters define the plane exactly. With more, the plate rests on equal springs, and the balance of
 * their forces puts it on the least-squares plane through the moves.
 *
 * @param adjusters n ≥ 3 positions, mm
 * @throws DegenerateAdjusters fewer than three, in one line, or two on one spot
 */
export function stiffBed(adjusters: readonly Position[]): (rises: ArrayLike<number>) => BedMove {
  const n = adjusters.length;
  if (n < 3) throw new DegenerateAdjusters(`A bed needs at least 3 adjusters to be levelled, got ${n}`);
  const bad = adjusters.find(({ x, y }) => !(Math.abs(x) <= LARGEST && Math.abs(y) <= LARGEST));
  if (bad) throw new DegenerateAdjusters(`Adjusters need finite positions, got (${bad.x}, ${bad.y})`);
  const mx = adjusters.reduce((sum, { x }) => sum + x, 0) / n;
  const my = adjusters.reduce((sum, { y }) => sum + y, 0) / n;
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  for (const { x, y } of adjusters) {
    sxx += (x - mx) ** 2;
    sxy += (x - mx) * (y - my);
    syy += (y - my) ** 2;
  }
  const size = sxx + syy;
  for (let i = 0; i < n; i++) {
    for (let j = i + 1; j < n; j++) {
      const p = adjusters[i]!;
      const q = adjusters[j]!;
      if (!(Math.hypot(p.x - q.x, p.y - q.y) > LINE_TOLERANCE * Math.sqrt(size))) {
        throw new DegenerateAdjusters(`Adjusters ${i + 1} and ${j + 1} stand on one spot (${p.x}, ${p.y})`);
      }
    }
  }
  const det = sxx * syy - sxy * sxy;
  if (!(det > LINE_TOLERANCE * size * size)) {
    throw new DegenerateAdjusters('The adjusters stand in one line: no turn can tilt the bed across it');
  }
  // Rows of the pseudo-inverse: with the centre taken out the 2×2 system is small and well scaled.
  const ka = adjusters.map(({ x, y }) => (syy * (x - mx) - sxy * (y - my)) / det);
  const kb = adjusters.map(({ x, y }) => (sxx * (y - my) - sxy * (x - mx)) / det);

  return (rises) => {
    for (let i = 0; i < n; i++)
      if (!(Math.abs(rises[i]!) <= LARGEST))
        throw new DegenerateAdjusters(`stiffBed needs rises that are numbers, adjuster ${i + 1} has ${rises[i]}`);
    let a = 0;
    let b = 0;
    let mean = 0;
    for (let i = 0; i < n; i++) {
      const rise = rises[i]!;
      a += ka[i]! * rise;
      b += kb[i]! * rise;
      mean += rise / n;
    }
    const c = mean - a * mx - b * my;
    let bind = 0;
    for (let i = 0; i < n; i++) {
      const { x, y } = adjusters[i]!;
      bind = Math.max(bind, Math.abs(rises[i]! - (mean + a * (x - mx) + b * (y - my))));
    }
    return { a, b, c, bind };
  };
}
