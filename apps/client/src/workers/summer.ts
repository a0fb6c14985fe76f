import { wrap, type Remote } from 'comlink';
import type { SumsWorker } from './sums.worker';

let worker: Remote<SumsWorker> | null = null;

/** The worker that does heat and cutting; made when it is first needed. */
export function summer(): Remote<SumsWorker> {
  worker ??= wrap<SumsWorker>(new Worker(new URL('./sums.worker.ts', import.meta.url)));
  return worker;
}
