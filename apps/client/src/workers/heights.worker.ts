import type { Reckoning } from '@even-bed/core';
import { reckonRound } from '@even-bed/core/level/reckonRound';
import { expose } from 'comlink';

type Input = Parameters<typeof reckonRound>[0];
export type ReckonAnswer = { ok: true; reckoning: Reckoning } | { ok: false; code: string; message: string };

/** Reads, plans, contours and compares off the page's thread. The core's own errors come back as words. */
const heights = {
  reckon(input: Input): ReckonAnswer {
    try {
      return { ok: true, reckoning: reckonRound(input) };
    } catch (error) {
      const { code, message } = error as { code?: unknown; message: string };
      if (typeof code !== 'string') throw error;
      return { ok: false, code, message };
    }
  },
};

export type HeightsWorker = typeof heights;
expose(heights);
