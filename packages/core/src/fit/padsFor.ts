import { needNumbers } from '../needNumbers';
import { tidyLength } from './tidyLength';

/** Pads laid side by side: so many across and so many deep, each cut to this size. mm. */
export interface PadLayout {
  pads: number;
  across: number;
  deep: number;
  width: number;
  depth: number;
  seams: number;
  /** Length of all seams, mm. */
  seamLength: number;
  /** What one pad would cover of the plate by area alone. */
  areaOfOne: number;
}

/**
 * The fewest pads that cover a plate, as equal strips in a grid; of those the one with the shortest seams.
 * @param ask plate and pad, mm; a pad may lie either way round
 * @throws RangeError sizes that are not above 0
 * Source: common practice (pads butt, they don't overlap).
 * @example padsFor({ plate: { width: 310, depth: 320 }, pad: { width: 400, depth: 200 } }) // two of 310 × 160, one seam
 */
export function padsFor({
  plate,
  pad,
}: {
  plate: { width: number; depth: number };
  pad: { width: number; depth: number };
}): PadLayout {
  needNumbers('padsFor', { plate, pad });
  for (const [name, { width, depth }] of Object.entries({ plate, pad }))
    if (!(width >= 0.1 && depth >= 0.1))
      throw new RangeError(`padsFor needs a ${name} larger than 0 mm, got ${width} × ${depth}`);
  const layouts = [
    [pad.width, pad.depth],
    [pad.depth, pad.width],
  ].map(([width, depth]): PadLayout => {
    const across = Math.ceil(plate.width / width! - 1e-9);
    const deep = Math.ceil(plate.depth / depth! - 1e-9);
    return {
      pads: across * deep,
      across,
      deep,
      width: tidyLength(plate.width / across),
      depth: tidyLength(plate.depth / deep),
      seams: across - 1 + deep - 1,
      seamLength: (across - 1) * plate.depth + (deep - 1) * plate.width,
      areaOfOne: (pad.width * pad.depth) / (plate.width * plate.depth),
    };
  });
  return layouts.sort((p, q) => p.pads - q.pads || p.seamLength - q.seamLength)[0]!;
}
