import highs from 'highs';
import type { HeightPoint } from './HeightPoint';

const signed = (value: number) => (value < 0 ? '- ' : '+ ') + Math.abs(value).toPrecision(17);

/** The least zone of points as a linear programme, written out: half the zone h, such that no point is farther from a plane. */
export function zoneProgramme(points: readonly HeightPoint[]): string {
  const rows = points.flatMap(({ x, y, z }, i) => [
    ` u${i}: ${signed(x)} a ${signed(y)} b + c + h >= ${z.toPrecision(17)}`,
    ` l${i}: ${signed(-x)} a ${signed(-y)} b - c + h >= ${(-z).toPrecision(17)}`,
  ]);
  return ['Minimize', ' obj: h', 'Subject To', ...rows, 'Bounds', ' a free', ' b free', ' c free', 'End'].join('\n');
}

/** A general-purpose solver of linear programmes: from a programme to the zone, mm. */
export async function zoneSolver(): Promise<(programme: string) => number> {
  const solver = await highs();
  return (programme) => {
    const answer = solver.solve(programme, { primal_feasibility_tolerance: 1e-10, dual_feasibility_tolerance: 1e-10 });
    if (answer.Status !== 'Optimal') throw new Error(`the solver says ${answer.Status}`);
    return 2 * answer.ObjectiveValue;
  };
}
