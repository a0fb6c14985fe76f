import path from 'node:path';
import { planRound } from '@even-bed/core/level/reckonRound';
import { heavyTask } from '../kernel/heavy';

/** Plans a round from a long text of heights. */
export const planRoundOf = ([reading, setup]: Parameters<typeof planRound>) => planRound(reading, setup);
export const PLAN_ROUND = heavyTask<typeof planRoundOf>(path.join(__dirname, 'planTask'), 'planRoundOf');
