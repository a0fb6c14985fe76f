import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Signal, type SignalKind } from './Signal';
import { usePalette } from './theme';
import { Words } from './Words';

interface Props {
  kind: SignalKind;
  title: string;
  children?: ReactNode;
  testID?: string;
}

/** Something to know before going on, with a bar in its signal's colour and its shape. */
export function Notice({ kind, title, children, testID }: Props) {
  const palette = usePalette();
  const wash = kind === 'stop' ? palette.stopWash : kind === 'due' ? palette.dueWash : palette.raised;
  return (
    <View
      testID={testID}
      role={kind === 'stop' ? 'alert' : 'status'}
      style={{
        backgroundColor: wash,
        borderLeftWidth: 5,
        borderLeftColor: palette[kind],
        padding: 12,
        paddingLeft: 14,
        gap: 6,
      }}
    >
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
        <Signal kind={kind} />
        <View style={{ flexShrink: 1 }}>
          <Words bold>{title}</Words>
        </View>
      </View>
      {typeof children === 'string' ? <Words>{children}</Words> : children}
    </View>
  );
}
