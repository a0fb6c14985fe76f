import { randomLcg, randomNormal } from 'd3-random';
import { needWord } from '../needNumbers';
import {
  FEEL_EDGES,
  FEELS,
  MIDDLE,
  nextMove,
  asWritten,
  startFeel,
  afterFeel,
  afterTurn,
  type Feel,
  type FeelAdjuster,
} from './feel';
import type { HeightPoint } from './HeightPoint';
import { stiffBed } from './stiffBed';

/** What a bed of the practice bench hides. Each has been somebody's wasted afternoon. Common practice. */
export const LESSONS = ['tilt', 'sticky', 'reversed', 'thick-paper', 'debris', 'bowed', 'map-sign'] as const;
export type Lesson = (typeof LESSONS)[number];

/** What a learner can say that it was; "nothing": the bed was only out of level. */
export const CAUSES = ['nothing', 'sticky', 'reversed', 'thick-paper', 'debris', 'bowed', 'map-sign'] as const;
export type Cause = (typeof CAUSES)[number];

/** What the learner is told of a bed. */
export interface PracticeBed {
  lesson: Lesson;
  seed: number;
  /** As the machine's page says it, which need not be so. */
  adjusters: readonly FeelAdjuster[];
  /** Thickness that the paper is thought to have, mm. */
  paper: number;
}

/** What the learner did, in order. Turns are + clockwise looking down. */
export type PracticeAct =
  | { do: 'feel'; at: string }
  | { do: 'turn'; adjuster: string; turns: number }
  /** Ten of the sheets between the calipers. */
  | { do: 'caliper' }
  /** The probe reads a map. */
  | { do: 'map' };

/** What came of it: a feel, a caliper's reading of ten in mm, or a map (+ higher, mean 0); null: a turn says nothing. */
export type PracticeSaw = Feel | number | readonly HeightPoint[] | null;

const SIDE = 220;
const PLACES: Record<3 | 4, [id: string, x: number, y: number][]> = {
  3: [
    ['front', SIDE / 2, 10],
    ['rear left', 10, SIDE - 10],
    ['rear right', SIDE - 10, SIDE - 10],
  ],
  4: [
    ['front left', 10, 10],
    ['front right', SIDE - 10, 10],
    ['rear left', 10, SIDE - 10],
    ['rear right', SIDE - 10, SIDE - 10],
  ],
};
const PITCH = 0.7;
const THIN = 0.1;
const THICK = 0.25;
const GRID = 5;

interface Truth {
  bed: PracticeBed;
  places: readonly { id: string; x: number; y: number }[];
  plane: { a: number; b: number; c: number };
  /** What a turn moves at each adjuster as a share of what its thread says; − the other way. */
  gains: readonly number[];
  /** Middle over the plane of the corners, mm, + higher. */
  bow: number;
  /** Under the sheet: there it is higher by so much, whatever is turned. */
  debris: { x: number; y: number; by: number } | null;
  paper: number;
  noise: number;
  random: () => number;
}

/**
 * A bed to practise on. The same lesson and number give the same bed.
 * @throws RangeError a lesson that is none
 */
export function practiceBed(lesson: Lesson, seed: number): PracticeBed {
  needWord('practiceBed', 'lessons', lesson, LESSONS);
  const count = seed % 2 === 0 ? 4 : 3;
  const adjusters = PLACES[count].map(([id, x, y]): FeelAdjuster => ({ id, x, y, pitch: PITCH, clockwise: 'lowers' }));
  return { lesson, seed, adjusters, paper: THIN };
}

