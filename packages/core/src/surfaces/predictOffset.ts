import { tQuantile } from './studentT';

/** A Z offset that worked: this surface on this machine. */
export interface KnownOffset {
  machine: string;
  surface: string;
  /** mm */
  offset: number;
  /** How much it counts, above 0; 1 when left out. */
  weight?: number | undefined;
}

export interface OffsetPrediction {
  /** mm */
  offset: number;
  /**
   * Standard error of the predicted offset, mm; null when the offsets known just suffice and leave nothing to judge by.
   */
  deviation: number | null;
  /** Offsets beyond what was needed: degrees of freedom that the deviation rests on. */
  spare: number;
  /**
   * Half widths within which the true offset lies in two of three cases (68.3 %) and in nineteen of twenty (95 %), mm, by
   * Student's t, which few spare offsets make wide; null without a spare one.
   */
  likely: number | null;
  nearlySure: number | null;
  /** Known offsets that fit the others so badly that they were left out, with how far off they are, mm. */
  odd: { machine: string; surface: string; offset: number; off: number }[];
  support: {
    /** Offsets that machine and surface are linked by, directly or through others. */
    offsets: number;
    sameSurface: number;
    sameMachine: number;
  };
}

export interface OffsetQuestion {
  known: readonly KnownOffset[];
  machine: string;
  surface: string;
}

/**
 * Predicts the Z offset of a pair from the offsets that worked, with the model offset = machine + surface.
 *
 * Weighted least squares. With the surfaces' signs turned, the model is a graph whose edges are the offsets: its normal
 * matrix is a weighted Laplacian. The surfaces are eliminated first, what is left over the machines is a Laplacian again,
 * and its diagonal is taken as the sum of its row, so that nothing cancels. The answer's variance is the resistance
 * between the two nodes when each offset is a conductor of its weight. An offset that the others contradict beyond what
 * chance would do in one of a hundred shops (externally studentised residual, Bonferroni) is left out and named.
 *
 * @returns the prediction, or "not connected" when no chain of known offsets leads from the machine to the surface
 * @throws RangeError an offset that is not a finite number, or a weight that is not above 0
 * Source: Å. Björck, Numerical Methods for Least Squares Problems, SIAM 1996, §6.3 (block elimination);
 * P. G. Doyle and J. L. Snell, Random Walks and Electric Networks, MAA 1984, §1.3 (resistance).
 * @example
 * predictOffset({ machine: 'Knot', surface: 'S-2', known: [
 *   { machine: 'Knot', surface: 'S-1', offset: 0.1 },
 *   { machine: 'Ruff', surface: 'S-1', offset: 0.3 },
 *   { machine: 'Ruff', surface: 'S-2', offset: 0.5 },
 * ] }).offset // 0.3
 */
export function predictOffset({ known, machine, surface }: OffsetQuestion): OffsetPrediction | 'not connected' {
  for (const { machine: m, surface: s, offset, weight = 1 } of known) {
    if (!(Math.abs(offset) <= LARGEST))
      throw new RangeError(`predictOffset needs finite offsets, up to ${LARGEST} mm, ${m} with ${s} has ${offset}`);
    if (!(weight > 0) || !Number.isFinite(weight))
      throw new RangeError(`predictOffset needs weights above 0, ${m} with ${s} has ${weight}`);
  }
  const odd: OffsetPrediction['odd'] = [];
  let kept = known;
  for (;;) {
    const linked = linkedTo(kept, machine);
    if (!linked.surfaces.has(surface)) return 'not connected';
    const edges = kept.filter(({ machine: m }) => linked.machines.has(m));
    const fit = fitted(edges, machine, linked);
    const worst = odd.length < MOST_ODD && edges.length <= MOST_JUDGED ? oddOne(fit) : null;
    if (worst === null) return answer({ fit, edges, machine, surface, odd });
    const edge = edges[worst.at]!;
    odd.push({ machine: edge.machine, surface: edge.surface, offset: edge.offset, off: worst.off });
    kept = kept.filter((one) => one !== edge);
  }
}

/** No offset is larger, mm: beyond, squares are no numbers any more. */
const LARGEST = 1e9;
/** So many odd offsets are left out at most: with more the model itself is in doubt. */
const MOST_ODD = 3;
/** Past so many offsets single ones are not judged: each costs a solution of its own. */
const MOST_JUDGED = 3000;
/** Chance of calling a good offset odd, in a whole shop. */
const FALSE_ALARM = 0.01;
const LIKELY = 0.6827;
const NEARLY_SURE = 0.95;

