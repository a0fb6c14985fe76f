/** Something to be packed, in the units of the sheet. */
export interface BoundItem {
  width: number;
  depth: number;
  mayRotate: boolean;
}

/**
 * A number of sheets that no cutting, edge to edge or not, can go below.
 *
 * Each side is measured by a dual feasible function f: whatever fits side by side has Σ f ≤ 1, so Σ f(w)·g(d) over one
 * sheet is at most 1, and the sum over all items, rounded up, bounds the sheets. The functions are u^(k), U^(ε) and φ^(ε);
 * area is the case of both left as they are. An item that may be turned counts with the smaller of its two products.
 * Source: Fekete & Schepers, New classes of fast lower bounds for bin packing problems, Math. Program. 91 (2001) 11-31;
 * the same, A general framework for bounds for higher-dimensional orthogonal packing problems (2004).
 * @param sheet with the kerf added once to each side; items with the kerf added to each of theirs
 */
export function sheetsNeeded(sheet: { width: number; depth: number }, items: readonly BoundItem[]): number {
  if (items.length === 0) return 0;
  const W = sheet.width;
  const D = sheet.depth;
  // An item that fits one way only lies that way.
  const asked = items.map(({ width, depth, mayRotate }) => {
    const ways = [[width / W, depth / D] as const];
    if (mayRotate && depth <= W && width <= D) ways.push([depth / W, width / D]);
    return ways.filter(([x, y]) => x <= 1 && y <= 1);
  });
  const sizes = asked.flatMap((ways) => ways.flatMap(([x, y]) => [x, y]));
  const functions = feasibleFunctions(sizes);
  let most = 1;
  for (const f of functions)
    for (const g of functions) {
      let sum = 0;
      for (const ways of asked) sum += Math.min(...ways.map(([x, y]) => f(x) * g(y)));
      most = Math.max(most, Math.ceil(sum - 1e-9));
    }
  return most;
}

type Feasible = (x: number) => number;
/** Past so many distinct sizes only these are tried as ε: the bound stays a bound. */
const MOST_EPSILONS = 12;
/** Sizes nearer than this are one: a function must not tell a size from itself by its last bit. */
const SAME = 1e-9;

function feasibleFunctions(sizes: readonly number[]): Feasible[] {
  const functions: Feasible[] = [(x) => x];
  for (const k of [1, 2, 3])
    functions.push((x) => {
      const scaled = (k + 1) * x;
      return Math.abs(scaled - Math.round(scaled)) < SAME ? x : Math.floor(scaled) / k;
    });
  const epsilons = [...new Set(sizes.map((x) => Math.min(x, 1 - x)).filter((e) => e > SAME && e <= 0.5))].sort(
    (p, q) => p - q,
  );
  const step = Math.max(1, Math.ceil(epsilons.length / MOST_EPSILONS));
  for (let i = 0; i < epsilons.length; i += step) {
    const e = epsilons[i]!;
    functions.push((x) => (x > 1 - e + SAME ? 1 : x < e - SAME ? 0 : x));
    const whole = Math.floor(1 / e + SAME);
    functions.push((x) => {
      if (x < e - SAME) return 0;
      return x > 0.5 + SAME ? 1 - Math.floor((1 - x) / e + SAME) / whole : 1 / whole;
    });
  }
  return functions;
}
