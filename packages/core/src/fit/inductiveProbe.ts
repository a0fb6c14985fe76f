/** Metals that an inductive probe meets in a stack; "other" is metal of which no more is known. */
export const METALS = ['steel', 'stainless', 'aluminium', 'brass', 'copper', 'other'] as const;
export type Metal = (typeof METALS)[number];

/**
 * Sensing distance as a share of the rated one, which holds for mild steel (IEC 60947-5-2). Ranges are typical of data
 * sheets, from memory: a probe's own sheet comes first.
 */
export const SENSED: Record<Metal, readonly [least: number, most: number]> = {
  steel: [1, 1],
  stainless: [0.6, 0.9],
  aluminium: [0.3, 0.5],
  brass: [0.3, 0.55],
  copper: [0.2, 0.45],
  other: [0.2, 1],
};

/** What a probe really reaches, as a share of its label: 0.9 to 1.1 for the piece, as much again for heat and supply (IEC 60947-5-2, from memory). */
export const OFF_LABEL = [0.81, 1.19] as const;

/** The probe's face hangs at least this far above the nozzle tip, or it drags over prints. mm, common practice. */
export const FACE_ABOVE_NOZZLE = 0.5;

export interface ProbeAsk {
  /** The topmost metal before and what lay over it; null: no layer was said to be metal, so that nothing is known of that trip. */
  before: { metal: Metal; over: number } | null;
  after: { metal: Metal; over: number };
  /** The topmost metal is the very same piece as before. */
  samePiece: boolean;
  /** Rated sensing distance on steel, mm. */
  range: number | null;
  /** The probe's face above the nozzle tip, mm. */
  above: number | null;
  /** Nozzle above the surface when the probe trips today, mm. */
  clear: number | null;
}

export type ProbeAnswer =
  | { kind: 'none' }
  | { kind: 'unknown'; missing: ('sensing-range' | 'probe-height')[] }
  /** `hits`: by how much the nozzle would stand in the surface at the trip; the probe can't be set low enough. */
  | { kind: 'refused'; hits: number }
  /**
   * `lower`: the probe in its holder, mm · `zero`: + further from the surface, − nearer; null: the metal trips elsewhere, so that
   * zero is set anew · `away`: how much further the old zero is set before homing where zero is set anew.
   */
  | { kind: 'do'; lower: number; zero: number | null; away: number; hits: number };

const NOTHING = 0.01;

/**
 * What an inductive probe makes of a new stack. It trips at a distance from the topmost metal, whatever lies on it: what
 * is thicker than that distance is met by the probe's face, or by the nozzle, before the trip. Worked with the shortest distance
 * that label and metals allow, so that no homing ends in the surface, and with the longest for the zero that is still set.
 */
export function throughTheTop(ask: ProbeAsk): ProbeAnswer {
  const { before, after, range, above, clear } = ask;
  const same = before !== null && (ask.samePiece || (before.metal === 'steel' && after.metal === 'steel'));
  const more = before === null ? null : after.over - before.over;
  if (same && Math.abs(more!) < NOTHING) return { kind: 'none' };
  const atTrip = leastClear(ask, same, more);
  if (atTrip === null) return { kind: 'unknown', missing: missingOf(ask) };
  const today = todayLeast(ask);
  const lower = atTrip >= 0 ? 0 : above === null ? null : lowered(atTrip, today, above);
  if (lower === null) {
    // The same piece, with today's gap looked at, is exact: no figure would tell more.
    const missing = same && clear !== null && above !== null ? [] : missingOf(ask);
    return missing.length > 0 ? { kind: 'unknown', missing } : { kind: 'refused', hits: -atTrip };
  }
  const hits = Math.max(0, -atTrip);
  if (same) return { kind: 'do', lower, zero: more! - lower, away: 0, hits };
  const away = mostDrop(ask, more, lower, atTrip + lower);
  if (away === null) return { kind: 'unknown', missing: range === null ? ['sensing-range'] : ['probe-height'] };
  // Today's gap is what the old zero goes down by from the trip: never more than that.
  return { kind: 'do', lower, zero: null, away: Math.max(0, clear === null ? away : Math.min(away, clear)), hits };
}

/** What is not known and would tell; none when all figures are there. */
const missingOf = ({ range, above }: ProbeAsk): ('sensing-range' | 'probe-height')[] => [
  ...(range === null ? (['sensing-range'] as const) : []),
  ...(above === null ? (['probe-height'] as const) : []),
];

/** The least gap at today's trip: as looked at, by the figures, or none, since the machine works. */
function todayLeast({ before, range, above, clear }: ProbeAsk): number {
  if (clear !== null) return clear;
  if (before === null || range === null || above === null) return 0;
  return Math.max(0, range * OFF_LABEL[0] * SENSED[before.metal][0] - before.over - above);
}

/** Share of the distance that the new metal is sensed from, of that of the old: at the least. */
function leastShare(before: Metal, after: Metal, same: boolean): number {
  return same ? 1 : SENSED[after][0] / SENSED[before][1];
}

/** The least gap between nozzle and surface at the trip over the new stack, mm; null: nothing bounds it. */
function leastClear(
  { before, after, range, above, clear }: ProbeAsk,
  same: boolean,
  more: number | null,
): number | null {
  const bounds: number[] = [];
  if (above !== null) {
    if (range !== null) bounds.push(range * OFF_LABEL[0] * SENSED[after.metal][0] - after.over - above);
    // The probe trips today, and not in the surface: it reaches at least over what lies there.
    if (before !== null)
      bounds.push(
        ((clear ?? 0) + before.over + above) * leastShare(before.metal, after.metal, same) - after.over - above,
      );
  }
  if (before !== null && more !== null) {
    const weaker = same ? 0 : Math.max(0, SENSED[before.metal][1] - SENSED[after.metal][0]);
    if (weaker === 0) bounds.push((clear ?? 0) - more);
    else if (range !== null) bounds.push((clear ?? 0) - more - range * OFF_LABEL[1] * weaker);
  }
  if (bounds.length === 0) return null;
  const best = Math.max(...bounds);
  // A figure that is missing might show that it does not hit at all.
  return best < 0 && (above === null || (range === null && !(same && clear !== null))) ? null : best;
}

/** How far the probe comes down so that the nozzle stays as far away as today; null: its face would hang too low. */
function lowered(atTrip: number, today: number, above: number): number | null {
  const room = above - FACE_ABOVE_NOZZLE;
  if (atTrip + room < 0) return null;
  return Math.min(Math.ceil((today - atTrip) * 10 - 1e-6) / 10, room);
}

/** By how much the old zero may stand in the new surface at the most, mm; null: nothing bounds it. */
function mostDrop(
  { before, after, range, above, clear }: ProbeAsk,
  more: number | null,
  lower: number,
  newClear: number,
): number | null {
  const bounds: number[] = [];
  // The old zero lies today's gap below the trip; at the new trip at least so much is free.
  if (clear !== null) bounds.push(clear - newClear);
  if (before === null) {
    if (range !== null && above !== null) bounds.push(range * OFF_LABEL[1] - above - newClear);
  } else {
    const weaker = SENSED[before.metal][1] - SENSED[after.metal][0];
    if (range !== null) bounds.push(range * OFF_LABEL[weaker > 0 ? 1 : 0] * weaker + more! - lower);
    else if (weaker <= 0)
      bounds.push(
        more! -
          lower -
          (above === null ? 0 : (leastShare(before.metal, after.metal, false) - 1) * (before.over + above)),
      );
  }
  return bounds.length === 0 ? null : Math.max(0, Math.min(...bounds));
}
