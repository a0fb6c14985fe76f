import type { BlankPlan, PlanBlanksInput, Soak, SoakCalibration, SoakInput } from '@even-bed/core';
import { calibrateSoak, type CalibrateInput } from '@even-bed/core/fit/calibrateSoak';
import { planBlanks } from '@even-bed/core/fit/planBlanks';
import { coolDown, soak } from '@even-bed/core/fit/soak';
import { toolAnswer, type ToolAnswers } from '@even-bed/core/fit/toolAnswer';
import type { ToolInputs } from '@even-bed/core/fit/toolInputs';
import { expose } from 'comlink';

export type Answered<R> = { ok: true; result: R } | { ok: false; message: string };

/** Sums off the page's thread. What they refuse comes back in their own words. */
function answer<R>(work: () => R): Answered<R> {
  try {
    return { ok: true, result: work() };
  } catch (error) {
    if (error instanceof RangeError) return { ok: false, message: error.message };
    throw error;
  }
}

type CoolInput = Parameters<typeof coolDown>[0];

const sums = {
  soak: (input: SoakInput): Answered<Soak> => answer(() => soak(input)),
  coolDown: (input: CoolInput): Answered<ReturnType<typeof coolDown>> => answer(() => coolDown(input)),
  calibrate: (input: CalibrateInput): Answered<SoakCalibration> => answer(() => calibrateSoak(input)),
  compare: (input: ToolInputs['compare']): Answered<ToolAnswers['compare']> =>
    answer(() => toolAnswer('compare', input)),
  blanks: (input: PlanBlanksInput): Answered<BlankPlan> => answer(() => planBlanks(input)),
};

export type SumsWorker = typeof sums;
expose(sums);
