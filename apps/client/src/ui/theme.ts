import { createContext, useContext } from 'react';
import { useWindowDimensions } from 'react-native';
import type { MD3Theme } from 'react-native-paper';
// By path: the package's own door would bring all of its parts along.
import configureFonts from 'react-native-paper/lib/module/styles/fonts';
import { MD3DarkTheme } from 'react-native-paper/lib/module/styles/themes/v3/DarkTheme';
import { MD3LightTheme } from 'react-native-paper/lib/module/styles/themes/v3/LightTheme';
import { DARK, LIGHT, type Palette } from './palette';
import { withType } from './typeScale';

export const FAMILY = {
  regular: 'AtkinsonHyperlegibleNext_400Regular',
  bold: 'AtkinsonHyperlegibleNext_700Bold',
} as const;

/** Sizes of type: body 16, readings 28 and up, words of a turn 22; larger where the reader's device asks for it. */
export const TYPE = {
  small: withType(14),
  body: withType(16),
  lead: withType(18),
  turn: withType(22),
  title: withType(26),
  reading: withType(30),
};
export const SPACE = { xs: 4, s: 8, m: 16, l: 24, xl: 40 } as const;
/** Least size of anything that a gloved thumb has to hit. */
export const TOUCH = 48;
export const WIDE_FROM = 900;
/** From here on a page has room for two columns. */
export const COLUMNS_FROM = 700;
export const RADIUS = 6;

export const PaletteContext = createContext<Palette>(LIGHT);
export const usePalette = (): Palette => useContext(PaletteContext);
/** Within a list beside a page there is a phone's room, however wide the screen is. */
export const PaneContext = createContext(false);
export function useIsWide(): boolean {
  const { width } = useWindowDimensions();
  const inPane = useContext(PaneContext);
  return width >= WIDE_FROM && !inPane;
}
/** A tablet held upright: room for two of what a phone has one of, but not for a rail and a list. */
export function useHasTwoColumns(): boolean {
  const { width } = useWindowDimensions();
  const inPane = useContext(PaneContext);
  return width >= COLUMNS_FROM && !inPane;
}
/** A phone laid on its side: bars above and below would leave a slit between them. */
export function useOnItsSide(): boolean {
  const { width, height } = useWindowDimensions();
  return width < WIDE_FROM && width > height && height < 500;
}

/** The kit's theme made ours: every colour and every font of it. */
export function paperTheme(palette: Palette): MD3Theme {
  const base = palette.dark ? MD3DarkTheme : MD3LightTheme;
  const fonts = configureFonts({ config: { fontFamily: FAMILY.regular, fontWeight: '400', letterSpacing: 0 } });
  const bold = { fontFamily: FAMILY.bold, fontWeight: '400' as const };
  for (const variant of [
    'titleLarge',
    'titleMedium',
    'titleSmall',
    'labelLarge',
    'headlineSmall',
    'headlineMedium',
  ] as const) {
    fonts[variant] = { ...fonts[variant], ...bold };
  }
  return {
    ...base,
    roundness: RADIUS / 4,
    fonts,
    colors: {
      ...base.colors,
      primary: palette.accent,
      onPrimary: palette.onAccent,
      primaryContainer: palette.raised,
      onPrimaryContainer: palette.ink,
      secondary: palette.steel,
      secondaryContainer: palette.hairline,
      onSecondaryContainer: palette.ink,
      tertiary: palette.hold,
      background: palette.paper,
      onBackground: palette.ink,
      surface: palette.raised,
      surfaceVariant: palette.raised,
      onSurface: palette.ink,
      onSurfaceVariant: palette.steel,
      surfaceDisabled: palette.hairline,
      onSurfaceDisabled: palette.steel,
      outline: palette.edge,
      outlineVariant: palette.hairline,
      error: palette.stop,
      onError: palette.paper,
      errorContainer: palette.stopWash,
      onErrorContainer: palette.ink,
      inverseSurface: palette.ink,
      inverseOnSurface: palette.paper,
      inversePrimary: palette.accent,
      elevation: {
        level0: 'transparent',
        level1: palette.raised,
        level2: palette.raised,
        level3: palette.raised,
        level4: palette.raised,
        level5: palette.raised,
      },
    },
  };
}

export { DARK, LIGHT, type Palette };
