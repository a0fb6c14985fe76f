import { Link, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { TOUCH, usePalette } from './theme';

interface Props {
  /** Stands at the left: a signal, a plan. */
  lead?: ReactNode;
  children: ReactNode;
  /** Stands at the right: a number, a time. */
  end?: ReactNode;
  /** Where the row leads. */
  href?: Href;
  selected?: boolean;
  testID?: string;
}

/** One line of a list, parted from the next by a hairline. */
export function Row({ lead, children, end, href, selected, testID }: Props) {
  const palette = usePalette();
  const content = (
    <>
      {lead ? <View style={{ width: 32, alignItems: 'flex-start' }}>{lead}</View> : null}
      <View style={{ flex: 1, gap: 2 }}>{children}</View>
      {end ? <View style={{ alignItems: 'flex-end', flexShrink: 0 }}>{end}</View> : null}
    </>
  );
  const style = {
    flexDirection: 'row' as const,
    alignItems: 'center' as const,
    gap: 12,
    minHeight: TOUCH + 8,
    paddingVertical: 10,
    paddingHorizontal: 4,
    borderBottomWidth: 1,
    borderBottomColor: palette.hairline,
    backgroundColor: selected ? palette.raised : 'transparent',
  };
  if (!href) {
    return (
      <View style={style} testID={testID}>
        {content}
      </View>
    );
  }
  return (
    <Link href={href} asChild>
      <Pressable style={style} testID={testID}>
        {content}
      </Pressable>
    </Link>
  );
}
