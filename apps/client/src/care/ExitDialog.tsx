import type { CardExit } from '@even-bed/core/care/runCard';
import { useState } from 'react';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { Words } from '../ui/Words';
import type { CardInHand } from './useCard';

interface Props {
  open: boolean;
  hand: CardInHand;
  onClose: () => void;
}

/** What is in the way, each leading to where it is put right; or the end, with a reason. */
export function ExitDialog({ open, hand, onClose }: Props) {
  const [note, setNote] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  // Other answers stand on the card itself; while hands are full they wait here.
  const exits = hand.card.bound ? hand.exits : hand.exits.filter(({ kind }) => kind === 'cant');
  return (
    <DialogFrame open={open} title="What is in the way?" onClose={onClose} testID="cant-dialog">
      <Field label="A note, if it helps" value={note} onChange={setNote} testID="cant-note" />
      {exits.map((exit, i) => (
        <ActionButton
          key={exit.label}
          label={exit.label}
          onPress={() => {
            onClose();
            hand.leave(exit, note);
          }}
          testID={exitId(exit, i)}
        />
      ))}
      <ActionButton
        label="End the job here"
        kind="quiet"
        onPress={() => {
          const refusal = hand.stop(note);
          if (refusal) setFault(`${refusal.message} Use the note.`);
          else onClose();
        }}
        testID="stop-job"
      />
      {fault ? (
        <Words tone="stop" live>
          {fault}
        </Words>
      ) : null}
      <ActionButton label="Go on with it" kind="quiet" onPress={onClose} />
    </DialogFrame>
  );
}

const exitId = (exit: CardExit, index: number) =>
  exit.kind === 'answer' ? `exit-${exit.answer}` : `exit-${exit.stepId}-${exit.way}-${index}`;
