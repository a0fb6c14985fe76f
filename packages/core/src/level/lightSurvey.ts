import { needNumbers, needWord } from '../needNumbers';
import { describeShape, type BedShape } from './describeShape';
import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import { flatness } from './flatness';
import type { HeightPoint } from './HeightPoint';
import { solveLeast } from './solveLeast';

/** How much light shows: a hair's breadth, or plainly. */
export const LIGHTS = ['faint', 'clear'] as const;
export type Light = (typeof LIGHTS)[number];

/** A part of a line along which light shows under the straightedge, from 0 at the line's beginning to 1 at its end. */
export interface LitStretch {
  from: number;
  to: number;
  light: Light;
  /** Thickest feeler that passes, mm; null: none was tried. */
  feeler: number | null;
}

/** A line on the plate along which the straightedge stood; no stretches: no light anywhere. Places in mm. */
export interface LightLine {
  id: string;
  from: { x: number; y: number };
  to: { x: number; y: number };
  stretches: LitStretch[];
}

/**
 * closes: the lines agree where they cross, within what such readings can · contradicts: they don't · untold: too few cross
 * for them to contradict each other
 */
export type SurveyTrust = 'closes' | 'contradicts' | 'untold';

/** As a job and the screen go by it. flat: within what is asked, or no more than a hair of light · again: not to be trusted yet. */
export type LightVerdict = 'flat' | 'dome' | 'dish' | 'twist' | 'region' | 'bump' | 'mixed' | 'again';

export interface LightSurvey {
  /** Heights along the lines about their plane, mm, + higher: what the shape is drawn from. */
  points: HeightPoint[];
  /** For each point the line that it lies on. */
  lineOf: string[];
  /** How far lines are apart where they cross, mm: root mean square and most; how many crossings are more than needed. */
  closure: { rms: number; most: number; spare: number };
  trust: SurveyTrust;
  /** Lines to look at again: one that stands against all others, or two of which one does (of two diagonals neither says which). */
  suspects: string[];
  /** The coarsest reading that counts, mm: what lies within it is not told. */
  resolution: number;
  /** Minimum zone of the rebuilt heights, mm. */
  flatness: number;
  shape: BedShape;
  verdict: LightVerdict;
}

/**
 * The six lines, as shares of the plate from front left: two along, two across, both diagonals. Along and across stand at
 * different shares, so that no three lines meet in one place: only then can lines contradict each other. The last two, through
 * the middle, are for where six don't settle it.
 */
export const SURVEY_LINES = [
  { id: 'along-left', from: [0.125, 0.02], to: [0.125, 0.98] },
  { id: 'along-right', from: [0.875, 0.02], to: [0.875, 0.98] },
  { id: 'across-front', from: [0.02, 0.3], to: [0.98, 0.3] },
  { id: 'across-rear', from: [0.02, 0.7], to: [0.98, 0.7] },
  { id: 'diagonal-1', from: [0.02, 0.02], to: [0.98, 0.98] },
  { id: 'diagonal-2', from: [0.98, 0.02], to: [0.02, 0.98] },
  { id: 'along-middle', from: [0.5, 0.02], to: [0.5, 0.98] },
  { id: 'across-middle', from: [0.02, 0.5], to: [0.98, 0.5] },
] as const;
export type SurveyLineId = (typeof SURVEY_LINES)[number]['id'];

/** The lines on a plate of this size, without light yet. @throws RangeError sizes that are not above 0 */
export function surveyLines({ width, depth }: { width: number; depth: number }): LightLine[] {
  needNumbers('surveyLines', { width, depth });
  if (!(width > 0 && depth > 0)) throw new RangeError(`surveyLines needs sizes above 0 mm, got ${width} and ${depth}`);
  return SURVEY_LINES.map(({ id, from, to }) => ({
    id,
    from: { x: from[0] * width, y: from[1] * depth },
    to: { x: to[0] * width, y: to[1] * depth },
    stretches: [],
  }));
}

/** Feelers of a common set, mm. Common practice. */
export const FEELERS = [
  0.02, 0.03, 0.04, 0.05, 0.06, 0.07, 0.08, 0.09, 0.1, 0.12, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.8, 1,
] as const;
/** What an eye sees at all, and where a hair's breadth ends, mm. Common practice, from memory. */
const SEEN = 0.003;
const FAINT = 0.02;
/** Light that is plain, with no feeler tried: at most so much in what is still called a plate, mm. */
const CLEAR = 0.4;
/** The gap between two contacts is taken as an arc; it can be out by so much of its height. Our own. */
const ARC = 0.12;
/** No line is joined better than this, mm. */
const FINEST = 0.003;
/** Where heights are worked out along a line. */
const SAMPLES = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1] as const;
/** Upper 1 % of χ² by degrees of freedom, 1 to 12. NIST/SEMATECH e-Handbook §1.3.6.7.4. */
const CHI_1 = [6.63, 9.21, 11.34, 13.28, 15.09, 16.81, 18.48, 20.09, 21.67, 23.21, 24.72, 26.22];
const chiLimit = (freedom: number) => CHI_1[freedom - 1] ?? freedom + 2.33 * Math.sqrt(2 * freedom) + 2;

