import { wrap, type Remote } from 'comlink';
import type { ShapesWorker } from './shapes.worker';

let worker: Remote<ShapesWorker> | null = null;

/** The worker that knows shapes: surveys, strips, maps compared; made when it is first needed. */
export function shaper(): Remote<ShapesWorker> {
  worker ??= wrap<ShapesWorker>(new Worker(new URL('./shapes.worker.ts', import.meta.url)));
  return worker;
}
