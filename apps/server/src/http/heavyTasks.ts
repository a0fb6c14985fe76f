import { toolSentence } from '@even-bed/core';
import { planRound } from '@even-bed/core/level/reckonRound';
import { blanksPdf } from '../fit/blanksPdf';
import { readCsv } from '../wear/readCsv';

/** Work that is too long for the thread that serves everybody; run by the worker, one at a time. */
export const HEAVY_TASKS = { planRound: planRoundOf, readCsv: readCsvOf, blanksPdf, toolSentence: sentenceOf };
export type HeavyTasks = typeof HEAVY_TASKS;

function planRoundOf([reading, setup]: Parameters<typeof planRound>) {
  return planRound(reading, setup);
}

function readCsvOf(file: Uint8Array) {
  return readCsv(Buffer.from(file));
}

function sentenceOf([tool, input]: [tool: Parameters<typeof toolSentence>[0], input: never]) {
  return toolSentence(tool, input);
}
