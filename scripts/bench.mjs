// Each benchmark beside what it is compared with, in one run. Prints; never fails a build.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureChromium, ensureClient, ensurePackages, ROOT, TSX } from './ensure.mjs';

ensurePackages();
ensureChromium();
ensureClient();
console.log(
  `Node ${process.versions.node}, ${process.platform} ${process.arch}, ${new Date().toISOString().slice(0, 10)}`,
);
for (const name of ['sums', 'shape', 'soak', 'shop', 'bundle']) {
  const { status } = spawnSync(TSX, [path.join(ROOT, `bench/${name}.bench.ts`)], { cwd: ROOT, stdio: 'inherit' });
  if (status !== 0) process.exitCode = 1;
}
