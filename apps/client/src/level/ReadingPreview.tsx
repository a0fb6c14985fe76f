import type { MatrixNeed, ParseOptions, TurnPlan } from '@even-bed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useChangeMachine } from '../fleet/useChangeMachine';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Figure } from '../ui/Figure';
import { lengthFigure, lengthUnit } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { Words } from '../ui/Words';
import { entryChanged, type CheckDraft } from './levelSlice';
import { PlusChoice } from './PlusChoice';
import { ReadingPlace } from './ReadingPlace';
import { ReadingQuestions } from './ReadingQuestions';
import { ReadingWarnings } from './ReadingWarnings';
import { SettleSign } from './SettleSign';
import type { ReckoningState } from './useReckoning';

const NEEDS: Record<MatrixNeed, string> = {
  extent: 'the four places of its outermost readings',
  firstRow: 'where its first row lies',
};

/** What was understood of the heights, what is still to be said, and what is doubtful. */
export function ReadingPreview({ draft, state }: { draft: CheckDraft; state: ReckoningState }) {
  const dispatch = useAppDispatch();
  const { id, entry } = draft;
  const [asked, setAsked] = useState(false);
  const setReading = (reading: ParseOptions) => dispatch(entryChanged({ id, change: { reading } }));
  if (state.kind === 'none') return null;
  if (state.kind === 'busy') return <Words tone="steel">Reading …</Words>;
  if (state.kind === 'failed') {
    return (
      <Notice kind="stop" title="No heights yet" testID="reading-failed">
        {state.message}
      </Notice>
    );
  }
  const { parsed, plan, contours, doubts, ways } = state.reckoning;
  return (
    <View style={{ gap: 16 }} testID="reading-preview">
      {parsed.matrix && (parsed.needs.length > 0 || entry.reading.extent || entry.reading.firstRow) ? (
        <ReadingPlace reading={entry.reading} matrix={parsed.matrix} onChange={setReading}>
          <Remember draft={draft} />
        </ReadingPlace>
      ) : null}
      {parsed.needs.length > 0 ? (
        <Words bold testID="still-to-say">
          {`Still to say: ${parsed.needs.map((need) => NEEDS[need]).join(' and ')}.`}
        </Words>
      ) : null}
      {plan ? (
        <>
          <View style={{ flexDirection: 'row', gap: 28, flexWrap: 'wrap' }}>
            <Figure label="Readings" value={String(parsed.points.length)} testID="preview-count" />
            <Figure label="Range" value={lengthFigure(plan.before.range)} unit={lengthUnit()} testID="preview-range" />
            {parsed.unreached > 0 ? <Figure label="Not reached" value={String(parsed.unreached)} /> : null}
          </View>
          <BedPlan
            plate={draft.plate}
            points={parsed.points}
            contours={contours}
            aim={draft.setup.aim}
            maxHeight={260}
            label="The heights as they were read"
          />
        </>
      ) : null}
      {entry.way === 'typed' || entry.way === 'felt' ? null : (
        <>
          <PlusChoice
            value={entry.reading.plus ?? 'higher'}
            onChange={(plus) => setReading({ ...entry.reading, plus })}
          />
          {plan ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton label="Not sure: settle it" kind="quiet" onPress={() => setAsked(true)} testID="settle" />
            </View>
          ) : null}
          {asked && plan ? (
            <SettleSign
              points={parsed.points}
              plus={entry.reading.plus ?? 'higher'}
              onSettled={(plus) => setReading({ ...entry.reading, plus })}
              onClose={() => setAsked(false)}
            />
          ) : null}
        </>
      )}
      <ReadingQuestions
        reading={entry.reading}
        parsed={parsed}
        ways={ways && ways.map((way) => ({ ...way, follows: way.plan ? consequence(way.plan) : null }))}
        plate={draft.plate}
        aim={draft.setup.aim}
        onChange={setReading}
      />
      <ReadingWarnings parsed={parsed} doubts={doubts} />
    </View>
  );
}

/** Writes where this machine's maps lie on its page, so that nobody is asked again. */
function Remember({ draft }: { draft: CheckDraft }) {
  const { machine, change, busy } = useChangeMachine(draft.machineId);
  const [problem, setProblem] = useState<string | null>(null);
  const { extent, firstRow } = draft.entry.reading;
  if (!machine || !extent || !firstRow) return null;
  const known = JSON.stringify([machine.mapExtent, machine.mapFirstRow]) === JSON.stringify([extent, firstRow]);
  if (known) return <Words size="small" tone="steel" testID="map-known">{`Written down for ${machine.name}.`}</Words>;
  return (
    <View style={{ alignSelf: 'flex-start', gap: 4 }}>
      <ActionButton
        label={`Remember this for ${machine.name}`}
        busy={busy}
        onPress={() => void change({ mapExtent: extent, mapFirstRow: firstRow }).then(setProblem)}
        testID="remember-map"
      />
      {problem ? <Words tone="stop">{problem}</Words> : null}
    </View>
  );
}

/** What a way of reading would lead to. */
function consequence({ verdict, before, turns }: TurnPlan): string {
  const count = turns.filter(({ said }) => said !== 0).length;
  const range = `range ${lengthFigure(before.range)} ${lengthUnit()}`;
  if (verdict === 'within') return `${range}: within, nothing to turn`;
  return `${range}: ${count} ${count === 1 ? 'turn' : 'turns'}`;
}
