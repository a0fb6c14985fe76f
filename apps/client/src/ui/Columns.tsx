import type { ReactNode } from 'react';
import { View } from 'react-native';
import { SPACE, useHasTwoColumns } from './theme';
import { usePrinting } from './usePrinting';

interface Props {
  left: ReactNode;
  right: ReactNode;
  /** How much wider the right one is. */
  share?: number;
}

/** Two columns where there is room for them, as on a tablet held upright; one after the other on a phone. */
export function Columns({ left, right, share = 1 }: Props) {
  const room = useHasTwoColumns();
  const printing = usePrinting();
  const side = room && !printing;
  const column = { gap: SPACE.m, minWidth: 0 };
  return (
    <View style={side ? { flexDirection: 'row', gap: 32, alignItems: 'flex-start' } : { gap: SPACE.m }}>
      <View style={side ? { ...column, flex: 1 } : column}>{left}</View>
      <View style={side ? { ...column, flex: share } : column}>{right}</View>
    </View>
  );
}
