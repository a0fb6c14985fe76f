import { wrap, type Remote } from 'comlink';
import type { HeightsWorker } from './heights.worker';

let worker: Remote<HeightsWorker> | null = null;

/** The worker that reads and plans; made when it is first needed. */
export function reckoner(): Remote<HeightsWorker> {
  worker ??= wrap<HeightsWorker>(new Worker(new URL('./heights.worker.ts', import.meta.url)));
  return worker;
}
