import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { DegenerateAdjusters, DegenerateInput, UnreadableHeights } from '@even-bed/core';
import { LIMITS } from './limits';
import { Problem } from './problem';
import { gone, Turns } from './turns';

/** Work that is too long for the thread that serves everybody: a function that a file exports, as the worker finds it. */
export interface HeavyTask<I, R> {
  /** The whole path of the file. */
  file: string;
  name: string;
  /** Only for the compiler. */
  does?: (input: I) => R;
}

/**
 * Names an exported function of one input as long work. Each room names its own: this one knows none of them.
 * @param file path without its ending, beside the room that names it
 * @example const readLong = heavyTask<typeof readCsv>(path.join(__dirname, 'readCsv'), 'readCsv')
 */
export const heavyTask = <F extends (input: never) => unknown>(
  file: string,
  name: string,
): HeavyTask<Parameters<F>[0], Awaited<ReturnType<F>>> => ({ file, name });

interface Running {
  id: number;
  resolve: (result: never) => void;
  reject: (error: Error) => void;
  timer: NodeJS.Timeout;
}

/** Who asks for something long, and until when. */
export interface Asker {
  who: string;
  signal: AbortSignal;
}

const turns = new Turns(LIMITS.heavy);
let worker: Worker | null = null;
let running: Running | null = null;
let idle: NodeJS.Timeout | null = null;
let next = 0;

/**
 * Runs a long piece of work in the worker thread, when it is the asker's turn. It ends when whoever asked has gone.
 * @throws Problem 429 when too many of theirs wait, 422 when it takes too long or more memory than it may; what the
 *   task refuses
 */
export const heavy = <I, R>(task: HeavyTask<I, R>, input: I, { who, signal }: Asker): Promise<R> =>
  turns.run(who, () => inWorker(task, input, signal), signal);

function inWorker<I, R>({ file, name }: HeavyTask<I, R>, input: I, signal: AbortSignal): Promise<R> {
  if (signal.aborted) return Promise.reject(gone());
  return new Promise((resolve, reject) => {
    const id = next++;
    const timer = setTimeout(
      () => stop(new Problem(422, 'too-long', 'That would take too long to work out. Ask for less of it.')),
      LIMITS.heavyMs,
    );
    running = { id, resolve, reject, timer };
    if (idle) clearTimeout(idle);
    signal.addEventListener('abort', () => running?.id === id && stop(gone()), { once: true });
    worker ??= started();
    worker.postMessage({ id, file, name, input });
  });
}

function started(): Worker {
  const made = new Worker(path.join(__dirname, 'heavyThread.cjs'), {
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: LIMITS.heavyMb },
  });
  // An idle worker keeps nobody from stopping.
  made.unref();
  made.on('message', ({ id, result, error }: { id: number; result: never; error?: Told }) => {
    if (running?.id !== id) return;
    if (error) settle((job) => job.reject(revived(error)));
    else settle((job) => job.resolve(result));
  });
  made.on('error', (error: Error & { code?: string }) => {
    if (worker !== made) return;
    worker = null;
    const memory = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
    settle((job) =>
      job.reject(
        memory ? new Problem(422, 'too-large', 'That needs more memory than it may take. Ask for less.') : error,
      ),
    );
  });
  return made;
}

function settle(end: (job: Running) => void): void {
  if (!running) return;
  const job = running;
  clearTimeout(job.timer);
  running = null;
  idle = setTimeout(letGo, LIMITS.heavyIdleMs).unref();
  end(job);
}

/** A worker that has nothing to do gives its memory back. */
function letGo(): void {
  if (running) return;
  void worker?.terminate();
  worker = null;
}

/** Ends what runs by ending the worker; the next task gets a new one. */
function stop(error: Error): void {
  void worker?.terminate();
  worker = null;
  settle((job) => job.reject(error));
}

/** What a thread can hand over of an error. */
interface Told {
  name: string;
  message: string;
  code?: string;
  status?: number;
  more?: Problem['more'];
}

function revived({ name, message, code, status, more }: Told): Error {
  switch (name) {
    case 'Problem':
      return new Problem(status!, code!, message, more);
    case 'UnreadableHeights':
      return new UnreadableHeights(code as UnreadableHeights['code'], message);
    case 'DegenerateInput':
      return new DegenerateInput(message);
    case 'DegenerateAdjusters':
      return new DegenerateAdjusters(message);
    case 'RangeError':
      return new RangeError(message);
    default:
      return Object.assign(new Error(message), { name });
  }
}

/** Ends the worker, for tests and for stopping. */
export async function endHeavy(): Promise<void> {
  await worker?.terminate();
  worker = null;
}
