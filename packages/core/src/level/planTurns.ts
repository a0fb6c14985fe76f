import { MOTOR_STEP, roundMove, turnStep } from './roundTurn';
import { DegenerateAdjusters, DegenerateInput } from './errors';
import { fitPlane, type PlaneFit } from './fitPlane';
import { extentOf, spreadOf, type Extent, type HeightPoint, type Spread } from './HeightPoint';
import { limitOf, type Limit } from './limitOf';
import { stiffBed, type BedMove, type Position } from './stiffBed';

/** An adjuster under the plate. `clockwise` is what a clockwise turn does, seen looking down on the bed. */
export interface Adjuster extends Position {
  id: string;
  /** mm of travel per turn. */
  pitch: number;
  clockwise: 'raises' | 'lowers';
  /** Driven by a motor of its own: its turns are mm, + up, and its pitch is 1. */
  motor?: true;
}

/** What one adjuster has to do. */
export interface PlannedTurn {
  id: string;
  /** The ideal move, mm, + up. */
  rise: number;
  /** The ideal turn, + clockwise looking down. */
  turns: number;
  /** The turn as it is said: rounded to what a hand can do, or 0 when it is left out. */
  said: number;
  /** The move that `said` makes, mm, + up. */
  saidRise: number;
}

/** within: nothing to do · reaches: within the aim after these turns · short: turns alone don't get there · no-aim: none was set. */
export type PlanVerdict = 'within' | 'reaches' | 'short' | 'no-aim';

export interface TurnPlan {
  /** In the order in which the adjusters were given. */
  turns: PlannedTurn[];
  /** Ids in the order to make them: lowering first, then raising, larger first. Only adjusters with a turn. */
  order: string[];
  before: Spread;
  /** Predicted for the turns as they are said. */
  after: Spread;
  /** What the ideal, unrounded turns would leave: the shape of the plate. */
  ideal: Spread;
  limit: Limit;
  verdict: PlanVerdict;
  aim: number | null;
  plane: Pick<PlaneFit, 'a' | 'b' | 'c' | 'centre' | 'standardErrors' | 'deviation'>;
  /** The plate's move under the said turns; what the next round should find. */
  move: BedMove;
  /** Standard deviation of the move that is asked of the adjuster that the readings say least of, mm. */
  uncertainty: number;
}

export interface PlanTurnsInput {
  /** n ≥ 3 readings, mm, + higher. */
  points: readonly HeightPoint[];
  /** n ≥ 3 adjusters, not in line. */
  adjusters: readonly Adjuster[];
  /** Id of an adjuster that must not be turned. */
  keep?: string | undefined;
  /** Turns below this are left out where the result stays within the aim. Default an eighth. */
  smallestTurn?: number | undefined;
  /** Largest range wanted, mm. */
  aim?: number | undefined;
  /** Standard deviation of one reading, mm, where repeats have shown it. */
  noise?: number | undefined;
}

const SMALLEST_TURN = 1 / 8;
/** Turns that make the range smaller by less than this don't help, mm. Finer than any probe repeats; common practice. */
const LEAST_GAIN = 0.002;
/** Deviation of one reading of common probes, mm, where none is known. Common practice. */
const USUAL_NOISE = 0.01;
/**
 * Readings that make of an error of one reading more than this many times as much at an adjuster tell nothing of its turn:
 * they lie nearly on one line, or in one corner.
 */
const MOST_LEVERAGE = 12;
/** Past this many adjusters the rounding search (2ⁿ) gives way to plain rounding. */
const SEARCH_UP_TO = 8;

/**
 * Which adjuster to turn, which way and how far, so that a stiff plate lies parallel to the nozzle's motion.
 *
 * The tilt is the least-squares plane through the readings. The moves lie on one plane (a stiff plate cannot do
 * otherwise); its free height makes the largest turn smallest, or leaves `keep` alone. The said turns are chosen
 * among the neighbouring roundings so that the tilt they leave is smallest; `after` is computed from them, with the
 * plate resting on equal springs (see stiffBed). It doesn't know the shop: range in mm, the shape stays.
 *
 * @throws DegenerateInput readings from which no plane follows, or that lie nearly on one line
 * @throws DegenerateAdjusters adjusters that can't tilt the plate, a pitch not above 0, or an unknown `keep`
 * Method: minimax free height by pairs (in one dimension the worst pair decides).
 * @example planTurns({ points, adjusters, aim: 0.1 }).turns[0].said // 0.5
 */
