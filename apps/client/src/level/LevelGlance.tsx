import type { MachineOverview } from '@even-bed/contract';
import { levelRangeWords, levelWayWords, lookReasonWords } from '@even-bed/words/levels';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { shortDate } from '../ui/formatTime';
import { currentManner } from '../ui/manner';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { useLevelsQuery } from './noteApi';

/** On a machine's page: how it was levelled last, whether something asks to look again, and the way to all of it. */
export function LevelGlance({ machine, now }: { machine: MachineOverview; now: number }) {
  const { data } = useLevelsQuery({ id: machine.id });
  const router = useRouter();
  const printing = usePrinting();
  if (!data || (data.items.length === 0 && printing)) return null;
  const [last] = data.items;
  const { reasons } = data.again;
  return (
    <Section
      title="ITS LEVEL"
      testID="level-glance"
      folded={reasons.length > 0 ? 'look again' : last ? shortDate(last.at, now) : 'none yet'}
      open={reasons.length > 0}
    >
      {reasons.map(({ why, at }) => (
        <View key={why} style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
          <Signal kind="due" />
          <View style={{ flex: 1 }}>
            <Words bold>{`Look again: ${lookReasonWords(why)}, ${shortDate(at, now)}.`}</Words>
          </View>
        </View>
      ))}
      <Row href={`/floor/${machine.id}/level`} testID="to-levels">
        <Words bold>Its level over time</Words>
        <Words size="small" tone="steel">
          {last
            ? `Last ${levelWayWords(last.way)}, ${shortDate(last.at, now)}: ${levelRangeWords(last, currentManner())}`
            : 'Nothing yet.'}
        </Words>
      </Row>
      {printing ? null : (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
          {machine.family === 'filament' ? (
            <ActionButton
              label="Trim by a skirt"
              kind="quiet"
              onPress={() => router.push(`/tools/skirt?machine=${machine.id}`)}
              testID="to-skirt"
            />
          ) : (
            <ActionButton
              label="First gap"
              kind="quiet"
              onPress={() => router.push(`/tools/gap?machine=${machine.id}`)}
              testID="to-gap"
            />
          )}
        </View>
      )}
    </Section>
  );
}
