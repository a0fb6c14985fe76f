import { turnStep } from '../level/roundTurn';

const DUST = 1e-9;

/**
 * A number of turns rounded to what can be said and done by hand, to the side that is asked for; sign kept, never −0.
 * @param turns signed turns
 * @param toward 'more': at least as much · 'less': at most as much
 * @example turnsSafely(0.4, 'more') // 0.4375
 */
export function turnsSafely(turns: number, toward: 'more' | 'less'): number {
  const perTurn = Math.round(1 / turnStep(turns));
  const steps = Math.abs(turns) * perTurn;
  return (Math.sign(turns) * (toward === 'more' ? Math.ceil(steps - DUST) : Math.floor(steps + DUST))) / perTurn + 0;
}

/** The step in which lengths are set by hand or typed at a machine, mm. Common practice: the smallest jog. */
const JOG = 0.01;
const JOG_DUST = 1e-6;

/** A length in whole hundredths, to the side that is asked for. @param mm 0 or more */
export function jogsSafely(mm: number, toward: 'more' | 'less'): number {
  const jogs = mm / JOG;
  return Number(((toward === 'more' ? Math.ceil(jogs - JOG_DUST) : Math.floor(jogs + JOG_DUST)) * JOG).toFixed(2));
}
