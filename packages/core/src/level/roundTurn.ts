/** From here on turns are said in tenths: nobody counts eighths past two whole turns. */
export const DECIMALS_FROM = 2;
/** Up to one turn a hand can tell sixteenths (22.5°). */
const SIXTEENTHS_UP_TO = 1;

/**
 * The step in which a turn of this size is said: a sixteenth up to one turn, an eighth up to two, then a tenth.
 * @param turns signed turns
 */
export function turnStep(turns: number): number {
  const size = Math.abs(turns);
  if (size <= SIXTEENTHS_UP_TO) return 1 / 16;
  return size <= DECIMALS_FROM ? 1 / 8 : 1 / 10;
}

/**
 * A turn rounded to what can be said and done by hand; sign kept, never −0.
 * @example roundTurn(0.4) // 0.375
 */
export function roundTurn(turns: number): number {
  const perTurn = Math.round(1 / turnStep(turns));
  return Math.round(turns * perTurn) / perTurn + 0;
}

/** A motor is told hundredths of a millimetre. */
export const MOTOR_STEP = 0.01;

/** The move of an adjuster rounded to what can be done: a hand's turn, or what a motor is told, mm. */
export const roundMove = (turns: number, motor: boolean): number =>
  motor ? Math.round(turns / MOTOR_STEP) / 100 + 0 : roundTurn(turns);