export function planTurns(input: PlanTurnsInput): TurnPlan {
  const { points, adjusters, keep, aim, noise, smallestTurn = SMALLEST_TURN } = input;
  for (const [name, value] of Object.entries({ aim, noise, smallestTurn }))
    if (value !== undefined && !(value >= 0 && value <= 1e9))
      throw new DegenerateInput(`planTurns needs a ${name} of 0 or more, got ${value}`);
  const moveOf = stiffBed(adjusters);
  for (const { id, pitch } of adjusters) {
    if (!(pitch > 0)) throw new DegenerateAdjusters(`Adjuster ${id} needs a pitch above 0 mm, got ${pitch}`);
  }
  const kept = keep === undefined ? -1 : adjusters.findIndex(({ id }) => id === keep);
  if (keep !== undefined && kept < 0) throw new DegenerateAdjusters(`There is no adjuster ${keep} to keep`);

  const fit = fitPlane(points);
  const leverage = largestLeverage(points, fit.centre, adjusters);
  if (!(leverage <= MOST_LEVERAGE))
    throw new DegenerateInput(
      'The readings lie nearly on one line or in one corner of the bed: no turn can be told from them. Read places all over it.',
    );
  const { a, b, c, centre, standardErrors, deviation } = fit;
  const heights = adjusters.map(({ x, y }) => a * (x - centre.x) + b * (y - centre.y));
  const free = kept >= 0 ? heights[kept]! : freeHeight(heights, adjusters);
  const exact = adjusters.map(({ pitch, clockwise }, i) => {
    const rise = free - heights[i]! + 0;
    return { rise, turns: i === kept ? 0 : (rise / pitch) * sense(clockwise) + 0 };
  });

  const extent = extentOf(points);
  const riseOf = (said: number, i: number) => said * adjusters[i]!.pitch * sense(adjusters[i]!.clockwise) + 0;
  const leftTilt = (move: BedMove) => tiltSpan(a + move.a, b + move.b, extent);
  const before = spreadAfter(points, centre, { a: 0, b: 0, c: 0 });
  const afterOf = (said: number[]) => spreadAfter(points, centre, moveOf(said.map(riseOf)));

  let said: number[];
  if (aim !== undefined && before.range <= aim) {
    said = exact.map(() => 0);
  } else {
    const rounded = chooseRounding(
      exact.map(({ turns }) => turns),
      adjusters.map(({ motor }) => motor === true),
      (candidate) => {
        const move = moveOf(candidate.map(riseOf));
        return leftTilt(move) + move.bind;
      },
    );
    said = dropSmall({ said: rounded, smallestTurn, adjusters, aim, rangeOf: (candidate) => afterOf(candidate).range });
    // Turns that gain nothing that could be seen are not asked for: the shape is what stays.
    if (!(before.range - afterOf(said).range >= LEAST_GAIN)) said = exact.map(() => 0);
  }

  const move = moveOf(said.map(riseOf));
  const after = spreadAfter(points, centre, move);
  const ideal = spreadOf(fit.residuals);
  const turns = adjusters.map(({ id }, i) => {
    const s = said[i]!;
    return { id, ...exact[i]!, said: s, saidRise: riseOf(s, i) };
  });
  return {
    turns,
    order: orderOf(turns),
    before,
    after,
    ideal,
    limit: limitOf({ points, residuals: fit.residuals, tilt: leftTilt(move), shape: ideal, noise }),
    verdict: verdictOf(aim, before.range, after.range),
    aim: aim ?? null,
    plane: { a, b, c, centre, standardErrors, deviation },
    move,
    uncertainty: leverage * (noise ?? USUAL_NOISE),
  };
}

const sense = (clockwise: Adjuster['clockwise']) => (clockwise === 'raises' ? 1 : -1);

/** The tilt's part of the range over the readings' rectangle, mm. */
const tiltSpan = (a: number, b: number, { x0, y0, x1, y1 }: Extent) =>
  Math.abs(a) * (x1 - x0) + Math.abs(b) * (y1 - y0);

/** By how many times an error of one reading stands at the adjuster that the readings say least of. */
function largestLeverage(points: readonly HeightPoint[], centre: HeightPoint, adjusters: readonly Adjuster[]): number {
  let [sxx, sxy, syy] = [0, 0, 0];
  for (const { x, y } of points) {
    sxx += (x - centre.x) ** 2;
    sxy += (x - centre.x) * (y - centre.y);
    syy += (y - centre.y) ** 2;
  }
  const det = sxx * syy - sxy * sxy;
  const squares = adjusters.map((adjuster) => {
    const [u, v] = [adjuster.x - centre.x, adjuster.y - centre.y];
    return (syy * u * u - 2 * sxy * u * v + sxx * v * v) / det;
  });
  return Math.sqrt(Math.max(...squares));
}