/** Least and most that the gap of a stretch is at its widest, mm. */
export function gapRange({ light, feeler }: LitStretch): { least: number; most: number } {
  if (feeler !== null) {
    // The next thicker one did not pass.
    const next = FEELERS.find((one) => one > feeler + 1e-9) ?? feeler * 1.25;
    return { least: feeler, most: Math.max(next, feeler + 0.005) };
  }
  return light === 'faint' ? { least: SEEN, most: FAINT } : { least: FAINT, most: CLEAR };
}

/**
 * The surface under a straightedge, rebuilt from where light shows along lines that cross.
 *
 * Along a line the plate lies under the straightedge by the gap: nothing where no light shows, an arc where it does. How the
 * straightedge itself lay, a height and a slope a line, is found by least squares so that lines agree where they cross, as in
 * the joining of lines of a surface plate. By how much they don't is the closure. One line that stands against the rest is the
 * one without which the others close.
 * @param lines at least four that cross; those not looked at yet are left out
 * @param aim largest flatness that counts as flat, mm; not said: a hair of light
 * @throws DegenerateInput fewer lines, lines that don't hang together
 * @throws RangeError stretches that lie outside their line, words or numbers that can't be
 * Source: J. C. Moody, "How to calibrate surface plates in the plant", The Tool Engineer, October 1955 (the plan of lines and
 * their joining, from memory); light under a straightedge as a gap: common practice.
 */
export function lightSurvey({ lines, aim }: { lines: readonly LightLine[]; aim?: number | undefined }): LightSurvey {
  needNumbers('lightSurvey', { lines, aim: aim ?? 1 });
  if (lines.length < 4) throw new DegenerateInput(`lightSurvey needs at least 4 lines, got ${lines.length}`);
  const read = lines.map(readLine);
  const joined = join(read);
  const { points, lineOf } = heightsAlong(read, joined.lays);
  const resolution = resolutionOf(lines);
  const zone = flatness(points).value;
  const shape = describeShape(points, { noise: surveyNoise(resolution) });
  const verdict = verdictOf(lines, shape, zone, aim ?? FAINT);
  const high = regionOf(lines);
  const [trust, suspects] = high
    ? ([joined.closure.spare < 1 ? 'untold' : 'closes', []] as const)
    : trustOf(read, joined);
  // One line without which the plate would be the opposite carries the whole verdict: it is looked at again.
  const turning = trust === 'contradicts' || high ? [] : turningLines(lines, verdict);
  const doubted = turning.length > 0;
  return {
    points,
    lineOf,
    closure: joined.closure,
    trust: doubted ? 'contradicts' : trust,
    suspects: doubted ? (turning.length > MOST_SUSPECTS ? [] : turning) : [...suspects],
    resolution,
    flatness: zone,
    shape,
    verdict: doubted || trust === 'contradicts' ? 'again' : high && verdict !== 'flat' ? 'region' : verdict,
  };
}

/** How the straightedge lay on a line by its light alone: rocking on something in between, hollow under it, or on all along. */
function layOf({ stretches }: LightLine): 'rocks' | 'sags' | 'lies' | 'else' {
  if (stretches.length === 0) return 'lies';
  const at0 = stretches.some(({ from, to }) => from <= AT_END && to < MIDDLE);
  const at1 = stretches.some(({ from, to }) => to >= 1 - AT_END && from > MIDDLE);
  const over = stretches.some(({ from, to }) => from < MIDDLE && to > MIDDLE);
  if (at0 && at1) return 'rocks';
  if (over && stretches.length === 1) return 'sags';
  return at0 || at1 ? 'rocks' : 'else';
}

/** Contacts this near each other, as a share of the plate, are one place; other lines pass farther from it than half of that. */
const ONE_PLACE = 0.25;

