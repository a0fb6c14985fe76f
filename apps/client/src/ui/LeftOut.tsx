import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { RADIUS, usePalette } from './theme';
import { useLeftOut } from './useSteadyTap';
import { Words } from './Words';

/** How long it stands, ms. */
const STANDS = 1_800;

/** Says for a moment that a tap was left out; it covers nothing that can be tapped and moves nothing. */
export function LeftOut() {
  const palette = usePalette();
  const at = useLeftOut();
  const [over, setOver] = useState(0);
  useEffect(() => {
    if (at === 0) return undefined;
    const timer = setTimeout(() => setOver(at), STANDS);
    return () => clearTimeout(timer);
  }, [at]);
  if (at === 0 || over === at) return null;
  return (
    <View
      role="status"
      testID="left-out"
      pointerEvents="none"
      style={{ position: 'absolute', top: 12, left: 0, right: 0, alignItems: 'center', zIndex: 10 }}
    >
      <View style={{ backgroundColor: palette.ink, borderRadius: RADIUS, paddingVertical: 8, paddingHorizontal: 14 }}>
        <Words size="small" tone="paper">
          The second tap was ignored: it came too soon.
        </Words>
      </View>
    </View>
  );
}
