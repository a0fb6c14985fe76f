import { View } from 'react-native';
import { usePalette } from './theme';
import { Words } from './Words';

/** A short mark in a frame: a shelf, a tag. */
export function Tag({ children }: { children: string }) {
  const { edge } = usePalette();
  return (
    <View style={{ borderWidth: 1, borderColor: edge, borderRadius: 3, paddingHorizontal: 5 }}>
      <Words size="small">{children}</Words>
    </View>
  );
}
