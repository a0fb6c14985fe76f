import { View } from 'react-native';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { useKeptWord } from '../ui/deviceSwitch';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';

const FIRST = [
  ['/floor', 'Open a machine on the floor', 'Whether it is ready to print, and if not, why.'],
  [
    '/tools/feel',
    'Level with a slip of paper',
    'Five keys for how it feels, and which screw to turn how far. Nothing is recorded.',
  ],
  ['/jobs', 'Look through the jobs', 'Fitting a sheet, curing, cleaning, freeing a print: step by step.'],
] as const;

/** Three things for somebody who has never been here, until they put them away. */
export function TryFirst() {
  const person = useAppSelector((state) => state.people.person);
  const [closed, close] = useKeptWord(`try-first ${person?.id ?? ''}`);
  if (!person || closed !== null) return null;
  return (
    <Section title="NEW HERE? TRY ONE OF THESE" testID="try-first">
      {FIRST.map(([href, what, why]) => (
        <Row key={href} href={href}>
          <Words bold>{what}</Words>
          <Words size="small" tone="steel">
            {why}
          </Words>
        </Row>
      ))}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton label="Close" kind="quiet" onPress={() => close('closed')} testID="try-first-close" />
      </View>
    </Section>
  );
}
