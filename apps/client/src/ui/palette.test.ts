import { heightTint, mixColors } from './mixColors';
import { DARK, LIGHT, type Palette } from './palette';

/** Relative luminance and contrast ratio: WCAG 2.2, definitions of "relative luminance" and "contrast ratio". */
function luminance(color: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const share = parseInt(color.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(first: string, second: string): number {
  const [light, dark] = [luminance(first), luminance(second)].sort((p, q) => q - p) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

test('the measure itself: black on white is 21, #777777 on white 4.48', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
  expect(contrast('#777777', '#FFFFFF')).toBeCloseTo(4.48, 2);
});

describe.each<[string, Palette]>([
  ['light', LIGHT],
  ['dark', DARK],
])('%s', (_, palette) => {
  const grounds = [palette.paper, palette.raised];

  test.each(['ink', 'steel', 'accent', 'ready', 'due', 'stop', 'hold'] as const)(
    '%s reads on every ground at 4.5',
    (tone) => {
      for (const ground of grounds) expect(contrast(palette[tone], ground)).toBeGreaterThanOrEqual(4.5);
    },
  );

  test('words in notices and on the main button read at 4.5', () => {
    for (const wash of [palette.stopWash, palette.dueWash]) {
      for (const tone of ['ink', 'steel'] as const) expect(contrast(palette[tone], wash)).toBeGreaterThanOrEqual(4.5);
    }
    expect(contrast(palette.onAccent, palette.accent)).toBeGreaterThanOrEqual(4.5);
  });

  test('edges of what can be touched stand out at 3', () => {
    for (const ground of grounds) expect(contrast(palette.edge, ground)).toBeGreaterThanOrEqual(3);
  });

  test('figures read on every tint of a height at 4.5', () => {
    for (let share = -1; share <= 1; share += 0.1) {
      expect(contrast(palette.ink, heightTint(palette, share))).toBeGreaterThanOrEqual(4.5);
    }
  });

  test('tints are symmetrical: the ends differ from the middle, and in grey the contours part them', () => {
    expect(heightTint(palette, 0)).toBe(palette.middle.toLowerCase());
    expect(heightTint(palette, 5)).toBe(palette.high.toLowerCase());
    expect(heightTint(palette, -5)).toBe(palette.low.toLowerCase());
  });
});

test('mixing goes from one colour to the other', () => {
  expect([0, 0.5, 1].map((share) => mixColors('#000000', '#204060', share))).toEqual(['#000000', '#102030', '#204060']);
});
