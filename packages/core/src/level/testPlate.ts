/** What became of a thin piece of a test plate. */
export const PIECE_LOOKS = ['held', 'loose', 'failed'] as const;
export type PieceLook = (typeof PIECE_LOOKS)[number];

/**
 * held: all of them · tilt: one side · flatness: the centre, or here and there after a good level · zero: all alike, loose or
 * failed, and the level isn't proven · exposure: the same after a proven level · level-first: it can't be told before it is levelled
 */
export type TestPlateVerdict = 'held' | 'tilt' | 'flatness' | 'zero' | 'exposure' | 'level-first';

export interface TestPlateRead {
  verdict: TestPlateVerdict;
  /** Which side, for a tilt. */
  side: 'front' | 'rear' | 'left' | 'right' | null;
}

/** Nine places, row by row from the rear, each from the left. */
export const TEST_PLACES = 9;

/**
 * What thin pieces all over a platform say by where they failed: one side is a tilt; the centre, or at random, after a good
 * level, that it is not flat; all of them after a proven level, the exposure. Source: common practice.
 * @param looks nine, row by row from the rear
 * @param proven its level was proven by tugs or heights, and zero set after
 * @throws RangeError not nine, or a look that is not there
 */
export function readTestPlate(looks: readonly PieceLook[], proven: boolean): TestPlateRead {
  if (looks.length !== TEST_PLACES)
    throw new RangeError(`readTestPlate needs ${TEST_PLACES} looks, got ${looks.length}`);
  const bad = looks.map((look) => {
    if (!PIECE_LOOKS.includes(look)) throw new RangeError(`readTestPlate knows ${PIECE_LOOKS.join(', ')}, got ${look}`);
    return look !== 'held';
  });
  const count = bad.filter(Boolean).length;
  if (count === 0) return { verdict: 'held', side: null };
  if (count >= 8) return { verdict: proven ? 'exposure' : 'zero', side: null };
  const side = SIDES.find(([, near, far]) => near.every((i) => bad[i]) && far.every((i) => !bad[i]));
  // A side that fails all along with the other whole is a tilt, whatever was proven before.
  if (side) return { verdict: 'tilt', side: side[0] };
  return { verdict: proven ? 'flatness' : 'level-first', side: null };
}

const SIDES = [
  ['rear', [0, 1, 2], [6, 7, 8]],
  ['front', [6, 7, 8], [0, 1, 2]],
  ['left', [0, 3, 6], [2, 5, 8]],
  ['right', [2, 5, 8], [0, 3, 6]],
] as const;
