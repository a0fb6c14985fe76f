import { needNumbers } from '../needNumbers';
import { conduct, guardLayers, type HeatLayer } from './conduct';

export interface SurfaceReading {
  /** s since the heater was switched on, all cold. */
  at: number;
  /** °C of the top, by a surface thermometer. */
  top: number;
}

export interface CalibrateInput {
  layers: readonly HeatLayer[];
  setpoint: number;
  ambient: number;
  /** The first while it still rises, the second when it hardly does. */
  readings: readonly [SurfaceReading, SurfaceReading];
}

export type SoakCalibration =
  | {
      found: true;
      flux: number;
      loss: number;
      /** How far flux and loss would be out, as a part of themselves, if each reading were 1 °C out. */
      perDegree: { flux: number; loss: number };
    }
  | { found: false; reason: string };

/** Where the search begins: a common bed heater, and still air with radiation. Common practice. */
const BEGIN = { flux: 4000, loss: 12 };
const ROUNDS = 40;
/** s; no stack takes longer to warm. */
const DAY = 86_400;

/**
 * The heater's flux and the loss at the top from two readings of one warming up.
 * Newton's method on their logarithms with halved steps: it ends when both readings are met to 0.01 °C.
 * @returns found: false with what to do, when no flux and loss give these readings or they hang on them too loosely
 * @throws RangeError readings out of order, or not between ambient and the setpoint
 */
export function calibrateSoak({ layers, setpoint, ambient, readings }: CalibrateInput): SoakCalibration {
  needNumbers('calibrateSoak', { layers, setpoint, ambient, readings });
  guardLayers('calibrateSoak', layers);
  const [early, late] = readings;
  if (!(early.at >= 1 && late.at > early.at && late.at <= DAY))
    throw new RangeError(
      `calibrateSoak needs two times one after the other, within a day, got ${early.at} and ${late.at}`,
    );
  for (const { top } of readings)
    if (!(top > ambient && top < setpoint))
      throw new RangeError(`calibrateSoak needs readings between ${ambient} and ${setpoint} °C, got ${top}`);
  const misses = ([flux, loss]: Pair): Pair => {
    const run = conduct({
      layers,
      start: ambient,
      flux: Math.exp(flux),
      setpoint,
      ambient,
      loss: Math.exp(loss),
      longest: late.at,
      stops: [early.at, late.at],
    });
    return [run.top[nearest(run.time, early.at)]! - early.top, run.top[run.top.length - 1]! - late.top];
  };
  let at: Pair = [Math.log(BEGIN.flux), Math.log(BEGIN.loss)];
  let miss = misses(at);
  for (let round = 0; round < ROUNDS; round++) {
    const slopes = slopesAt(misses, at, miss);
    const determinant = slopes[0][0] * slopes[1][1] - slopes[0][1] * slopes[1][0];
    if (size(miss) < 0.01) {
      const flux = (Math.abs(slopes[1][1]) + Math.abs(slopes[0][1])) / Math.abs(determinant);
      const loss = (Math.abs(slopes[0][0]) + Math.abs(slopes[1][0])) / Math.abs(determinant);
      if (!(flux < 1 && loss < 1)) return { found: false, reason: LOOSE };
      return { found: true, flux: Math.exp(at[0]), loss: Math.exp(at[1]), perDegree: { flux, loss } };
    }
    if (!(Math.abs(determinant) > 1e-9)) return { found: false, reason: LOOSE };
    const move: Pair = [
      (slopes[1][1] * miss[0] - slopes[0][1] * miss[1]) / determinant,
      (slopes[0][0] * miss[1] - slopes[1][0] * miss[0]) / determinant,
    ];
    // No more than a doubling at once, and less where it makes things worse.
    const scale = Math.min(1, 0.7 / Math.max(Math.abs(move[0]), Math.abs(move[1])));
    let part = scale;
    let next: Pair = at;
    let nextMiss = miss;
    for (; part > 1e-3; part /= 2) {
      next = [at[0] - part * move[0], at[1] - part * move[1]];
      nextMiss = misses(next);
      if (size(nextMiss) < size(miss)) break;
    }
    if (part <= 1e-3) break;
    [at, miss] = [next, nextMiss];
  }
  return {
    found: false,
    reason: 'No heater and no air give these two readings with this stack. Check the layers, and read both again.',
  };
}

const LOOSE =
  'These readings hardly tell heater and air apart. Take the first while the top still rises, the second when it no longer does.';

type Pair = [number, number];
const size = ([p, q]: Pair) => Math.max(Math.abs(p), Math.abs(q));

function slopesAt(misses: (at: Pair) => Pair, at: Pair, miss: Pair): [Pair, Pair] {
  const STEP = 0.01;
  const byFlux = misses([at[0] + STEP, at[1]]);
  const byLoss = misses([at[0], at[1] + STEP]);
  return [
    [(byFlux[0] - miss[0]) / STEP, (byLoss[0] - miss[0]) / STEP],
    [(byFlux[1] - miss[1]) / STEP, (byLoss[1] - miss[1]) / STEP],
  ];
}

const nearest = (times: readonly number[], at: number) =>
  times.reduce((best, time, i) => (Math.abs(time - at) < Math.abs(times[best]! - at) ? i : best), 0);
