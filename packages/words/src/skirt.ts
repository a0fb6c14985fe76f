import type { SeenFrom, SkirtAdvice } from '@even-bed/core';
import type { LineLook, SkirtSide } from '@even-bed/core/level/skirtTrim';
import { feelTurnWords } from './feel';
import { figuresFor, type Reader } from './figures';

/** How lines look, under each word. */
export const LOOK_HINTS: Record<LineLook, string> = {
  gaps: 'lines apart',
  touching: 'even, flat',
  ridged: 'edges rise',
  dragged: 'torn, thin',
};

const SIDES: Record<SkirtSide, string> = { front: 'front', right: 'right', rear: 'rear', left: 'left' };
export const sideName = (side: SkirtSide): string => SIDES[side];

/** What to do while the skirt prints. @param name of the adjuster, where one is turned */
export function skirtWords(
  advice: SkirtAdvice,
  name: string,
  seenFrom: SeenFrom,
  reader: Reader,
  motor = false,
): string {
  const { size } = figuresFor(reader);
  switch (advice.do) {
    case 'turn':
      return `${name}: ${feelTurnWords({ turns: advice.turns, raises: advice.raises === true, motor }, seenFrom, reader)}`;
    case 'offset':
      return advice.by > 0
        ? `Offset ${size(advice.by)} farther, the nozzle higher.`
        : `Offset ${size(-advice.by)} nearer, the nozzle lower.`;
    case 'done':
      return 'All four sides touch: leave it.';
    case 'level':
      return advice.why === 'across'
        ? 'Two sides facing each other want it up, the other two down: that is shape, and no screw cures it. Check the level, then the plate.'
        : 'That is no trim any more: check the level first.';
  }
}
