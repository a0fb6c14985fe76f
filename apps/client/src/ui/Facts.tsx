import { View } from 'react-native';
import { usePalette } from './theme';
import { withType } from './typeScale';
import { Words } from './Words';

/** Names with what they stand for, a line each. */
export function Facts({ rows }: { rows: readonly (readonly [name: string, value: string])[] }) {
  const palette = usePalette();
  return rows.map(([name, value]) => (
    <View
      key={name}
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        columnGap: 12,
        paddingVertical: 8,
        borderBottomWidth: 1,
        borderBottomColor: palette.hairline,
      }}
    >
      <View style={{ width: withType(124) }}>
        <Words tone="steel" size="small">
          {name}
        </Words>
      </View>
      <View style={{ flexGrow: 1, flexShrink: 1, flexBasis: withType(140) }}>
        <Words>{value}</Words>
      </View>
    </View>
  ));
}
