// Serves a real shop from its own data folder, empty at first. Never touches the demo's.
import { spawn } from 'node:child_process';
import path from 'node:path';
import { ensureClient, ensurePackages, fail, MEMORY, ROOT } from './ensure.mjs';

ensurePackages();
ensureClient();
const data = path.resolve(process.env.EVEN_BED_DATA ?? path.join(ROOT, 'data'));
if (data === path.join(ROOT, '.demo'))
  fail('That is the demo’s folder. Choose another one: EVEN_BED_DATA=/path/to/data npm start');
const child = spawn(process.execPath, ['--import', 'tsx', path.join(ROOT, 'apps/server/src/main.ts')], {
  cwd: ROOT,
  env: { ...MEMORY, ...process.env, EVEN_BED_DATA: data },
  stdio: 'inherit',
});
child.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