function truthOf(bed: PracticeBed): Truth {
  const { lesson, seed, adjusters } = bed;
  const random = randomLcg(((seed * 7919 + LESSONS.indexOf(lesson) * 104_729) % 65_536) / 65_536 + 1e-6);
  const normal = randomNormal.source(random)(0, 1);
  const between = (low: number, high: number) => low + (high - low) * random();
  // So far out that it has to be turned, and no screw is at its end.
  const first = stiffBed(adjusters)(adjusters.map(() => Math.max(-0.5, Math.min(0.5, 0.28 * normal()))));
  const which = Math.floor(random() * adjusters.length);
  const gains = adjusters.map((_, i) => {
    const own = 1 + 0.04 * normal();
    if (lesson === 'sticky' && i === which) return own * between(0.3, 0.45);
    return lesson === 'reversed' && i === which ? -own : own;
  });
  const middle = { id: MIDDLE, x: SIDE / 2, y: SIDE / 2 };
  const corner = adjusters[which]!;
  return {
    bed,
    places: [...adjusters.map(({ id, x, y }) => ({ id, x, y })), middle],
    plane: first,
    gains,
    bow: lesson === 'bowed' ? between(0.14, 0.24) : 0.01 * normal(),
    debris: lesson === 'debris' ? { x: corner.x, y: corner.y, by: between(0.18, 0.3) } : null,
    paper: lesson === 'thick-paper' ? THICK : THIN,
    noise: 0.006,
    random,
  };
}

/** Height of the bed at a place, mm, + nearer the nozzle; the nozzle stands at 0. */
function heightAt({ plane, bow, debris, bed }: Truth, x: number, y: number): number {
  const [u, v] = [(2 * x) / SIDE - 1, (2 * y) / SIDE - 1];
  // A bow is fixed where the adjusters stand.
  const reach = bed.adjusters.length === 3 ? 1.6 : 1.65;
  const bulge = bow * Math.max(0, 1 - (u * u + v * v) / reach);
  const near = debris && Math.hypot(x - debris.x, y - debris.y) < 30 ? debris.by : 0;
  return plane.a * x + plane.b * y + plane.c + bulge + near;
}

function turned(truth: Truth, adjuster: string, turns: number): Truth {
  const { adjusters } = truth.bed;
  const rises = adjusters.map(({ id, pitch, clockwise }, i) =>
    id === adjuster ? turns * pitch * (clockwise === 'raises' ? 1 : -1) * truth.gains[i]! : 0,
  );
  const { a, b, c } = stiffBed(adjusters)(rises);
  const { plane } = truth;
  return { ...truth, plane: { a: plane.a + a, b: plane.b + b, c: plane.c + c } };
}

/** Plays what the learner did on the bed as it is. */
function played(bed: PracticeBed, acts: readonly PracticeAct[]): { truth: Truth; saw: PracticeSaw[] } {
  let truth = truthOf(bed);
  const noise = randomNormal.source(truth.random)(0, truth.noise);
  const saw = acts.map((act): PracticeSaw => {
    switch (act.do) {
      case 'turn': {
        if (!bed.adjusters.some(({ id }) => id === act.adjuster))
          throw new RangeError(
            `There is no adjuster “${act.adjuster}” to turn: it knows ${bed.adjusters.map(({ id }) => id).join(', ')}`,
          );
        if (!(Math.abs(act.turns) <= 20)) throw new RangeError(`practiceSaw needs turns up to 20, got ${act.turns}`);
        truth = turned(truth, act.adjuster, act.turns);
        return null;
      }
      case 'feel': {
        const place = truth.places.find(({ id }) => id === act.at);
        if (!place)
          throw new RangeError(
            `There is no place “${act.at}” to feel: it knows ${truth.places.map(({ id }) => id).join(', ')}`,
          );
        const gap = -heightAt(truth, place.x, place.y) + THIN - truth.paper + noise();
        return FEELS[FEEL_EDGES.filter((edge) => gap > edge).length]!;
      }
      case 'caliper':
        return Math.round(1000 * truth.paper + 2 * noise()) / 100;
      case 'map': {
        const points = Array.from({ length: GRID * GRID }, (_, i): HeightPoint => {
          const [x, y] = [
            10 + ((SIDE - 20) * (i % GRID)) / (GRID - 1),
            10 + ((SIDE - 20) * Math.floor(i / GRID)) / (GRID - 1),
          ];
          return { x, y, z: heightAt(truth, x, y) + noise() };
        });
        // A probe homes first: heights are about the middle.
        const mean = points.reduce((sum, { z }) => sum + z, 0) / points.length;
        // A map whose + means lower looks like any other.
        const sign = bed.lesson === 'map-sign' ? -1 : 1;
        return points.map((point) => ({ ...point, z: sign * (point.z - mean) }));
      }
    }
  });
  return { truth, saw };
}

