import { levelOperations } from '@even-bed/contract/level/operations';
import { recordOf, waitingFor, type Waiting } from '../offline/waiting';
import { partKeys, type CheckDraft } from './levelSlice';

/** The record that everything of a check is sent as. */
export const checkRecord = (id: string): string => recordOf('level', id);

/**
 * What the server still lacks of a check, in the order in which it must come: its start with its first reading, each
 * reading, the turns that were made, its end. Nothing is sent before the first reading.
 */
export function levelWaits(draft: CheckDraft): Waiting[] {
  const { id, machineId, startedAt, setup, rounds, end, machineName, sent } = draft;
  if (rounds.length === 0) return [];
  const common = { what: `${machineName}: level check`, at: `/level/${id}` };
  const parts: Waiting[] = [
    waitingFor(levelOperations.startCheck, {
      ...common,
      params: { id },
      body: { machineId, startedAt, setup },
      key: partKeys.start(id),
    }),
  ];
  for (const { id: roundId, seq, takenAt, source, raw, reading, made, madeAt } of rounds) {
    const body = { seq, takenAt, source, raw, reading };
    parts.push(
      waitingFor(levelOperations.saveRound, { ...common, params: { id, roundId }, body, key: partKeys.round(roundId) }),
    );
    if (made !== null && made.length > 0) {
      const turned = { madeAt: madeAt!, turns: made };
      const key = partKeys.turns(roundId);
      parts.push(waitingFor(levelOperations.saveTurns, { ...common, params: { id, roundId }, body: turned, key }));
    }
  }
  if (end)
    parts.push(waitingFor(levelOperations.endCheck, { ...common, params: { id }, body: end, key: partKeys.end(id) }));
  return parts.filter(({ key }) => !sent.includes(key));
}
