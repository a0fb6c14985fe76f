import path from 'node:path';
import { planRound } from '@even-bed/core/level/reckonRound';
import { shapeResult } from '@even-bed/core/level/shapeRecord';
import { heavyTask } from '../kernel/heavy';

/** Plans a round from a long text of heights. */
export const planRoundOf = ([reading, setup]: Parameters<typeof planRound>) => planRound(reading, setup);
export const PLAN_ROUND = heavyTask<typeof planRoundOf>(path.join(__dirname, 'planTask'), 'planRoundOf');

/** What a record of a shape comes to. */
export const shapeResultOf = (raw: Parameters<typeof shapeResult>[0]) => shapeResult(raw);
export const SHAPE_RESULT = heavyTask<typeof shapeResultOf>(path.join(__dirname, 'planTask'), 'shapeResultOf');
