import { compareRounds, type RoundComparison } from './compareRounds';
import { contourBed, type BedContours } from './contourBed';
import type { HeightPoint } from './HeightPoint';
import { DegenerateInput, UnreadableHeights } from './errors';
import type { ParsedHeights, ParseOptions, QuestionCode } from './heightReading';
import { parseHeights } from './parseHeights';
import { planTurns, type Adjuster, type TurnPlan } from './planTurns';
import { repeatability } from './repeatability';

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
  /** Standard deviation of one reading of its probe, mm, from what it read before; not said: nothing says it. */
  noise?: number | undefined;
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
  /** How the bed answered the turns made after the reading before; null without such turns, and where it is within its aim. */
  comparison: RoundComparison | null;
  /** What makes the reading doubtful, in words. */
  doubts: string[];
  /** For the question that is asked first: what each answer would make of it. Null when all is said. */
  ways: ReadingWay[] | null;
}

/** One way in which a text can be read, with what would follow. */
export interface ReadingWay {
  code: QuestionCode;
  option: string;
  points: HeightPoint[];
  contours: BedContours | null;
  /** Null where this way can't be placed or gives no plan. */
  plan: TurnPlan | null;
}

/** Whether a question that nobody answered stands before what follows from the reading. */
export const isOpen = ({ questions }: ParsedHeights): boolean => questions.some(({ taken }) => taken === null);

/** Readings may lie this far outside the print area, mm: probes reach beyond it. */
const OUTSIDE = 40;

/**
 * The turns that follow from one raw reading.
 * @throws UnreadableHeights, DegenerateInput, DegenerateAdjusters as parseHeights and planTurns do
 */
export function planRound(
  { raw, reading }: RawReading,
  { adjusters, aim, noise: known }: LevelSetup,
): { parsed: ParsedHeights; plan: TurnPlan | null } {
  const parsed = parseHeights(raw, reading);
  if (parsed.needs.length > 0 || isOpen(parsed)) return { parsed, plan: null };
  const noise = repeatability(parsed.points) ?? known;
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
  const ways = waysOf(now, parsed, setup);
  if (!plan) return { parsed, plan, contours: null, comparison: null, doubts: [], ways };
  return {
    parsed,
    plan,
    contours: contourBed({ points: parsed.points, grid: parsed.grid, finest: setup.aim * FINEST }),
    // A bed within its aim has answered: whose fault it might have been is no question any more.
    comparison:
      previous && previous.made.length > 0 && plan.verdict !== 'within'
        ? answerTo(previous, parsed.points, setup)
        : null,
    doubts: doubtsAbout(parsed.points, setup, plan),
    ways,
  };
}

/** What each answer to the first open question would make of the text; the place must be known for it. */
function waysOf({ raw, reading }: RawReading, parsed: ParsedHeights, setup: LevelSetup): ReadingWay[] | null {
  const open = parsed.questions.find(({ taken }) => taken === null);
  if (!open || parsed.needs.length > 0) return null;
  return open.options.slice(0, MOST_WAYS).map((option) => {
    const answers = { ...reading.answers, [open.code]: option };
    try {
      const way = parseHeights(raw, { ...reading, answers });
      const { adjusters, aim } = setup;
      const plan = way.points.length > 2 ? planTurns({ points: way.points, adjusters, aim }) : null;
      const contours = plan ? contourBed({ points: way.points, grid: way.grid, finest: aim * FINEST }) : null;
      return { code: open.code, option, points: way.points, contours, plan };
    } catch (error) {
      if (!(error instanceof UnreadableHeights || error instanceof DegenerateInput)) throw error;
      return { code: open.code, option, points: [], contours: null, plan: null };
    }
  });
}

/** Contours are no closer than this share of the aim. */
const FINEST = 0.25;

/** Ways that are shown beside each other. */
const MOST_WAYS = 6;

function answerTo(
  previous: RawReading & { made: readonly TurnMade[] },
  now: readonly HeightPoint[],
  { adjusters, noise: known }: LevelSetup,
): RoundComparison {
  const rises = adjusters.map(({ id, pitch, clockwise }) => {
    const turns = previous.made.find(({ adjusterId }) => adjusterId === id)?.turns ?? 0;
    return turns * pitch * (clockwise === 'raises' ? 1 : -1);
  });
  const before = parseHeights(previous.raw, previous.reading).points;
  const noise = repeatability(now) ?? repeatability(before) ?? known;
  return compareRounds({ before, adjusters, rises, now, noise });
}

function doubtsAbout(
  points: readonly HeightPoint[],
  { printWidth, printDepth, aim }: LevelSetup,
  { uncertainty, order }: TurnPlan,
): string[] {
  const doubts: string[] = [];
  if (order.length > 0 && uncertainty > aim / 2)
    doubts.push(
      `The readings cover little of the bed: a corner may stand ${uncertainty.toFixed(2)} mm off what they say. Read places farther out.`,
    );
  const outside = points.filter(
    ({ x, y }) => x < -OUTSIDE || y < -OUTSIDE || x > printWidth + OUTSIDE || y > printDepth + OUTSIDE,
  ).length;
  if (outside > 0)
    doubts.push(
      `${outside} readings lie outside the print area of ${printWidth} × ${printDepth} mm. Is this the right machine?`,
    );
  return doubts;
}
