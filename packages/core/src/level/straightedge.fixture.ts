import { FEELERS, type LightLine, type LitStretch } from './lightSurvey';

/** What a person with a straightedge and feelers sees along a line of a plate: it rests on two contacts, light elsewhere. */
export function lookAlong(line: LightLine, height: (x: number, y: number) => number, feelers: boolean): LightLine {
  const STEPS = 80;
  const along = Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS);
  const z = along.map((t) =>
    height(line.from.x + (line.to.x - line.from.x) * t, line.from.y + (line.to.y - line.from.y) * t),
  );
  // It lies on two contacts through which nothing stands: an edge of the hull from above; of all, the one that rocks least.
  const hull: number[] = [];
  for (let k = 0; k < z.length; k++) {
    while (hull.length > 1) {
      const [i, j] = [hull.at(-2)!, hull.at(-1)!];
      if ((z[j]! - z[i]!) * (k - i) > (z[k]! - z[i]!) * (j - i) + 1e-12) break;
      hull.pop();
    }
    hull.push(k);
  }
  let best = { gap: along.map(() => 0), worst: Infinity };
  for (const [h, j] of hull.slice(1).entries()) {
    const i = hull[h]!;
    const gap = z.map((value, k) => z[i]! + ((z[j]! - z[i]!) * (k - i)) / (j - i) - value);
    const worst = Math.max(...gap);
    if (worst < best.worst) best = { gap, worst };
  }
  const stretches: LitStretch[] = [];
  for (let k = 0; k <= STEPS;) {
    if (!(best.gap[k]! > 0.003)) {
      k++;
      continue;
    }
    let end = k;
    while (end < STEPS && best.gap[end + 1]! > 0.003) end++;
    const widest = Math.max(...best.gap.slice(k, end + 1));
    const feeler = feelers ? (FEELERS.findLast((one) => one <= widest) ?? null) : null;
    if (end > k) stretches.push({ from: along[k]!, to: along[end]!, light: widest < 0.02 ? 'faint' : 'clear', feeler });
    k = end + 1;
  }
  return { ...line, stretches };
}