interface Fit {
  rows: Row[];
  residuals: number[];
  /** Weighted sum of squared residuals. */
  squares: number;
  freedom: number;
  mean: number;
  surfaces: Float64Array;
  surfaceIndex: Map<string, number>;
  resistance: (machine: number, surface: number) => number;
}

function fitted(
  edges: readonly KnownOffset[],
  machine: string,
  linked: { machines: Set<string>; surfaces: Set<string> },
): Fit {
  // The machine asked about stands first: it is the ground, whose own part is taken as 0.
  const machineIndex = indexOf([machine, ...linked.machines]);
  const surfaceIndex = indexOf(linked.surfaces);
  const mean = edges.reduce((sum, { offset }) => sum + offset, 0) / edges.length;
  const rows = edges.map((edge) => ({
    m: machineIndex.get(edge.machine)!,
    s: surfaceIndex.get(edge.surface)!,
    w: edge.weight ?? 1,
    o: edge.offset - mean,
  }));
  const size = { machines: machineIndex.size, surfaces: surfaceIndex.size };
  const solve = factor(rows, size);
  const fit = solve(rows.map(({ o }) => o));
  const left = () => rows.map(({ m, s, o }) => o - fit.machines[m]! - fit.surfaces[s]!);
  // One step of refinement takes out what rounding left.
  const more = solve(left());
  for (let i = 0; i < size.machines; i++) fit.machines[i]! += more.machines[i]!;
  for (let i = 0; i < size.surfaces; i++) fit.surfaces[i]! += more.surfaces[i]!;
  const residuals = left();
  return {
    rows,
    residuals,
    squares: rows.reduce((sum, { w }, i) => sum + w * residuals[i]! ** 2, 0),
    freedom: rows.length - (size.machines + size.surfaces - 1),
    mean,
    surfaces: fit.surfaces,
    surfaceIndex,
    resistance: solve.resistance,
  };
}

/**
 * The offset that the others contradict most, if chance would hardly do it. With fewer than two spare offsets none can be
 * told from those that it contradicts.
 */
function oddOne({ rows, residuals, squares, freedom, resistance }: Fit): { at: number; off: number } | null {
  if (freedom < 2) return null;
  let worst: { at: number; t: number; off: number } | null = null;
  for (const [at, { m, s, w }] of rows.entries()) {
    // What it alone decides of its own fit; 1: it is the only link, and nothing contradicts it.
    const free = 1 - w * resistance(m, s);
    if (!(free > 1e-6)) continue;
    const off = residuals[at]! / free;
    const taken = (w * residuals[at]! ** 2) / free;
    const others = Math.max(0, squares - taken) / (freedom - 1);
    const t = Math.sqrt(taken / Math.max(others, 1e-30));
    if (worst === null || t > worst.t) worst = { at, t, off };
  }
  if (worst === null) return null;
  return worst.t > tQuantile(1 - FALSE_ALARM / (2 * rows.length), freedom - 1) && Math.abs(worst.off) > LEAST_ODD
    ? worst
    : null;
}

/** Nearer than this no offset is worth a second look, mm: the smallest jog of common machines. Common practice. */
const LEAST_ODD = 0.01;

function answer({
  fit,
  edges,
  machine,
  surface,
  odd,
}: {
  fit: Fit;
  edges: readonly KnownOffset[];
  machine: string;
  surface: string;
  odd: OffsetPrediction['odd'];
}): OffsetPrediction {
  const target = fit.surfaceIndex.get(surface)!;
  const { freedom } = fit;
  const deviation = freedom > 0 ? Math.sqrt((fit.squares / freedom) * fit.resistance(0, target)) : null;
  const half = (share: number) => (deviation === null ? null : deviation * tQuantile((1 + share) / 2, freedom));
  return {
    offset: fit.mean + fit.surfaces[target]!,
    deviation,
    spare: Math.max(0, freedom),
    likely: half(LIKELY),
    nearlySure: half(NEARLY_SURE),
    odd,
    support: {
      offsets: edges.length,
      sameSurface: edges.filter((edge) => edge.surface === surface).length,
      sameMachine: edges.filter((edge) => edge.machine === machine).length,
    },
  };
}

interface Row {
  m: number;
  s: number;
  w: number;
  o: number;
}

