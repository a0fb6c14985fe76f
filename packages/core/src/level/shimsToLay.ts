import { planShims, type PlanShimsAsk, type ShimPlan } from './planShims';

/** A strip more on another has to gain so much between the readings too, mm: a probe tells no less. Our own choice. */
const WORTH = 0.005;

/**
 * The strips to lay: of the best plans with one layer, with two, and so on, the one that leaves least between the readings too.
 * What gains at the readings alone, and leaves the steps of its strips as high as the dip was, is none.
 * @throws as `planShims`
 */
export function shimsToLay({ maxLayers = 2, ...ask }: PlanShimsAsk): ShimPlan {
  let best = planShims({ ...ask, maxLayers });
  for (let layers = maxLayers - 1; layers > 0; layers--) {
    const plan = planShims({ ...ask, maxLayers: layers });
    if (plan.between <= best.between + WORTH) best = plan;
  }
  const { strips, before, between, proven } = best;
  return strips.length === 0 || between < before - WORTH
    ? best
    : {
        ...{ verdict: 'no', why: 'shape', strips: [], before, after: before, between: before, proven },
        ...{ tape: 0, tracks: 0, layers: 0 },
      };
}
