import { Link, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { Icon } from './Icon';
import { TOUCH, usePalette } from './theme';
import { withType } from './typeScale';
import { usePrinting } from './usePrinting';
import { Words } from './Words';

interface Props {
  /** Stands at the left: a signal, a plan. */
  lead?: ReactNode;
  children: ReactNode;
  /** Stands at the right: a number, a time. */
  end?: ReactNode;
  /** Where the row leads. */
  href?: Href;
  /** Opens or closes more of it, where it leads nowhere. */
  onPress?: (() => void) | undefined;
  selected?: boolean;
  /** A second way at the right end, apart from the row's own. */
  aside?: { href: Href; label: string; says: string };
  testID?: string;
}

/** One line of a list, parted from the next by a hairline. */
export function Row({ lead, children, end, href, onPress, selected, aside, testID }: Props) {
  const palette = usePalette();
  const printing = usePrinting();
  const content = (
    <>
      {lead ? <View style={{ width: 32, alignItems: 'flex-start' }}>{lead}</View> : null}
      {/* What stands at the right end goes below where the words would have no room for a long one. */}
      <View style={{ flex: 1, flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 12, rowGap: 2 }}>
        <View style={{ flexGrow: 1, flexShrink: 1, flexBasis: withType(140), gap: 2 }}>{children}</View>
        {end ? <View style={{ alignItems: 'flex-end', marginLeft: 'auto' }}>{end}</View> : null}
      </View>
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
  const second = aside ? (
    <Link href={aside.href} asChild>
      <Pressable
        aria-label={aside.says}
        style={{
          minHeight: TOUCH,
          minWidth: TOUCH,
          flexDirection: 'row',
          alignItems: 'center',
          justifyContent: 'flex-end',
        }}
      >
        <Words size="small" tone="steel" figures>
          {aside.label}
        </Words>
        <Icon name="next" size={18} color={palette.steel} />
      </Pressable>
    </Link>
  ) : null;
  const own = second ? { ...style, borderBottomWidth: 0, flex: 1 } : style;
  const main = href ? (
    <Link href={href} asChild>
      <Pressable style={own} testID={testID}>
        {content}
      </Pressable>
    </Link>
  ) : onPress && !printing ? (
    // What stands at its right end may be pressed too, so only the words are the button.
    <View style={own}>
      <Pressable onPress={onPress} role="button" testID={testID} style={{ flex: 1, flexDirection: 'row', gap: 12 }}>
        {lead ? <View style={{ width: 32, alignItems: 'flex-start' }}>{lead}</View> : null}
        <View style={{ flex: 1, gap: 2 }}>{children}</View>
      </Pressable>
      {end ?? null}
    </View>
  ) : (
    <View style={own} testID={testID}>
      {content}
    </View>
  );
  if (!second) return main;
  return (
    <View style={{ flexDirection: 'row', borderBottomWidth: 1, borderBottomColor: palette.hairline }}>
      {main}
      {second}
    </View>
  );
}
