import { View } from 'react-native';
import { RADIUS, usePalette } from './theme';
import { Words } from './Words';

/** The mark at a plan's front edge. */
export function FrontEdge() {
  const palette = usePalette();
  return (
    <View
      style={{
        backgroundColor: palette.ink,
        paddingHorizontal: 12,
        borderBottomLeftRadius: RADIUS,
        borderBottomRightRadius: RADIUS,
      }}
    >
      <Words size="small" bold tone="paper">
        FRONT
      </Words>
    </View>
  );
}
