import type { CareItem, SurfaceKind, Verdict } from '@even-bed/contract';
import { View } from 'react-native';
import { useRouter } from 'expo-router';
import { ActionButton } from '../ui/ActionButton';
import { temperature } from '../ui/formatHeight';
import { Section } from '../ui/Section';
import { Signal, type SignalKind } from '../ui/Signal';
import { Words } from '../ui/Words';
import { CARE_NAMES } from './surfaceWords';

const VERDICTS: { verdict: Verdict; signal: SignalKind; words: string }[] = [
  { verdict: 'yes', signal: 'ready', words: 'Takes' },
  { verdict: 'care', signal: 'due', words: 'With care' },
  { verdict: 'no', signal: 'stop', words: 'Never' },
];

/** What may touch a surface of this kind, and what may not. */
export function CareList({ kind }: { kind: SurfaceKind }) {
  const router = useRouter();
  const items = Object.entries(kind.care) as [CareItem, Verdict][];
  if (items.length === 0 && kind.limit === null) return null;
  return (
    <Section title="WHAT IT STANDS" testID="care">
      {VERDICTS.map(({ verdict, signal, words }) => {
        const names = items.filter(([, known]) => known === verdict).map(([item]) => CARE_NAMES[item]);
        return names.length === 0 ? null : (
          <View key={verdict} style={{ flexDirection: 'row', gap: 12 }}>
            <View style={{ width: 116 }}>
              <Signal kind={signal} word={words} />
            </View>
            <View style={{ flex: 1 }}>
              <Words>{names.join(', ')}</Words>
            </View>
          </View>
        );
      })}
      <Words tone="steel" size="small">
        {[
          kind.limit === null ? null : `For hours up to ${temperature(kind.limit)}.`,
          kind.note || null,
          items.some(([item]) => item === 'alcohol' || item === 'acetone')
            ? 'Solvents burn: bed off and cool, no flame, air the room.'
            : null,
        ]
          .filter(Boolean)
          .join(' ')}
      </Words>
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="What goes with it"
          kind="quiet"
          icon="look"
          onPress={() => router.push(`/tools/together?face=${kind.faces[0] ?? ''}&limit=${kind.limit ?? ''}&printed=`)}
          testID="to-together"
        />
      </View>
    </Section>
  );
}