/** One place that stands up: lines over it rock on it, all others lie on. */
function regionOf(lines: readonly LightLine[]): boolean {
  const rocking = lines.filter((line) => layOf(line) === 'rocks');
  if (rocking.length < 2 || rocking.length === lines.length) return false;
  if (lines.some((line) => !rocking.includes(line) && layOf(line) !== 'lies')) return false;
  const size = Math.max(...lines.map(({ from, to }) => Math.hypot(to.x - from.x, to.y - from.y)));
  const contacts = rocking.map(({ from, to, stretches }) => {
    const dark = darkParts([...stretches].sort((p, q) => p.from - q.from));
    const rest = dark.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a), dark[0] ?? { from: 0.5, to: 0.5 });
    const t = (rest.from + rest.to) / 2;
    return { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t };
  });
  const [mx, my] = [
    contacts.reduce((sum, { x }) => sum + x, 0) / contacts.length,
    contacts.reduce((sum, { y }) => sum + y, 0) / contacts.length,
  ];
  if (contacts.some(({ x, y }) => Math.hypot(x - mx, y - my) > ONE_PLACE * size)) return false;
  const distance = ({ from, to }: LightLine) => {
    const [dx, dy] = [to.x - from.x, to.y - from.y];
    return Math.abs((mx - from.x) * dy - (my - from.y) * dx) / Math.hypot(dx, dy);
  };
  return lines.every((line) => rocking.includes(line) || distance(line) > (ONE_PLACE / 4) * size);
}

/** Lines without which the others say the opposite: a dome where it was a dish, or the other way round. */
function turningLines(lines: readonly LightLine[], verdict: LightVerdict): string[] {
  const hollow = verdict === 'dish' ? 1 : verdict === 'dome' ? -1 : 0;
  if (hollow === 0) return [];
  return lines.flatMap((line) => {
    const read = lines.filter((one) => one !== line).map(readLine);
    if (read.length < 4) return [];
    try {
      const { points } = heightsAlong(read, join(read).lays);
      return Math.sign(hollowness(points)) === -hollow ? [line.id] : [];
    } catch (error) {
      if (!(error instanceof DegenerateInput)) throw error;
      return [];
    }
  });
}

/** By how much the middle lies under the rim, by a paraboloid through the points, mm; − it stands up. Within what an eye sees: 0. */
function hollowness(points: readonly HeightPoint[]): number {
  const [mx, my] = [
    points.reduce((sum, { x }) => sum + x, 0) / points.length,
    points.reduce((sum, { y }) => sum + y, 0) / points.length,
  ];
  const size = Math.max(...points.map(({ x, y }) => Math.hypot(x - mx, y - my)));
  const { solution } = solveLeast(
    points.map(({ x, y }) => {
      const [u, v] = [(x - mx) / size, (y - my) / size];
      return [1, u, v, u * u + v * v, u * u - v * v, u * v];
    }),
    points.map(({ z }) => z),
  );
  return Math.abs(solution[3]!) > SEEN ? solution[3]! : 0;
}

const resolutionOf = (lines: readonly LightLine[]) =>
  Math.max(
    FINEST,
    ...lines.flatMap(({ stretches }) => stretches.map((one) => gapRange(one).most - gapRange(one).least)),
  );

/** One standard deviation of a rebuilt height, mm: a reading lies anywhere in its step. */
export const surveyNoise = (resolution: number) => Math.max(FINEST, resolution / Math.sqrt(12));

/** What nearly all lines say by how the straightedge lay on them. */
const NEARLY_ALL = 0.8;

function verdictOf(lines: readonly LightLine[], { name }: BedShape, zone: number, aim: number): LightVerdict {
  if (lines.every(({ stretches }) => stretches.length === 0) || zone <= aim) return 'flat';
  const lit = lines.map(layOf).filter((lay) => lay !== 'lies');
  const nearlyAll = (lay: string) =>
    lit.length > 1 && lit.filter((one) => one === lay).length >= NEARLY_ALL * lit.length;
  const [rocks, sags] = [nearlyAll('rocks'), nearlyAll('sags')];
  switch (name) {
    case 'dome':
    case 'bow-up':
    case 'ridge':
      // The straightedge lay hollow on nearly every line: such a plate is no dome, whatever its largest part.
      return sags ? 'mixed' : 'dome';
    case 'dish':
    case 'bow-down':
    case 'valley':
    case 'low-region':
    case 'pit':
      return rocks ? 'dome' : 'dish';
    case 'twist':
    case 'saddle':
      return 'twist';
    case 'high-region':
      return rocks && lit.length >= lines.length - 1 ? 'dome' : sags ? 'mixed' : 'region';
    case 'bump':
      return sags ? 'mixed' : 'bump';
    case 'none':
    case 'untold':
      // Too coarse for how much; which way is plain where nearly all lines agree.
      return rocks ? 'dome' : sags ? 'dish' : 'mixed';
  }
}

