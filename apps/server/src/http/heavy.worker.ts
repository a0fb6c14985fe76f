import { parentPort } from 'node:worker_threads';
import { HEAVY_TASKS } from './heavyTasks';

/** Does one task at a time and answers with its result, or with what it refused. */
parentPort!.on('message', ({ id, task, input }: { id: number; task: keyof typeof HEAVY_TASKS; input: never }) => {
  void (async () => {
    try {
      const result = await (HEAVY_TASKS[task] as (input: never) => unknown)(input);
      parentPort!.postMessage({ id, result });
    } catch (error) {
      const { name, message, code, status, more } = error as Record<string, unknown>;
      parentPort!.postMessage({ id, error: { name, message, code, status, more } });
    }
  })();
});
