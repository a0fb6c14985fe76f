/** Largest range as a fraction of the first layer's height. From memory of the trade; each machine can change its own. */
export const AIM_WITH_COMPENSATION = 0.5;
export const AIM_WITHOUT_COMPENSATION = 0.25;

/**
 * The range of heights a bed should stay within, mm: half the first layer where the machine follows a
 * height map while it prints (compensation), a quarter where it does not.
 * @throws RangeError a first layer that is not above zero
 * Source: common practice, from memory; a default, never a law.
 * @example firstLayerAim({ firstLayer: 0.2, compensation: true }) // 0.1
 */
export function firstLayerAim({ firstLayer, compensation }: { firstLayer: number; compensation: boolean }): number {
  if (!(firstLayer > 0)) throw new RangeError(`firstLayerAim needs a first layer above 0 mm, got ${firstLayer}`);
  return firstLayer * (compensation ? AIM_WITH_COMPENSATION : AIM_WITHOUT_COMPENSATION);
}

/** The range that a machine's bed should stay within, mm: its own, or what its first layer asks. */
export const aimOf = ({ aim, ...rest }: { aim: number | null; firstLayer: number; compensation: boolean }): number =>
  aim ?? firstLayerAim(rest);
