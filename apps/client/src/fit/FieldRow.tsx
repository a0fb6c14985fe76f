import type { ReactNode } from 'react';
import { View } from 'react-native';

/** Fields side by side, under each other where there is no room. */
export function FieldRow({ children }: { children: ReactNode }) {
  return <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start' }}>{children}</View>;
}
