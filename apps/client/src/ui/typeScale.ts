import { PixelRatio } from 'react-native';

/** Type in a browser is this high unless its reader asks for more, px. */
const BROWSERS_USUAL = 16;
const LARGEST = 2;

/** A scale from a browser's size of type ("32px"): 1 to 2; 1 where it says nothing. */
export function scaleOf(rootFontSize: string): number {
  const asked = parseFloat(rootFontSize) / BROWSERS_USUAL;
  return Number.isFinite(asked) ? Math.min(LARGEST, Math.max(1, asked)) : 1;
}

/**
 * How much larger than usual the reader's device writes: the browser's own size of type, or the phone's setting. Read
 * once: a device that changes it loads the app anew.
 */
const TYPE_SCALE =
  typeof getComputedStyle === 'function'
    ? scaleOf(getComputedStyle(document.documentElement).fontSize)
    : scaleOf(`${PixelRatio.getFontScale() * BROWSERS_USUAL}px`);

/** A size that goes along with the type, px. */
export const withType = (px: number): number => Math.round(px * TYPE_SCALE);
