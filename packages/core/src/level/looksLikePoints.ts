/** Positions on a plate spread at least this far, heights never do, mm. */
const LEAST_POSITION_RANGE = 10;

/**
 * Whether rows of three bare numbers are x, y, z and not a height map three columns wide: the first two spread like
 * positions on a plate, the third doesn't, and no place is named twice with the order of a map.
 * @param rows each of three numbers, NaN for unreached
 */
export function looksLikePoints(rows: readonly (readonly number[])[]): boolean {
  if (rows.length < 3) return false;
  const ranges = [0, 1, 2].map((column) => {
    let low = Infinity;
    let high = -Infinity;
    for (const row of rows) {
      const value = row[column]!;
      if (value < low) low = value;
      if (value > high) high = value;
    }
    return high - low;
  });
  return (
    ranges[0]! >= LEAST_POSITION_RANGE &&
    ranges[1]! >= LEAST_POSITION_RANGE &&
    !(ranges[2]! > Math.min(ranges[0]!, ranges[1]!))
  );
}
