import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { ActionButton } from './ActionButton';
import { useIsWide } from './theme';

interface Props {
  /** How many of them narrow the list now. */
  count: number;
  children: ReactNode;
  testID: string;
}

/** What narrows a list beside its search: folded on a phone, so that the list begins where it is seen. */
export function Narrowing({ count, children, testID }: Props) {
  const wide = useIsWide();
  const [open, setOpen] = useState(false);
  const parts = (
    <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap', alignItems: 'flex-end' }}>{children}</View>
  );
  if (wide) return parts;
  return (
    <View style={{ gap: 8, marginTop: -8 }}>
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label={`${open ? 'Fold away' : 'Narrow the list'}${count > 0 ? ` · ${count} set` : ''}`}
          kind="quiet"
          onPress={() => setOpen(!open)}
          testID={testID}
        />
      </View>
      {open ? parts : null}
    </View>
  );
}
