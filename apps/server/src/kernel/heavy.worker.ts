import { createRequire } from 'node:module';
import { parentPort } from 'node:worker_threads';

interface Asked {
  id: number;
  file: string;
  name: string;
  input: unknown;
}

/** As this thread's own loader reads TypeScript. */
const load = createRequire(__filename);

/** Does one task at a time and answers with its result, or with what it refused. */
parentPort!.on('message', ({ id, file, name, input }: Asked) => {
  void (async () => {
    try {
      // Files of the house alone: the name comes from its own code, never from a request.
      const made = load(file) as Record<string, (input: unknown) => unknown>;
      parentPort!.postMessage({ id, result: await made[name]!(input) });
    } catch (error) {
      const { name: kind, message, code, status, more } = error as Record<string, unknown>;
      parentPort!.postMessage({ id, error: { name: kind, message, code, status, more } });
    }
  })();
});
