// The demo in one command: install, build, a fresh copy of the demo shop, simulated machines, the server.
import { spawn, spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureClient, ensurePackages, fail, MEMORY, ROOT, TSX } from './ensure.mjs';

ensurePackages();
ensureClient();
const env = {
  ...MEMORY,
  ...process.env,
  EVEN_BED_DATA: process.env.EVEN_BED_DATA ?? path.join(ROOT, '.demo'),
  // The demo starts from a fresh copy each time: there is nothing to back up.
  EVEN_BED_BACKUPS: process.env.EVEN_BED_BACKUPS ?? '0',
  EVEN_BED_CONSOLES: process.env.EVEN_BED_CONSOLES ?? '4300',
};
const server = path.join(ROOT, 'apps/server/src');
const loaded = spawnSync(TSX, [path.join(server, 'demoData.ts')], { env, stdio: 'inherit' });
if (loaded.status !== 0) fail('The demo data could not be loaded: the reason is above.');
console.log(`A fresh copy of the demo shop, Saltmarsh Print Hall, lies in ${env.EVEN_BED_DATA}`);

const children = ['simulateMachines.ts', 'main.ts'].map((file) =>
  spawn(process.execPath, ['--import', 'tsx', path.join(server, file)], { cwd: ROOT, env, stdio: 'inherit' }),
);
let stopping = false;
const stop = (code) => {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  process.exitCode = code;
};
for (const child of children) child.on('exit', (code) => stop(code ?? 0));
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));
