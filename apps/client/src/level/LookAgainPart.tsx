import type { LookAgain } from '@even-bed/core';
import { driftWords, lookReasonWords } from '@even-bed/words/levels';
import { View } from 'react-native';
import { shortDate } from '../ui/formatTime';
import { currentManner } from '../ui/manner';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';

/** When to look at a level again: what has happened since, and what its own drift says, where checks can show one. */
export function LookAgainPart({ again, drifts }: { again: LookAgain; drifts: boolean }) {
  const now = useNow();
  return (
    <Section title="WHEN TO LOOK AGAIN" testID="look-again">
      {again.reasons.length === 0 ? <Words>Nothing asks for it now.</Words> : null}
      {again.reasons.map(({ why, at }) => (
        <View key={why} style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }} testID={`again-${why}`}>
          <Signal kind="due" />
          <View style={{ flex: 1 }}>
            <Words bold>{`Now: ${lookReasonWords(why)}, ${shortDate(at, now)}.`}</Words>
          </View>
        </View>
      ))}
      {drifts ? (
        <Words size="small" tone="steel" testID="drift">
          {again.next
            ? `${driftWords(again, currentManner())} The next ${shortDate(again.next.at, now)}.`
            : driftWords(again, currentManner())}
        </Words>
      ) : null}
    </Section>
  );
}
