import { compareRounds, type RoundComparison } from './compareRounds';
import { contourBed, type BedContours } from './contourBed';
import { spreadOf, type HeightPoint } from './HeightPoint';
import type { ParsedHeights, ParseOptions } from './heightReading';
import { parseHeights } from './parseHeights';
import { planTurns, type Adjuster, type TurnPlan } from './planTurns';
import { repeatability } from './repeatability';
import { stiffBed } from './stiffBed';

/** A reading as it is kept: the text as it came and how it is to be read. */
export interface RawReading {
  raw: string;
  reading: ParseOptions;
}

/** What the sums of a check rest on, lengths in mm. */
export interface LevelSetup {
  /** Looking down. */
  adjusters: readonly Adjuster[];
  aim: number;
  printWidth: number;
  printDepth: number;
}

/** A turn that was made, + clockwise looking down. */
export interface TurnMade {
  adjusterId: string;
  turns: number;
}

export interface Reckoning {
  parsed: ParsedHeights;
  /** Null while the reading can't be placed on the plate (parsed.needs). */
  plan: TurnPlan | null;
  contours: BedContours | null;
  /** How the bed answered the turns made after the reading before; null without such turns. */
  comparison: RoundComparison | null;
  /** What makes the reading doubtful, in words. */
  doubts: string[];
}

/** Heights of a bed that prints at all lie within this range, mm. Common practice. */
const ABSURD_RANGE = 3;
/** Readings may lie this far outside the print area, mm: probes reach beyond it. */
const OUTSIDE = 40;

/**
 * The turns that follow from one raw reading.
 * @throws UnreadableHeights, DegenerateInput, DegenerateAdjusters as parseHeights and planTurns do
 */
export function planRound(
  { raw, reading }: RawReading,
  { adjusters, aim }: LevelSetup,
): { parsed: ParsedHeights; plan: TurnPlan | null } {
  const parsed = parseHeights(raw, reading);
  if (parsed.needs.length > 0) return { parsed, plan: null };
  const noise = repeatability(parsed.points) ?? undefined;
  return { parsed, plan: planTurns({ points: parsed.points, adjusters, aim, noise }) };
}

/**
 * Everything that a round shows: heights, plan, contours, and how the bed answered the turns before.
 * @param previous the reading before and the turns made after it
 * @throws UnreadableHeights, DegenerateInput, DegenerateAdjusters as parseHeights and planTurns do
 */
export function reckonRound({
  now,
  setup,
  previous,
}: {
  now: RawReading;
  setup: LevelSetup;
  previous?: (RawReading & { made: readonly TurnMade[] }) | undefined;
}): Reckoning {
  const { parsed, plan } = planRound(now, setup);
  if (!plan) return { parsed, plan, contours: null, comparison: null, doubts: [] };
  return {
    parsed,
    plan,
    contours: contourBed({ points: parsed.points, grid: parsed.grid }),
    comparison: previous && previous.made.length > 0 ? answerTo(previous, parsed.points, setup) : null,
    doubts: doubtsAbout(parsed.points, setup),
  };
}

function answerTo(
  previous: RawReading & { made: readonly TurnMade[] },
  now: readonly HeightPoint[],
  { adjusters }: LevelSetup,
): RoundComparison {
  const rises = adjusters.map(({ id, pitch, clockwise }) => {
    const turns = previous.made.find(({ adjusterId }) => adjusterId === id)?.turns ?? 0;
    return turns * pitch * (clockwise === 'raises' ? 1 : -1);
  });
  const before = parseHeights(previous.raw, previous.reading).points;
  return compareRounds({ before, made: stiffBed(adjusters)(rises), now });
}

function doubtsAbout(points: readonly HeightPoint[], { printWidth, printDepth }: LevelSetup): string[] {
  const doubts: string[] = [];
  const { range } = spreadOf(points.map(({ z }) => z));
  if (range > ABSURD_RANGE) {
    doubts.push(
      `The heights differ by ${range.toFixed(1)} mm, more than a bed that prints. Are they in millimetres, without slips?`,
    );
  }
  const outside = points.filter(
    ({ x, y }) => x < -OUTSIDE || y < -OUTSIDE || x > printWidth + OUTSIDE || y > printDepth + OUTSIDE,
  ).length;
  if (outside > 0)
    doubts.push(
      `${outside} readings lie outside the print area of ${printWidth} × ${printDepth} mm. Is this the right machine?`,
    );
  return doubts;
}
