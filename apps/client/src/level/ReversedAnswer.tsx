import type { MachineFacts } from '@even-bed/contract';
import type { RoundComparison } from '@even-bed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachineQuery, useSaveMachineMutation } from '../fleet/fleetApi';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Notice } from '../ui/Notice';
import { Words } from '../ui/Words';
import { heightsTaken, type CheckDraft } from './levelSlice';
import { answerWords } from './planWords';
import { useTurnKnobsOver } from './useTurnKnobsOver';

/** The bed moved the opposite way: says what may be turned over, and turns it over. */
export function ReversedAnswer({ draft, comparison }: { draft: CheckDraft; comparison: RoundComparison }) {
  const dispatch = useAppDispatch();
  const { data: machine } = useMachineQuery(draft.machineId);
  const [saveMachine, { isLoading }] = useSaveMachineMutation();
  const turnKnobsOver = useTurnKnobsOver(draft, machine);
  const [problem, setProblem] = useState<string | null>(null);
  const round = draft.rounds.at(-1)!;
  const words = answerWords(comparison)!;
  const plus = (round.reading.plus ?? 'higher') === 'higher' ? 'lower' : 'higher';

  /** The same text read the other way is a new reading: what was measured stays as it was. */
  const turnSignOver = async () => {
    dispatch(
      heightsTaken({
        id: draft.id,
        round: {
          id: uuid(),
          takenAt: Date.now(),
          source: round.source,
          raw: round.raw,
          reading: { ...round.reading, plus },
        },
      }),
    );
    if (!machine || round.source === 'typed') return;
    const result = await saveMachine({
      id: machine.id,
      key: uuid(),
      body: { ...factsOf(machine), plus, version: machine.version, at: Date.now() },
    });
    const failure = errorOf(result.error);
    if (failure) setProblem(failure.message);
  };

  return (
    <Notice kind="stop" title={words.title} testID="reversed-answer">
      <Words>{words.text}</Words>
      <View style={{ gap: 10, paddingTop: 6 }}>
        <ActionButton
          label={`+ means ${plus} in these heights`}
          onPress={() => void turnSignOver()}
          busy={isLoading}
          testID="turn-sign-over"
        />
        <ActionButton
          label="The knobs turn the other way"
          disabled={!machine}
          onPress={() => void turnKnobsOver().then(setProblem)}
          testID="turn-knobs-over"
        />
      </View>
      <Words size="small" tone="steel">
        Not sure? Turn one knob clockwise and watch that corner: it settles which. Either is written down for this
        machine.
      </Words>
      {problem ? <Words tone="stop">{problem}</Words> : null}
    </Notice>
  );
}

/** A machine as its facts alone. */
export function factsOf(machine: MachineFacts): MachineFacts {
  const {
    name,
    areaId,
    shelf,
    model,
    family,
    plateWidth,
    plateDepth,
    printWidth,
    printDepth,
    originX,
    originY,
    adjusters,
    seenFrom,
    compensation,
    firstLayer,
    aim,
    finding,
    plus,
    mapExtent,
    mapFirstRow,
    console: address,
    note,
  } = machine;
  return {
    name,
    areaId,
    shelf,
    model,
    family,
    plateWidth,
    plateDepth,
    printWidth,
    printDepth,
    originX,
    originY,
    adjusters,
    seenFrom,
    compensation,
    firstLayer,
    aim,
    finding,
    plus,
    mapExtent,
    mapFirstRow,
    console: address,
    note,
  };
}