/** Height of the target plane for which the largest |turn| is smallest. */
function freeHeight(heights: readonly number[], adjusters: readonly Adjuster[]): number {
  let worst = -1;
  let best = heights[0]!;
  for (let i = 0; i < heights.length; i++) {
    for (let j = i + 1; j < heights.length; j++) {
      const wi = 1 / adjusters[i]!.pitch;
      const wj = 1 / adjusters[j]!.pitch;
      const turns = (wi * wj * Math.abs(heights[i]! - heights[j]!)) / (wi + wj);
      if (turns > worst) {
        worst = turns;
        best = (wi * heights[i]! + wj * heights[j]!) / (wi + wj);
      }
    }
  }
  return best;
}

/** The neighbouring rounding, down or up for each turn, with the smallest cost; the nearest one wins a tie. */
function chooseRounding(
  exact: readonly number[],
  motors: readonly boolean[],
  cost: (said: number[]) => number,
): number[] {
  const nearest = exact.map((turns, i) => roundMove(turns, motors[i]!));
  const n = exact.length;
  if (n > SEARCH_UP_TO) return nearest;
  const other = exact.map((turns, i) => {
    const step = motors[i] ? MOTOR_STEP : turnStep(turns);
    return roundMove(nearest[i]! + (turns > nearest[i]! ? step : -step), motors[i]!);
  });
  let best = nearest;
  let bestCost = cost(nearest);
  for (let bits = 1; bits < 1 << n; bits++) {
    // A turn that is exactly on a step has no neighbour worth trying; one that must be kept is 0 and stays.
    if (exact.some((turns, i) => bits & (1 << i) && turns === nearest[i])) continue;
    const candidate = nearest.map((turns, i) => (bits & (1 << i) ? other[i]! : turns));
    const candidateCost = cost(candidate);
    if (candidateCost < bestCost - 1e-12) {
      best = candidate;
      bestCost = candidateCost;
    }
  }
  return best;
}

/** Leaves out turns below `smallestTurn`, smallest first, as long as the range stays within the aim. */
function dropSmall({
  said,
  adjusters,
  smallestTurn,
  aim,
  rangeOf,
}: {
  said: number[];
  adjusters: readonly Adjuster[];
  smallestTurn: number;
  aim: number | undefined;
  rangeOf: (said: number[]) => number;
}): number[] {
  if (aim === undefined) return said;
  const small = said
    .map((turns, i) => ({ i, size: Math.abs(turns) }))
    // What a hand is spared costs a motor nothing.
    .filter(({ i, size }) => size > 0 && size < smallestTurn && !adjusters[i]!.motor)
    .sort((p, q) => p.size - q.size);
  let result = said;
  for (const { i } of small) {
    const candidate = result.map((turns, j) => (j === i ? 0 : turns));
    if (rangeOf(candidate) <= aim) result = candidate;
  }
  return result;
}

/** Range and RMS of the readings after a move about the mean that `centre` gives, read straight from the points. */
function spreadAfter(
  points: readonly HeightPoint[],
  centre: HeightPoint,
  { a, b, c }: Pick<BedMove, 'a' | 'b' | 'c'>,
): Spread {
  const n = points.length;
  const mean = centre.z + a * centre.x + b * centre.y + c;
  let low = Infinity;
  let high = -Infinity;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    const { x, y, z } = points[i]!;
    const d = z + a * x + b * y + c - mean;
    if (d < low) low = d;
    if (d > high) high = d;
    squares += d * d;
  }
  return { range: high - low, rms: Math.sqrt(squares / n) };
}

/** Lowering comes first, so that no corner is raised into the nozzle while another still stands high. */
function orderOf(turns: readonly PlannedTurn[]): string[] {
  return turns
    .filter(({ said }) => said !== 0)
    .sort((p, q) => Number(p.saidRise > 0) - Number(q.saidRise > 0) || Math.abs(q.saidRise) - Math.abs(p.saidRise))
    .map(({ id }) => id);
}

function verdictOf(aim: number | undefined, before: number, after: number): PlanVerdict {
  if (aim === undefined) return 'no-aim';
  if (before <= aim) return 'within';
  return after <= aim ? 'reaches' : 'short';
}
