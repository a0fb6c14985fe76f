import type { CheckStart, RoundWrite, TurnsWrite } from '@even-bed/contract';
import type { PendingWrite } from '../api/outbox';
import type { CheckDraft, WritePart } from './levelSlice';

export interface DraftWrite extends PendingWrite {
  draftId: string;
  part: WritePart;
}

/**
 * What the server still lacks of a check, in the order in which it must come. The draft is the only truth: no queue
 * beside it can disagree with it. Nothing is sent before the first reading, and nothing after a refusal.
 */
export function pendingWrites(draft: CheckDraft): DraftWrite[] {
  if (draft.rounds.length === 0 || draft.refusal !== null) return [];
  const base = `/level-checks/${draft.id}`;
  const writes: DraftWrite[] = [];
  const add = (part: WritePart, key: string, path: string, body: unknown) =>
    writes.push({ draftId: draft.id, part, key, path, body });
  if (!draft.sent.start) {
    const body: CheckStart = { machineId: draft.machineId, startedAt: draft.startedAt, setup: draft.setup };
    add({ kind: 'start' }, `${draft.id}-start`, base, body);
  }
  for (const { id, seq, takenAt, source, raw, reading, made, madeAt } of draft.rounds) {
    if (seq > draft.sent.rounds) {
      const body: RoundWrite = { seq, takenAt, source, raw, reading };
      add({ kind: 'round', seq }, `${id}-read`, `${base}/rounds/${id}`, body);
    }
    if (made !== null && made.length > 0 && !draft.sent.turns.includes(id)) {
      const body: TurnsWrite = { madeAt: madeAt!, turns: made };
      add({ kind: 'turns', roundId: id }, `${id}-turns`, `${base}/rounds/${id}/turns`, body);
    }
  }
  if (draft.end) add({ kind: 'end' }, `${draft.id}-end`, `${base}/end`, draft.end);
  return writes;
}
