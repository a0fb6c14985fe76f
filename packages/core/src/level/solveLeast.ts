import { Matrix, SingularValueDecomposition } from 'ml-matrix';

/** Singular values below this share of the largest count as nothing. */
const RANK_TOLERANCE = 1e-9;

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
 * Source: G. H. Golub, C. F. Van Loan, Matrix Computations, 4th ed., §5.5; the decomposition is ml-matrix's.
 */
export function solveLeast(rows: readonly (readonly number[])[], readings: readonly number[]): LeastSquares {
  const unknowns = rows[0]!.length;
  // The library wants at least as many rows as columns; rows of nothing say nothing.
  const padded = [...rows.map((row) => [...row])];
  while (padded.length < unknowns) padded.push(new Array<number>(unknowns).fill(0));
  const matrix = new Matrix(padded);
  const svd = new SingularValueDecomposition(matrix, { autoTranspose: true });
  const { leftSingularVectors: left, rightSingularVectors: right, diagonal } = svd;
  const floor = RANK_TOLERANCE * (diagonal[0] ?? 0);
  const kept = diagonal.map((value) => value > floor);
  const solution = new Array<number>(unknowns).fill(0);
  const variance = new Array<number>(unknowns).fill(0);
  for (const [k, value] of diagonal.entries()) {
    if (!kept[k]) continue;
    let share = 0;
    for (let i = 0; i < rows.length; i++) share += left.get(i, k) * readings[i]!;
    for (let j = 0; j < unknowns; j++) {
      const entry = right.get(j, k) / value;
      solution[j]! += share * entry;
      variance[j]! += entry * entry;
    }
  }
  return {
    solution,
    spread: variance.map(Math.sqrt),
    rank: kept.filter(Boolean).length,
    residuals: rows.map((row, i) => readings[i]! - row.reduce((sum, factor, j) => sum + factor * solution[j]!, 0)),
    varianceOf: (combination) => {
      let variance = 0;
      for (const [k, value] of diagonal.entries()) {
        if (!kept[k]) continue;
        let share = 0;
        for (let j = 0; j < unknowns; j++) share += combination[j]! * right.get(j, k);
        variance += (share / value) ** 2;
      }
      return variance;
    },
    unseen: diagonal.flatMap((_, k) => (kept[k] ? [] : [Array.from({ length: unknowns }, (_u, j) => right.get(j, k))])),
  };
}