/**
 * What came of each thing that the learner did.
 * @throws RangeError a place or an adjuster that is not there
 */
export const practiceSaw = (bed: PracticeBed, acts: readonly PracticeAct[]): PracticeSaw[] => played(bed, acts).saw;

/** How near every adjuster's gap has to come to the paper's, mm. */
const WITHIN = 0.04;

export interface PracticeScore {
  /** Every adjuster's gap is what the paper leaves; null: no turn could bring this bed there. */
  even: boolean | null;
  /** What it was, and whether the learner said so. */
  cause: Cause;
  named: boolean;
  touches: number;
  /** Of the best sequence that is known for this bed. */
  best: number;
  /** 0 to 100. */
  points: number;
}

/** Lessons whose bed no screw brings even: what helps is to stop and to name it. */
const CURELESS: readonly Lesson[] = ['debris', 'bowed'];

const causeOf = (lesson: Lesson): Cause => (lesson === 'tilt' ? 'nothing' : lesson);

/**
 * How well the learner did: half for a bed that is even (or for having stopped at one that can't be), a third for naming the
 * cause, the rest for how few touches it took beside the best sequence that is known.
 */
export function scorePractice(bed: PracticeBed, acts: readonly PracticeAct[], said: Cause): PracticeScore {
  needWord('scorePractice', 'causes', said, CAUSES);
  const { truth } = played(bed, acts);
  const cause = causeOf(bed.lesson);
  const named = said === cause;
  const best = bestTouches(bed);
  const touches = acts.length;
  if (CURELESS.includes(bed.lesson)) {
    const points = (named ? 50 + 30 : 0) + 20 * (named ? Math.min(1, best / Math.max(1, touches)) : 0);
    return { even: null, cause, named, touches, best, points: Math.round(points) };
  }
  const even = bed.adjusters.every(({ x, y }) => Math.abs(-heightAt(truth, x, y) + THIN - truth.paper) <= WITHIN);
  const points = (even ? 50 : 0) + (named ? 30 : 0) + (even ? 20 * Math.min(1, best / Math.max(1, touches)) : 0);
  return { even, cause, named, touches, best, points: Math.round(points) };
}

/** Where the best sequence stops counting: it has gone astray. */
const MOST = 80;

/**
 * Touches of the sequence that the app itself would advise, and what settles the cause: a map for what lies under or on the
 * bed, ten sheets between the calipers for the paper.
 */
export function bestTouches(bed: PracticeBed): number {
  if (bed.lesson === 'debris' || bed.lesson === 'bowed') return 2;
  const acts = bestActs(bed);
  return acts.length + (bed.lesson === 'thick-paper' || bed.lesson === 'map-sign' ? 1 : 0);
}

/** What the app would do on this bed, by paper and feel alone, and by what it learns of its screws meanwhile. */
export function bestActs(bed: PracticeBed): PracticeAct[] {
  const { gains } = truthOf(bed);
  // Who knows the lesson turns by what its screws do: the best that can be.
  const adjusters = bed.adjusters.map((one, i): FeelAdjuster => ({
    ...one,
    pitch: one.pitch * Math.abs(gains[i]!),
    clockwise: gains[i]! < 0 ? (one.clockwise === 'lowers' ? 'raises' : 'lowers') : one.clockwise,
  }));
  let state = asWritten(startFeel({ adjusters, gauge: { thickness: bed.paper, uncertainty: 0.002 } }));
  const acts: PracticeAct[] = [];
  while (acts.length < MOST) {
    const move = nextMove(state);
    if (move.do === 'done' || move.do === 'stop') break;
    if (move.do === 'turn') {
      acts.push({ do: 'turn', adjuster: move.adjuster, turns: move.turns });
      state = afterTurn(state, move);
    } else {
      acts.push({ do: 'feel', at: move.at });
      state = afterFeel(state, { at: move.at, feel: practiceSaw(bed, acts).at(-1) as Feel });
    }
  }
  return acts;
}
