import { Slot, usePathname } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { BrokenView } from '../ui/CrashGuard';
import { PaneContext, useIsWide, usePalette } from '../ui/theme';

const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

interface Props {
  /** Address of the room. */
  root: '/rack' | '/book';
  /** px */
  width: number;
  /** What the list is, for readers that speak. */
  says: string;
  list: (selectedId: string | null) => ReactNode;
}

/** A room whose list stays where it is on a wide screen, with its search and its place, while records change beside it. */
export function ListAndPage({ root, width, says, list }: Props) {
  const wide = useIsWide();
  const palette = usePalette();
  const pathname = usePathname();
  const rest = pathname.slice(root.length + 1);
  const beside = wide && (rest === '' || ID.test(rest));
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      {beside ? (
        <View
          key="list"
          role="complementary"
          aria-label={says}
          style={{ width, borderRightWidth: 1, borderRightColor: palette.hairline }}
        >
          <PaneContext.Provider value>{list(rest === '' ? null : rest)}</PaneContext.Provider>
        </View>
      ) : null}
      <View key="page" style={{ flex: 1 }}>
        <Slot unstable_screenErrorBoundary={BrokenView} />
      </View>
    </View>
  );
}
