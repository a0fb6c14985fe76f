import type { ReactNode } from 'react';
import { Text, type StyleProp, type TextStyle } from 'react-native';
import { FAMILY, TYPE, usePalette, type Palette } from './theme';

interface Props {
  children: ReactNode;
  size?: keyof typeof TYPE;
  bold?: boolean;
  /** Which ink: a name of the palette. */
  tone?: Exclude<keyof Palette, 'dark'>;
  /** Figures of one width, for numbers under each other. */
  figures?: boolean;
  /** Level of a heading, for readers that speak. */
  heading?: 1 | 2 | 3;
  align?: 'left' | 'center' | 'right';
  style?: StyleProp<TextStyle>;
  testID?: string;
  /** For what it describes. */
  id?: string;
  /** Announce changes to readers that speak. */
  live?: boolean;
}

/** All text of the app: one family, the sizes of the theme, at least 4.5:1. */
export function Words({
  children,
  size = 'body',
  bold,
  tone = 'ink',
  figures,
  heading,
  align,
  style,
  testID,
  id,
  live,
}: Props) {
  const palette = usePalette();
  return (
    <Text
      testID={testID}
      id={id}
      role={heading ? 'heading' : undefined}
      aria-level={heading}
      aria-live={live ? 'polite' : undefined}
      style={[
        {
          fontFamily: bold ? FAMILY.bold : FAMILY.regular,
          fontSize: TYPE[size],
          lineHeight: Math.round(TYPE[size] * 1.35),
          color: palette[tone] as string,
        },
        figures && { fontVariant: ['tabular-nums'] },
        align && { textAlign: align },
        style,
      ]}
    >
      {children}
    </Text>
  );
}
