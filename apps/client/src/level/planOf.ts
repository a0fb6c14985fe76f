import type { MachineOverview } from '@even-bed/contract';
import type { Flatness, HeightPoint } from '@even-bed/core';
import type { PlanPlate, PlanTouch } from '../ui/BedPlan';

/** A machine's plate as the plan draws it. */
export const planOf = ({
  plateWidth,
  plateDepth,
  originX,
  originY,
  printWidth,
  printDepth,
}: Pick<
  MachineOverview,
  'plateWidth' | 'plateDepth' | 'originX' | 'originY' | 'printWidth' | 'printDepth'
>): PlanPlate => ({
  width: plateWidth,
  depth: plateDepth,
  originX,
  originY,
  printWidth,
  printDepth,
});

/** More places than a triangle and a point touch only where all lie in one plane. */
const MOST_TOUCHES = 4;

/** Where the two planes touch that hold all readings between them. */
export const touchesOf = ({ contacts }: Flatness, points: readonly HeightPoint[]): PlanTouch[] =>
  contacts.upper.length > MOST_TOUCHES
    ? []
    : (['upper', 'lower'] as const).flatMap((plane) => contacts[plane].map((at) => ({ ...points[at]!, plane })));
