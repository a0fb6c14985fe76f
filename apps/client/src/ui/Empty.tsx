import type { ReactNode } from 'react';
import { View } from 'react-native';
import { SPACE } from './theme';
import { Words } from './Words';

/** An empty room: what is not there, and what to do first. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <View style={{ paddingVertical: SPACE.xl, gap: SPACE.m }}>
      <Words size="lead" bold>
        {title}
      </Words>
      {typeof children === 'string' ? <Words tone="steel">{children}</Words> : children}
    </View>
  );
}
