import type { RoundComparison } from '@even-bed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { useChangeMachine } from '../fleet/useChangeMachine';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Notice } from '../ui/Notice';
import { Words } from '../ui/Words';
import { heightsTaken, type CheckDraft } from './levelSlice';
import { answerWords } from './planWords';
import { useTurnKnobsOver } from './useTurnKnobsOver';

interface Props {
  draft: CheckDraft;
  comparison: RoundComparison;
  /** The technician says that nothing is turned over. */
  onKeep: () => void;
}

/** The bed moved the opposite way: says what may be turned over, and turns it over. */
export function ReversedAnswer({ draft, comparison, onKeep }: Props) {
  const dispatch = useAppDispatch();
  const { machine, change, busy } = useChangeMachine(draft.machineId);
  const turnKnobsOver = useTurnKnobsOver(draft);
  const [problem, setProblem] = useState<string | null>(null);
  const round = draft.rounds.at(-1)!;
  const words = answerWords(comparison)!;
  const plus = (round.reading.plus ?? 'higher') === 'higher' ? 'lower' : 'higher';

  /** The same text read the other way is a new reading: what was measured stays as it was. */
  const turnSignOver = async () => {
    const { source, raw, range, reading } = round;
    dispatch(
      heightsTaken({
        id: draft.id,
        round: { id: uuid(), takenAt: Date.now(), source, raw, range, reading: { ...reading, plus } },
      }),
    );
    if (source !== 'typed' && source !== 'felt') setProblem(await change({ plus }));
  };

  return (
    <Notice kind="stop" title={words.title} testID="reversed-answer">
      <Words>{words.text}</Words>
      <View style={{ gap: 10, paddingTop: 6 }}>
        <ActionButton
          label={`+ means ${plus} in these heights`}
          onPress={() => void turnSignOver()}
          busy={busy}
          testID="turn-sign-over"
        />
        <ActionButton
          label="The knobs turn the other way"
          disabled={!machine}
          onPress={() => void turnKnobsOver().then(setProblem)}
          testID="turn-knobs-over"
        />
        <ActionButton label="Neither: show the turns" kind="quiet" onPress={onKeep} testID="keep-senses" />
      </View>
      <Words size="small" tone="steel">
        Not sure? Turn one knob clockwise and watch that corner: it settles which. Either is written down for this
        machine.
      </Words>
      {problem ? <Words tone="stop">{problem}</Words> : null}
    </Notice>
  );
}
