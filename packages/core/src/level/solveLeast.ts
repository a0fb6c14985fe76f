/** Singular values below this share of the largest count as nothing. */
const RANK_TOLERANCE = 1e-9;
/** Columns whose cosine is below this are at right angles. */
const RIGHT_ANGLE = 1e-15;
/** Sweeps over all pairs of columns; a handful is the rule. */
const MOST_SWEEPS = 60;

export interface Singular {
  /** Lengths of the turned columns: the singular values, in no order. */
  values: number[];
  /** Columns of the rows' matrix turned so that they stand at right angles: each is value · left vector. */
  turned: Float64Array[];
  /** Right singular vectors, by the same order. */
  right: Float64Array[];
}

/**
 * Singular values and vectors of a small matrix, by one-sided Jacobi: pairs of columns are turned until all stand at right
 * angles. Accurate for small singular values too.
 * @param rows one or more, all as long
 * Source: M. R. Hestenes, J. SIAM 6 (1958); G. H. Golub, C. F. Van Loan, Matrix Computations, 4th ed., §8.6.3.
 */
export function singularOf(rows: readonly (readonly number[])[]): Singular {
  const unknowns = rows[0]!.length;
  const turned = Array.from({ length: unknowns }, (_, j) => Float64Array.from(rows, (row) => row[j]!));
  const right = Array.from({ length: unknowns }, (_, j) => {
    const column = new Float64Array(unknowns);
    column[j] = 1;
    return column;
  });
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let rotated = false;
    for (let p = 0; p < unknowns - 1; p++)
      for (let q = p + 1; q < unknowns; q++) {
        const [a, b] = [turned[p]!, turned[q]!];
        let [aa, bb, ab] = [0, 0, 0];
        for (let i = 0; i < a.length; i++) {
          aa += a[i]! * a[i]!;
          bb += b[i]! * b[i]!;
          ab += a[i]! * b[i]!;
        }
        if (!(Math.abs(ab) > RIGHT_ANGLE * Math.sqrt(aa * bb)) || ab === 0) continue;
        rotated = true;
        const zeta = (bb - aa) / (2 * ab);
        const t = (zeta >= 0 ? 1 : -1) / (Math.abs(zeta) + Math.sqrt(1 + zeta * zeta));
        const c = 1 / Math.sqrt(1 + t * t);
        turn(a, b, c, c * t);
        turn(right[p]!, right[q]!, c, c * t);
      }
    if (!rotated) break;
  }
  return { values: turned.map((column) => Math.sqrt(column.reduce((sum, z) => sum + z * z, 0))), turned, right };
}

function turn(a: Float64Array, b: Float64Array, c: number, s: number): void {
  for (let i = 0; i < a.length; i++) {
    const [x, y] = [a[i]!, b[i]!];
    a[i] = c * x - s * y;
    b[i] = s * x + c * y;
  }
}

export interface LeastSquares {
  /** The shortest of all that fit best. */
  solution: number[];
  /** Standard deviation of each unknown for readings of deviation 1; where it is not determined this says nothing. */
  spread: number[];
  rank: number;
  /** reading − fit, in order of the rows. */
  residuals: number[];
  /** Variance of a combination of the unknowns for readings of deviation 1, where the rows determine it. */
  varianceOf: (combination: readonly number[]) => number;
  /** Orthonormal directions of the unknowns in which the rows say nothing, one an array. */
  unseen: number[][];
}

/**
 * Least squares by singular values, for small systems of which it must be known what they don't determine.
 * @param rows one for each reading: the factors of the unknowns
 * Source: G. H. Golub, C. F. Van Loan, Matrix Computations, 4th ed., §5.5.
 */
export function solveLeast(rows: readonly (readonly number[])[], readings: readonly number[]): LeastSquares {
  const { values, turned, right } = singularOf(rows);
  const floor = RANK_TOLERANCE * Math.max(0, ...values);
  const kept = values.flatMap((value, k) => (value > floor ? [k] : []));
  const solution = new Array<number>(right.length).fill(0);
  const variance = new Array<number>(right.length).fill(0);
  for (const k of kept) {
    const square = values[k]! ** 2;
    const column = turned[k]!;
    let share = 0;
    for (let i = 0; i < column.length; i++) share += column[i]! * readings[i]!;
    for (const [j, entry] of right[k]!.entries()) {
      solution[j]! += (share / square) * entry;
      variance[j]! += (entry * entry) / square;
    }
  }
  return {
    solution,
    spread: variance.map(Math.sqrt),
    rank: kept.length,
    residuals: rows.map((row, i) => readings[i]! - row.reduce((sum, factor, j) => sum + factor * solution[j]!, 0)),
    varianceOf: (combination) =>
      kept.reduce((sum, k) => {
        const share = right[k]!.reduce((all, entry, j) => all + entry * combination[j]!, 0);
        return sum + (share / values[k]!) ** 2;
      }, 0),
    unseen: right.flatMap((direction, k) => (values[k]! > floor ? [] : [[...direction]])),
  };
}
