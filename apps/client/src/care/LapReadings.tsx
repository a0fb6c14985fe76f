import { lapOf } from '@even-bed/core/care/jobSum';
import type { ProcedureStep } from '@even-bed/core/care/procedure';
import { LAP_PLACES, type LapPlace } from '@even-bed/core/level/lapProgress';
import { lapWords } from '@even-bed/words/shape';
import { View } from 'react-native';
import { ScratchKeys } from '../ui/ScratchKeys';
import { currentManner } from '../ui/manner';
import { Words } from '../ui/Words';
import type { CardInHand } from './useCard';

/** What a round of lapping has touched, part by part, and what all rounds say together. */
export function LapReadings({ step, hand }: { step: ProcedureStep; hand: CardInHand }) {
  const touched = Object.fromEntries(
    LAP_PLACES.flatMap((place) => {
      const reading = step.readings!.find(({ id }) => id === place)!;
      const text = hand.text(step, reading);
      return text === '' ? [] : [[place, Number(text)]];
    }),
  ) as Partial<Record<LapPlace, number>>;
  const whole = LAP_PLACES.every((place) => touched[place] !== undefined);
  const progress = whole ? lapOf(hand.ahead, step) : null;
  const said = progress && lapWords(progress, currentManner());
  const error = LAP_PLACES.some((place) => hand.refusal?.fields[`${step.id}.readings.${place}`] !== undefined);
  return (
    <View style={{ gap: 12 }}>
      <ScratchKeys touched={touched} onTouched={(place, value) => hand.read(step.id, place, String(value))} />
      {error ? (
        <Words tone="stop" live>
          Look at all five parts first.
        </Words>
      ) : null}
      {said ? (
        <View style={{ gap: 4 }}>
          <Words size="turn" bold live tone={progress.verdict === 'doming' ? 'stop' : 'ink'} testID="lap-sum">
            {said.verdict}
          </Words>
          <Words tone="steel">{said.next}</Words>
        </View>
      ) : null}
    </View>
  );
}
