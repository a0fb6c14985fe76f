import { piecesOf, type JobFacts } from '@even-bed/core/care/jobSum';
import type { ProcedureStep } from '@even-bed/core/care/procedure';
import { piecesWords } from '@even-bed/words/pieces';
import { View } from 'react-native';
import { PieceGrid } from '../ui/PieceGrid';
import { Words } from '../ui/Words';
import type { CardInHand } from './useCard';

interface Props {
  step: ProcedureStep;
  hand: CardInHand;
  facts: JobFacts | null;
}

const COLUMNS = 3;

/** Nine thin pieces by place: a tap on each goes from held to loose to failed; and what they say together. */
export function PieceReadings({ step, hand, facts }: Props) {
  const readings = step.readings!;
  const pieces = readings.map((reading) => {
    const text = hand.text(step, reading);
    const look = text === '' ? null : (reading.options![Number(text)]?.label ?? null);
    return { id: reading.id, name: reading.label, look, good: text === '0' };
  });
  const read = facts ? piecesOf(hand.ahead, step, facts) : null;
  const missing = readings.some(({ id }) => hand.refusal?.fields[`${step.id}.readings.${id}`] !== undefined);
  return (
    <View style={{ gap: 12 }}>
      <PieceGrid
        pieces={pieces}
        columns={COLUMNS}
        label="The platform from above, a piece at each of nine places"
        onPress={(id) => {
          const reading = readings.find((one) => one.id === id)!;
          const now = hand.text(step, reading);
          hand.read(step.id, id, now === '' ? '0' : String((Number(now) + 1) % reading.options!.length));
        }}
      />
      <Words size="small" tone="steel">
        A tap: held, once more: loose, once more: failed.
      </Words>
      {missing ? (
        <Words tone="stop" live>
          Look at all nine first.
        </Words>
      ) : null}
      {read ? (
        <Words size="turn" bold live testID="pieces-sum">
          {piecesWords(read)}
        </Words>
      ) : null}
    </View>
  );
}