/** Machines and surfaces that chains of known offsets lead to from one machine. */
function linkedTo(known: readonly KnownOffset[], machine: string) {
  const byMachine = group(known, (edge) => edge.machine);
  const bySurface = group(known, (edge) => edge.surface);
  const machines = new Set<string>(byMachine.has(machine) ? [machine] : []);
  const surfaces = new Set<string>();
  for (const m of machines) {
    for (const { surface } of byMachine.get(m)!) {
      if (surfaces.has(surface)) continue;
      surfaces.add(surface);
      for (const edge of bySurface.get(surface)!) machines.add(edge.machine);
    }
  }
  return { machines, surfaces };
}

function group<T>(items: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const list = groups.get(keyOf(item));
    if (list) list.push(item);
    else groups.set(keyOf(item), [item]);
  }
  return groups;
}

function indexOf(names: Iterable<string>): Map<string, number> {
  const index = new Map<string, number>();
  for (const name of names) if (!index.has(name)) index.set(name, index.size);
  return index;
}

/** Factors the normal equations with machine 0 as the ground, and solves them for any offsets of the same pairs. */
function factor(rows: readonly Row[], { machines, surfaces }: { machines: number; surfaces: number }) {
  // Conductance between machine and surface, all offsets of one pair together.
  const pairs: Map<number, number>[] = Array.from({ length: surfaces }, () => new Map());
  for (const { m, s, w } of rows) pairs[s]!.set(m, (pairs[s]!.get(m) ?? 0) + w);
  const total = pairs.map((pair) => [...pair.values()].reduce((sum, w) => sum + w, 0));

  // What the surfaces leave over the machines: between machines i and j, Σ over surfaces of w_i·w_j / Σw.
  const between = Array.from({ length: machines }, () => new Float64Array(machines));
  pairs.forEach((pair, s) => {
    for (const [i, wi] of pair) for (const [j, wj] of pair) if (i !== j) between[i]![j]! += (wi * wj) / total[s]!;
  });
  const lower = eliminate(between);

  const solveMachines = (right: Float64Array): Float64Array => {
    const x = Float64Array.from(right);
    for (let k = machines - 1; k > 0; k--) for (let i = 1; i < k; i++) x[i]! += (lower[k]![i]! / lower[k]![k]!) * x[k]!;
    const answer = new Float64Array(machines);
    for (let k = 1; k < machines; k++) {
      let sum = x[k]!;
      for (let i = 1; i < k; i++) sum += lower[k]![i]! * answer[i]!;
      answer[k] = sum / lower[k]![k]!;
    }
    return answer;
  };

  const solve = (offsets: readonly number[]) => {
    const right = new Float64Array(machines);
    const bySurface = new Float64Array(surfaces);
    rows.forEach(({ s, w }, i) => (bySurface[s]! += w * offsets[i]!));
    rows.forEach(({ m, s, w }, i) => (right[m]! += w * (offsets[i]! - bySurface[s]! / total[s]!)));
    const machinePart = solveMachines(right);
    const surfacePart = new Float64Array(surfaces);
    pairs.forEach((pair, s) => {
      let sum = bySurface[s]!;
      for (const [m, w] of pair) sum -= w * machinePart[m]!;
      surfacePart[s] = sum / total[s]!;
    });
    return { machines: machinePart, surfaces: surfacePart };
  };

  /** Resistance between a machine and a surface. */
  solve.resistance = (machine: number, s: number): number => {
    const current = new Float64Array(machines);
    for (const [m, w] of pairs[s]!) current[m] = w / total[s]!;
    current[machine]! -= 1;
    const potential = solveMachines(current);
    let sum = 1 / total[s]!;
    for (let m = 1; m < machines; m++) sum += current[m]! * potential[m]!;
    return sum;
  };
  return solve;
}

/**
 * Eliminates machines from the last down to the first but one, keeping conductances (all ≥ 0) instead of a matrix with
 * signs: row k of the result holds what k is tied to before it, and at [k][k] the sum of that with its tie to the ground.
 */
function eliminate(between: Float64Array[]): Float64Array[] {
  for (let k = between.length - 1; k > 0; k--) {
    const row = between[k]!;
    let sum = 0;
    for (let i = 0; i < k; i++) sum += row[i]!;
    row[k] = sum;
    for (let i = 0; i < k; i++) {
      if (row[i] === 0) continue;
      const share = row[i]! / sum;
      for (let j = 0; j < k; j++) if (j !== i) between[i]![j]! += share * row[j]!;
    }
  }
  return between;
}
