import type { Machine } from '@even-bed/contract';
import type { Knex } from 'knex';
import { turnsToTell, turnsTold } from '../level/store';
import type { ConsoleLink } from './consoleLink';

/**
 * Tells a simulated machine which turns the technician says were made; a real bed has felt them already.
 * Each turn carries a token, so that telling it again after a lost answer moves nothing.
 */
export async function tellTurns(db: Knex, machine: Machine, link: ConsoleLink): Promise<void> {
  if (!machine.console?.simulated) return;
  for (const { roundId, turns } of await turnsToTell(db, machine.id)) {
    for (const turn of turns) await link.send(`HAND ${turn.adjusterId} ${turn.turns} ${roundId}`);
    await turnsTold(db, roundId);
  }
}
