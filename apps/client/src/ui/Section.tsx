import { useState, type ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { Icon } from './Icon';
import { SPACE, TOUCH, useIsWide, usePalette } from './theme';
import { usePrinting } from './usePrinting';
import { Words } from './Words';

interface Props {
  title: string;
  children: ReactNode;
  testID?: string;
  /** On a phone the part is folded, and this much of it said beside its name. */
  folded?: string;
  /** Folded, but open to begin with. */
  open?: boolean;
}

/** Parts that were opened or folded since the app was loaded, by name: a person's usual ones stay as they were left. */
const left = new Map<string, boolean>();

/** A part of a page under a small heading. */
export function Section({ title, children, testID, folded, open = false }: Props) {
  const palette = usePalette();
  const wide = useIsWide();
  const printing = usePrinting();
  const name = testID ?? title;
  const [shown, setShown] = useState(left.get(name) ?? open);
  if (folded === undefined || wide || printing)
    return (
      <View style={{ gap: SPACE.s }} testID={testID}>
        <Words size="small" bold tone="steel" heading={2}>
          {title}
        </Words>
        {children}
      </View>
    );
  const turn = () => {
    left.set(name, !shown);
    setShown(!shown);
  };
  return (
    <View style={{ gap: SPACE.s, borderTopWidth: 1, borderTopColor: palette.hairline }} testID={testID}>
      <View role="heading" aria-level={2}>
        <Pressable
          role="button"
          aria-expanded={shown}
          onPress={turn}
          testID={testID ? `${testID}-fold` : undefined}
          style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: TOUCH }}
        >
          <View style={{ flexShrink: 1 }}>
            <Words size="small" bold tone="steel">
              {title}
            </Words>
          </View>
          <View style={{ flex: 1, minWidth: 110 }}>
            {shown ? null : (
              <Words size="small" align="right">
                {folded}
              </Words>
            )}
          </View>
          <Icon name={shown ? 'up' : 'down'} size={20} color={palette.steel} />
        </Pressable>
      </View>
      {shown ? <View style={{ gap: SPACE.s, paddingBottom: SPACE.m }}>{children}</View> : null}
    </View>
  );
}
