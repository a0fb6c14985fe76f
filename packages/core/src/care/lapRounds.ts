import { LAP_PLACES, ROUND_STROKES, type LapRound } from '../level/lapProgress';
import type { RunState } from './runProcedure';

/**
 * Rounds of lapping so far, each as the step's readings said it when it was left. A run keeps what it was before each step:
 * that is where earlier rounds are.
 */
export function lapRoundsOf(state: RunState, stepId: string): LapRound[] {
  const rounds: LapRound[] = [];
  for (let now: RunState | null = state; now?.before; now = now.before)
    if (now.before.at === stepId && now.trail.at(-1)?.how === 'done') {
      const round = lapRoundIn(now.readings, stepId);
      if (round) rounds.unshift(round);
    }
  return rounds;
}

/** A round as readings say it; null while a part is not looked at. */
export function lapRoundIn(readings: RunState['readings'], stepId: string): LapRound | null {
  const touched = Object.fromEntries(LAP_PLACES.map((place) => [place, readings[`${stepId}.${place}`]]));
  if (Object.values(touched).some((value) => value === undefined)) return null;
  return { strokes: ROUND_STROKES, touched: touched as LapRound['touched'] };
}
