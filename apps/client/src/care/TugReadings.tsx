import { CORNERS, readTugs, TUGS, tugsFrom, type Corner, type Drag } from '@even-bed/core/level/tugs';
import type { ProcedureReading, ProcedureStep } from '@even-bed/core/care/procedure';
import { cornerWords, tugWords } from '@even-bed/words/tugs';
import { useState } from 'react';
import { View } from 'react-native';
import { KeyRow } from '../ui/KeyRow';
import { TugPlan } from '../ui/TugPlan';
import { Words } from '../ui/Words';
import type { CardInHand } from './useCard';

interface Props {
  step: ProcedureStep;
  hand: CardInHand;
  drag: Drag;
}

/** What each tug is called on its key: short, from loose to too tight. */
const KEYS: Record<(typeof TUGS)[number], { label: string; hint: string }> = {
  'slides out': { label: 'slides', hint: 'out by itself' },
  'comes with effort': { label: 'effort', hint: 'comes, whole' },
  'does not move': { label: 'still', hint: 'stays' },
  tears: { label: 'tears', hint: 'torn' },
  'moves the machine': { label: 'pulls', hint: 'moves it all' },
};

/** Quarter sheets tugged one after another: the plan, the one meant now, five keys; and what they say together. */
export function TugReadings({ step, hand, drag }: Props) {
  const readingOf = (corner: Corner) => step.readings!.find(({ id }) => id === corner)!;
  const values = CORNERS.map((corner) => valueOf(hand, step, readingOf(corner)));
  const open = CORNERS.find((_, i) => values[i] === null) ?? null;
  const [picked, setPicked] = useState<Corner | null>(null);
  const at = picked ?? open;
  const read = values.every((value) => value !== null) ? readTugs(tugsFrom(values), drag) : null;
  const order = read?.order ?? CORNERS;
  const sheets = CORNERS.map((corner, i) => ({
    id: corner,
    name: cornerWords(corner),
    right: corner.endsWith('right'),
    rear: corner.startsWith('rear'),
    felt: values[i] === null ? null : TUGS[values[i]!]!,
    order: order.indexOf(corner) + 1,
    odd: read?.at.includes(corner) ?? false,
  }));
  const error = CORNERS.some((corner) => hand.refusal?.fields[`${step.id}.readings.${corner}`] !== undefined);
  return (
    <View style={{ gap: 12 }}>
      <TugPlan
        sheets={sheets}
        at={at}
        onPick={(id) => setPicked(id as Corner)}
        label="The screen from above, a sheet at each corner"
      />
      <Words size="small" tone="steel">
        Numbers: tighten in this order, a little at a time.
      </Words>
      {at ? (
        <>
          <Words size="lead" bold live testID="tug-now">
            {`${cornerWords(at)[0]!.toUpperCase()}${cornerWords(at).slice(1)}: how does it come?`}
          </Words>
          <KeyRow
            keys={TUGS.map((tug, value) => ({ id: String(value), ...KEYS[tug] }))}
            onPress={(value) => {
              hand.read(step.id, at, value);
              setPicked(null);
            }}
            testID="tug-key"
          />
        </>
      ) : null}
      {error ? (
        <Words tone="stop" live>
          Pull all four first.
        </Words>
      ) : null}
      {read ? (
        <Words size="turn" bold live testID="tugs-sum">
          {tugWords(read)}
        </Words>
      ) : null}
    </View>
  );
}

function valueOf(hand: CardInHand, step: ProcedureStep, reading: ProcedureReading): number | null {
  const text = hand.text(step, reading);
  return text === '' ? null : Number(text);
}
