import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Prompt } from '../ui/Prompt';
import { checkEnded, type CheckDraft } from './levelSlice';

/** Drops a check; asks first when there is something to lose. */
export function DropCheck({ draft }: { draft: CheckDraft }) {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const [asking, setAsking] = useState(false);
  const drop = () => {
    dispatch(checkEnded({ id: draft.id, end: { endedAt: Date.now(), outcome: 'dropped', note: draft.note.trim() } }));
    router.replace(`/floor/${draft.machineId}`);
  };
  return (
    <>
      <ActionButton
        label="Drop the check"
        kind="quiet"
        onPress={() => (draft.rounds.length === 0 && draft.entry.text === '' ? drop() : setAsking(true))}
        testID="drop-check"
      />
      <Prompt
        open={asking}
        title={`Drop the check of ${draft.machineName}?`}
        text="Its readings stay in the book, but the check counts as not done and the next date stays as it is."
        confirm="Drop it"
        cancel="Go on"
        onConfirm={drop}
        onCancel={() => setAsking(false)}
      />
    </>
  );
}
