import type { ReactNode } from 'react';
import { View } from 'react-native';
import { SPACE } from './theme';
import { Words } from './Words';

/** A part of a page under a small heading. */
export function Section({ title, children, testID }: { title: string; children: ReactNode; testID?: string }) {
  return (
    <View style={{ gap: SPACE.s }} testID={testID}>
      <Words size="small" bold tone="steel" heading={2}>
        {title}
      </Words>
      {children}
    </View>
  );
}
