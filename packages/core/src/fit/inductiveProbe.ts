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

/** The probe's face hangs at least this far above the nozzle tip, or it drags over prints. mm, common practice. */
export const FACE_ABOVE_NOZZLE = 0.5;

export interface ProbeAsk {
  before: { metal: Metal; over: number };
  after: { metal: Metal; over: number };
  /** The topmost metal is the very same layer as before. */
  sameMetal: boolean;
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
   * `lower`: the probe in its holder, mm · `gap`: nozzle above the surface at the trip, at the least ·
   * `zero`: + further from the surface, − nearer; null: another metal trips elsewhere, so that zero is set anew.
   */
  | { kind: 'do'; lower: number; gap: number; zero: number | null; hits: number };

const NOTHING = 0.01;

/**
 * What an inductive probe makes of a new stack. It trips at a distance from the topmost metal, whatever lies on it: what
 * is thicker than that distance is met by the probe's face, or by the nozzle, before the trip.
 * Worked with the shortest distance that the metals' ranges allow, so that no homing ends in the surface.
 */
export function throughTheTop({ before, after, sameMetal, range, above, clear }: ProbeAsk): ProbeAnswer {
  const more = after.over - before.over;
  const same = sameMetal || (before.metal === after.metal && before.metal !== 'other');
  if (same && Math.abs(more) < NOTHING) return { kind: 'none' };
  const [afterLeast] = SENSED[after.metal];
  const [beforeLeast, beforeMost] = SENSED[before.metal];
  const weaker = same ? 0 : Math.max(0, beforeMost - afterLeast);
  // Less on the metal and a metal seen as well as the old: the nozzle only stands higher at the trip.
  if (more <= 0 && weaker === 0)
    return same
      ? { kind: 'do', lower: 0, gap: -more, zero: more, hits: 0 }
      : { kind: 'do', lower: 0, gap: 0, zero: null, hits: 0 };
  const today = clear ?? (range !== null && above !== null ? range * beforeLeast - before.over - above : null);
  if (today === null || (weaker > 0 && range === null))
    return {
      kind: 'unknown',
      missing: [
        ...(range === null && (clear === null || weaker > 0) ? (['sensing-range'] as const) : []),
        ...(above === null && clear === null ? (['probe-height'] as const) : []),
      ],
    };
  // Two lower bounds, each true by itself: today's gap less what metal and top take, and the probe's own figures.
  const byToday = today - more - (weaker > 0 ? range! * weaker : 0);
  const atTrip =
    range !== null && above !== null && !(same && clear !== null)
      ? Math.max(byToday, range * afterLeast - after.over - above)
      : byToday;
  if (atTrip >= 0) return { kind: 'do', lower: 0, gap: atTrip, zero: same ? more : null, hits: 0 };
  if (above === null) return { kind: 'unknown', missing: ['probe-height'] };
  // The probe comes down by what keeps the nozzle as far away as today, but never below what its face needs.
  const room = above - FACE_ABOVE_NOZZLE;
  if (atTrip + room < 0)
    return range === null && !same
      ? { kind: 'unknown', missing: ['sensing-range'] }
      : { kind: 'refused', hits: -atTrip };
  const lower = Math.min(Math.ceil((Math.max(0, today) - atTrip) * 10 - 1e-6) / 10, room);
  return { kind: 'do', lower, gap: atTrip + lower, zero: same ? more - lower : null, hits: -atTrip };
}