interface ReadLine {
  line: LightLine;
  /** Gap under the straightedge at a share of the line, mm, with one standard deviation. */
  gap: (t: number) => { value: number; sd: number };
}

function readLine(line: LightLine): ReadLine {
  const { from, to, stretches } = line;
  if (!(Math.hypot(to.x - from.x, to.y - from.y) > 1))
    throw new RangeError(`A line needs a length above 1 mm: ${line.id}`);
  const sorted = [...stretches].sort((p, q) => p.from - q.from);
  for (const [i, { from: begin, to: end, light, feeler }] of sorted.entries()) {
    needWord('lightSurvey', 'light', light, LIGHTS);
    if (!(begin >= 0 && end <= 1 && begin < end))
      throw new RangeError(`A lit part needs to lie on its line, got ${begin} to ${end}`);
    if (i > 0 && begin < sorted[i - 1]!.to)
      throw new RangeError(`Lit parts of one line need to lie apart, ${begin} lies in another`);
    if (feeler !== null && !(feeler > 0 && feeler <= 5))
      throw new RangeError(`A feeler needs 0 to 5 mm, got ${feeler}`);
  }
  const dark = darkParts(sorted);
  const arcs = sorted.map((stretch) => {
    const { least, most } = gapRange(stretch);
    return { stretch, middle: (least + most) / 2, sd: (most - least) / Math.sqrt(12), arc: arcOf(stretch, dark) };
  });
  return {
    line,
    gap: (t) => {
      for (const { stretch, middle, sd, arc } of arcs) {
        if (t < stretch.from || t > stretch.to) continue;
        const share = arc(t);
        return { value: middle * share, sd: Math.hypot(sd * share, ARC * middle * Math.sqrt(share), SEEN) };
      }
      return { value: 0, sd: SEEN };
    },
  };
}

/** Where the straightedge lies on, between the lit parts. */
function darkParts(sorted: readonly LitStretch[]): { from: number; to: number }[] {
  const edges = [0, ...sorted.flatMap(({ from, to }) => [from, to]), 1];
  const parts: { from: number; to: number }[] = [];
  for (let k = 0; k < edges.length; k += 2)
    if (edges[k + 1]! - edges[k]! > 1e-9) parts.push({ from: edges[k]!, to: edges[k + 1]! });
  return parts;
}

const MIDDLE = 0.5;
/** A lit part this near an end of its line goes up to it: slides are off by some hundredths. */
const AT_END = 0.06;

/**
 * Share of the widest gap along a lit part: an arc between two contacts, half of one where it is open to an end. A part that
 * goes up to one end is open there only if the straightedge lies on past the line's middle, or light shows at the other end
 * too: else it stood on that end, and the slide went a hair too far.
 */
function arcOf({ from, to }: LitStretch, dark: readonly { from: number; to: number }[]): (t: number) => number {
  const [at0, at1] = [from <= AT_END, to >= 1 - AT_END];
  const rest = at1
    ? dark.find((part) => part.to <= from + 1e-9 && part.to >= from - 1e-9)
    : dark.find((part) => part.from >= to - 1e-9);
  // It rests in the middle of where it lies on, where light shows beyond on both sides; else on its edge.
  const both = rest && rest.from > AT_END && rest.to < 1 - AT_END;
  const past = at1 ? from > MIDDLE : to < MIDDLE;
  const [open0, open1] = [at0 && (both || past), at1 && (both || past)];
  // Lit from end to end it stood on both.
  if (open0 === open1) {
    const [begin, end] = [at0 ? 0 : from, at1 ? 1 : to];
    return (t) => Math.max(0, (4 * (t - begin) * (end - t)) / (end - begin) ** 2);
  }
  const contact = rest && both ? (rest.from + rest.to) / 2 : open1 ? from : to;
  const end = open1 ? to : from;
  const power = both ? 2 : 1.5;
  return (t) => Math.abs((t - contact) / (end - contact)) ** power;
}

interface Joined {
  /** Height and slope of the straightedge on each line: at its middle, and from there to its end. */
  lays: { height: number; slope: number }[];
  closure: LightSurvey['closure'];
  /** Σ of the squared discords, each in its own deviations. */
  chi: number;
}

