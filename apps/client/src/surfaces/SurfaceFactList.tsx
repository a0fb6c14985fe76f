import type { Surface } from '@even-bed/contract';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { useAppSelector } from '../state/store';
import { area, decimal, size } from '../ui/formatHeight';
import { ActionButton } from '../ui/ActionButton';
import { shortDate } from '../ui/formatTime';
import { Facts } from '../ui/Facts';
import { Section } from '../ui/Section';

/** What the shop has written down of a surface. */
export function SurfaceFactList({ surface, now }: { surface: Surface; now: number }) {
  const router = useRouter();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const { kind, width, depth, thickness, boughtAt, price, note, prints } = surface;
  const facts: [string, string][] = [
    ['Size', area(width, depth)],
    ['Thickness', thickness === null ? `${size(kind.thickness)}, nominal` : `${size(thickness)}, measured`],
    ['Prints in all', prints === 0 ? 'none yet' : String(prints)],
    ...(boughtAt ? [['Bought', shortDate(boughtAt, now)] as [string, string]] : []),
    ...(price !== null
      ? [
          ['Price', prints > 0 ? `${price}, ${decimal(price / prints, 2)} a print so far` : String(price)] as [
            string,
            string,
          ],
        ]
      : []),
    ...(note ? [['Note', note] as [string, string]] : []),
  ];
  return (
    <Section title="FACTS">
      <Facts rows={facts} />
      <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap' }}>
        {mayDo ? (
          <ActionButton
            label="Edit facts"
            icon="edit"
            onPress={() => router.push(`/rack/${surface.id}/edit`)}
            testID="edit-surface"
          />
        ) : null}
        <ActionButton
          label="Label"
          icon="label"
          onPress={() => router.push(`/labels?tags=${surface.tag}`)}
          testID="to-label"
        />
      </View>
    </Section>
  );
}
