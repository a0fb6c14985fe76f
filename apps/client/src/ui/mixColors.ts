/** Mixes two colours given as #RRGGBB; share 0 gives the first, 1 the second. */
export function mixColors(first: string, second: string, share: number): string {
  const channel = (color: string, at: number) => parseInt(color.slice(at, at + 2), 16);
  return `#${[1, 3, 5]
    .map((at) => Math.round(channel(first, at) + (channel(second, at) - channel(first, at)) * share))
    .map((value) => value.toString(16).padStart(2, '0'))
    .join('')}`;
}

/**
 * The tint of a height: low through middle to high, symmetrical about zero.
 * @param share −1 (lowest) to 1 (highest)
 */
export function heightTint(
  { low, middle, high }: { low: string; middle: string; high: string },
  share: number,
): string {
  const size = Math.min(1, Math.abs(share));
  return mixColors(middle, share < 0 ? low : high, size);
}