/** How each line's straightedge lay, so that lines agree best where they cross. */
function join(read: readonly ReadLine[]): Joined {
  const rows: number[][] = [];
  const sides: number[] = [];
  const weights: number[] = [];
  for (const [i, first] of read.entries())
    for (const [k, second] of read.entries()) {
      if (k <= i) continue;
      const at = crossing(first.line, second.line);
      if (!at) continue;
      const [one, other] = [first.gap(at[0]), second.gap(at[1])];
      const weight = 1 / Math.hypot(one.sd, other.sd, FINEST);
      const row = new Array<number>(2 * read.length).fill(0);
      row[2 * i] = weight;
      row[2 * i + 1] = weight * (2 * at[0] - 1);
      row[2 * k] = -weight;
      row[2 * k + 1] = -weight * (2 * at[1] - 1);
      rows.push(row);
      sides.push(weight * (one.value - other.value));
      weights.push(weight);
    }
  if (rows.length === 0) throw new DegenerateInput('lightSurvey needs lines that cross');
  const { solution, residuals, rank } = solveLeast(rows, sides);
  // A plane is free: three. Less rank, and some line hangs by a single crossing or none.
  if (rank < 2 * read.length - 3)
    throw new DegenerateInput('lightSurvey needs every line to cross two others, and lines that are not all alike');
  const apart = residuals.map((rest, i) => rest / weights[i]!);
  return {
    lays: read.map((_, i) => ({ height: solution[2 * i]!, slope: solution[2 * i + 1]! })),
    closure: {
      rms: Math.sqrt(apart.reduce((sum, one) => sum + one * one, 0) / apart.length),
      most: apart.reduce((most, one) => Math.max(most, Math.abs(one)), 0),
      spare: rows.length - rank,
    },
    chi: residuals.reduce((sum, rest) => sum + rest * rest, 0),
  };
}

/** Where two lines cross, as shares of each; null: they don't. */
function crossing(p: LightLine, q: LightLine): [number, number] | null {
  const [ax, ay] = [p.to.x - p.from.x, p.to.y - p.from.y];
  const [bx, by] = [q.to.x - q.from.x, q.to.y - q.from.y];
  const cross = ax * by - ay * bx;
  if (Math.abs(cross) < 1e-9 * Math.hypot(ax, ay) * Math.hypot(bx, by)) return null;
  const [cx, cy] = [q.from.x - p.from.x, q.from.y - p.from.y];
  const [s, t] = [(cx * by - cy * bx) / cross, (cx * ay - cy * ax) / cross];
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? [s, t] : null;
}

/** More than two lines that could be it are none that could be named. */
const MOST_SUSPECTS = 2;
/** By so much, in squared deviations, another line is as likely to be it. */
const AS_LIKELY = 4;

function trustOf(read: readonly ReadLine[], joined: Joined): [SurveyTrust, string[]] {
  const { spare } = joined.closure;
  if (spare < 1) return ['untold', []];
  if (joined.chi <= chiLimit(spare)) return ['closes', []];
  // Without which one do the others agree?
  const without = read.flatMap((one, i) => {
    try {
      const rest = join(read.filter((_, k) => k !== i));
      const closes = rest.closure.spare > 0 && rest.chi <= chiLimit(rest.closure.spare);
      return closes ? [{ id: one.line.id, chi: rest.chi }] : [];
    } catch (error) {
      if (!(error instanceof DegenerateInput)) throw error;
      return [];
    }
  });
  const least = Math.min(...without.map(({ chi }) => chi));
  const likely = without.filter(({ chi }) => chi <= least + AS_LIKELY).map(({ id }) => id);
  return ['contradicts', likely.length > MOST_SUSPECTS ? [] : likely];
}

function heightsAlong(read: readonly ReadLine[], lays: Joined['lays']): { points: HeightPoint[]; lineOf: string[] } {
  const lineOf: string[] = [];
  const points = read.flatMap(({ line: { id, from, to }, gap }, i) =>
    SAMPLES.map((t): HeightPoint => {
      lineOf.push(id);
      const { height, slope } = lays[i]!;
      return {
        x: from.x + (to.x - from.x) * t,
        y: from.y + (to.y - from.y) * t,
        z: height + slope * (2 * t - 1) - gap(t).value,
      };
    }),
  );
  const { residuals } = fitPlane(points);
  return { points: points.map((point, i) => ({ ...point, z: residuals[i]! })), lineOf };
}

/** Lines that go over any of these rectangles: those to look at again after something was laid there. */
export function linesOver(
  lines: readonly LightLine[],
  places: readonly { x: number; y: number; width: number; depth: number }[],
): string[] {
  const STEPS = 200;
  return lines
    .filter(({ from, to }) =>
      Array.from({ length: STEPS + 1 }, (_, k) => k / STEPS).some((t) => {
        const [x, y] = [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t];
        return places.some(
          (place) => x >= place.x && x <= place.x + place.width && y >= place.y && y <= place.y + place.depth,
        );
      }),
    )
    .map(({ id }) => id);
}
