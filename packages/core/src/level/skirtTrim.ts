import { needNumbers, needWord } from '../needNumbers';
import { stiffBed } from './stiffBed';
import type { FeelAdjuster } from './feel';

/** Sides of a skirt, seen from the front. */
export const SKIRT_SIDES = ['front', 'right', 'rear', 'left'] as const;
export type SkirtSide = (typeof SKIRT_SIDES)[number];

/** How its lines look: apart, touching, ridged where too much comes out for the gap, dragged by the nozzle itself. */
export const LINE_LOOKS = ['gaps', 'touching', 'ridged', 'dragged'] as const;
export type LineLook = (typeof LINE_LOOKS)[number];

/** Gap over the one wanted where lines look so, mm; between two of them, halfway. Common practice, for layers of 0.2 to 0.3. */
const LOOKS_AT: Record<LineLook, number> = { gaps: 0.05, touching: 0, ridged: -0.05, dragged: -0.1 };

/** The nearest that a side may be whose lines look so, mm: halfway to the next look; a dragged one may be anywhere. */
const NEAREST: Record<LineLook, number> = { gaps: 0.025, touching: -0.025, ridged: -0.075, dragged: -Infinity };
/** And nearer than this it may drag, mm: looks and hands are no rulers. */
const DRAGS_FROM = -0.065;

/** The smallest turn that is made while a skirt prints. Common practice. */
export const TRIM_TURN = 1 / 16;
/** And the smallest that a motor is told, mm: about as much. */
export const TRIM_MOVE = 0.04;
/** What the offset is moved by at once: up where it drags, and never more than so much down. mm. */
const UP_AT_ONCE = 0.05;
const DOWN_AT_ONCE = 0.02;
/** After so many rounds it is no trim any more. Common practice. */
export const TRIM_ROUNDS = 12;

/** What was seen and what was done after it. */
export interface SkirtRound {
  looks: Readonly<Record<SkirtSide, LineLook>>;
  made: SkirtMove | null;
}

/** Turns are + clockwise looking down; offset in mm, + the nozzle farther away. */
export type SkirtMove = { do: 'turn'; adjuster: string; turns: number } | { do: 'offset'; by: number };

export type SkirtAdvice =
  | (SkirtMove & { raises?: boolean })
  /** All four touch. */
  | { do: 'done' }
  /** across: two facing sides want the bed up and the other two down: shape, which no screw cures · level: too far for a trim */
  | { do: 'level'; why: 'across' | 'rounds' };

export interface SkirtTrimAsk {
  adjusters: readonly FeelAdjuster[];
  /** The print area that the skirt runs round, mm. */
  print: { x: number; y: number; width: number; depth: number };
  /** What was seen so far, the latest last, and what was done. */
  rounds: readonly SkirtRound[];
}

/**
 * One move while a skirt prints, from how its four sides look: where any side drags, the offset up at once (and after so many
 * rounds a level instead of a trim); otherwise the one
 * adjuster by a sixteenth, or the offset by some hundredths, that brings the four nearest to touching. With fewer than three
 * adjusters there is the offset alone.
 * @throws RangeError nothing seen, or words that are none
 * @throws DegenerateAdjusters three or more in a line, or two on one spot
 */
export function skirtTrim({ adjusters, print, rounds }: SkirtTrimAsk): SkirtAdvice {
  needNumbers('skirtTrim', { print, adjusters });
  const last = rounds.at(-1);
  if (!last) throw new RangeError('skirtTrim needs a skirt that was looked at');
  for (const side of SKIRT_SIDES) needWord('skirtTrim', 'looks', last.looks[side], LINE_LOOKS);
  const out = SKIRT_SIDES.map((side) => LOOKS_AT[last.looks[side]]);
  if (out.every((gap) => gap === 0)) return { do: 'done' };
  if (rounds.length > TRIM_ROUNDS) return { do: 'level', why: 'rounds' };
  const nearest = SKIRT_SIDES.map((side) => NEAREST[last.looks[side]]);
  if (nearest.includes(-Infinity)) return { do: 'offset', by: UP_AT_ONCE };
  const [front, right, rear, left] = out as [number, number, number, number];
  if (front === rear && right === left && front * right < 0) return { do: 'level', why: 'across' };
  const wrong = (gaps: readonly number[]) => gaps.reduce((sum, gap) => sum + gap * gap, 0);
  const mean = out.reduce((sum, gap) => sum + gap, 0) / out.length;
  // Up by all that is missing; down by little at a time.
  const by =
    mean < 0 ? Math.ceil(-mean * 100 - 1e-9) / 100 : -Math.min(DOWN_AT_ONCE, Math.floor(mean * 100 + 1e-9) / 100);
  // The offset takes all sides along: never down while one is ridged already.
  const may = by > 0 || (by < 0 && nearest.every((gap) => gap + by >= DRAGS_FROM));
  let best: { move: SkirtAdvice; wrong: number } = {
    move: { do: 'offset', by },
    wrong: may ? wrong(out.map((gap) => gap + by)) : Infinity,
  };
  const sides = sidesOf(print);
  const bed = adjusters.length >= 3 ? stiffBed(adjusters) : null;
  for (const [index, { id, pitch, clockwise, motor }] of (bed ? adjusters : []).entries())
    for (const turns of motor ? [TRIM_MOVE, -TRIM_MOVE] : [TRIM_TURN, -TRIM_TURN]) {
      // What was turned just now is not turned back: looks are coarse, and it would go to and fro.
      const made = rounds.at(-2)?.made;
      if (made?.do === 'turn' && made.adjuster === id && made.turns === -turns) continue;
      const rise = turns * pitch * (clockwise === 'raises' ? 1 : -1);
      const { a, b, c } = bed!(adjusters.map((_, i) => (i === index ? rise : 0)));
      const after = out.map((gap, i) => gap - (a * sides[i]!.x + b * sides[i]!.y + c));
      // A turn that takes a side to where it may drag is never advised; nor one that takes a ridged side any nearer.
      if (after.some((gap, i) => gap < out[i]! && nearest[i]! + gap - out[i]! < DRAGS_FROM)) continue;
      const then = wrong(after);
      if (then < best.wrong - 1e-12)
        best = { move: { do: 'turn', adjuster: id, turns, raises: rise > 0 }, wrong: then };
    }
  if (best.wrong === Infinity) return { do: 'level', why: 'across' };
  return best.move;
}

/** Middle of each side, mm. */
const sidesOf = ({ x, y, width, depth }: SkirtTrimAsk['print']) => [
  { x: x + width / 2, y },
  { x: x + width, y: y + depth / 2 },
  { x: x + width / 2, y: y + depth },
  { x, y: y + depth / 2 },
];

/** How far apart the gaps of the four sides are by how they look, mm: at least and at most; null: as far as can be. */
export function skirtRange(looks: Readonly<Record<SkirtSide, LineLook>>): { least: number; most: number | null } {
  const out = SKIRT_SIDES.map((side) => LOOKS_AT[looks[side]]);
  const [low, high] = [Math.min(...out), Math.max(...out)];
  const half = LOOKS_AT.gaps / 2;
  return {
    least: Math.max(0, high - low - 2 * half),
    most: high === LOOKS_AT.gaps || low === LOOKS_AT.dragged ? null : high - low + 2 * half,
  };
}
