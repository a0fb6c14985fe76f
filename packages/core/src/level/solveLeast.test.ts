import { Matrix, pseudoInverse, SingularValueDecomposition } from 'ml-matrix';
import { seededRandom } from './seededMap.fixture';
import { singularOf, solveLeast } from './solveLeast';

/** Seeded rows; every third system has columns that say the same. */
function system(seed: number) {
  const random = seededRandom(seed);
  const [rows, unknowns] = [4 + Math.floor(20 * random()), 2 + Math.floor(8 * random())];
  const matrix = Array.from({ length: rows }, () => Array.from({ length: unknowns }, () => random() - 0.5));
  if (seed % 3 === 0) for (const row of matrix) row[unknowns - 1] = row[0]! * 2;
  return { matrix, readings: Array.from({ length: rows }, () => random()) };
}

// ml-matrix 6.15.1 (MIT licence), from the registry.
test('values, solutions and variances are those of a matrix library, on 200 systems', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const { matrix, readings } = system(seed);
    const theirs = new SingularValueDecomposition(new Matrix(matrix), { autoTranspose: true }).diagonal;
    const ours = singularOf(matrix).values.sort((p, q) => q - p);
    theirs.forEach((value, k) => expect(ours[k]).toBeCloseTo(value, 10));
    const inverse = pseudoInverse(new Matrix(matrix), 1e-10);
    const solved = solveLeast(matrix, readings);
    inverse
      .mmul(Matrix.columnVector(readings))
      .to1DArray()
      .forEach((value, j) => expect(solved.solution[j]).toBeCloseTo(value, 8));
    inverse
      .mmul(inverse.transpose())
      .diagonal()
      .forEach((value, j) => expect(solved.spread[j]! ** 2).toBeCloseTo(value, 6));
    expect(solved.rank).toBe(theirs.filter((value) => value > 1e-9 * theirs[0]!).length);
    // What is not seen changes nothing, and stands at right angles to the rows.
    for (const direction of solved.unseen)
      for (const row of matrix)
        expect(row.reduce((sum, factor, j) => sum + factor * direction[j]!, 0)).toBeCloseTo(0, 9);
    expect(solved.unseen.length + solved.rank).toBeGreaterThanOrEqual(matrix[0]!.length);
  }
});

test('nothing at all has rank none', () => {
  expect(
    solveLeast(
      [
        [0, 0],
        [0, 0],
      ],
      [1, 2],
    ),
  ).toMatchObject({ rank: 0, solution: [0, 0] });
});
