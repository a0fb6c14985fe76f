import { View } from 'react-native';
import { usePalette } from './theme';
import { Words } from './Words';

/** Names with what they stand for, a line each. */
export function Facts({ rows }: { rows: readonly (readonly [name: string, value: string])[] }) {
  const palette = usePalette();
  return rows.map(([name, value]) => (
    <View
      key={name}
      style={{
        flexDirection: 'row',
        gap: 12,
        paddingVertical: 8,
        borderBottomWidth: 1,
        borderBottomColor: palette.hairline,
      }}
    >
      <View style={{ width: 124 }}>
        <Words tone="steel" size="small">
          {name}
        </Words>
      </View>
      <View style={{ flex: 1 }}>
        <Words>{value}</Words>
      </View>
    </View>
  ));
}
