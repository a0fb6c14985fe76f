// backup, restore and verify: of the shop in ./data, or in the folder that EVEN_BED_DATA names.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensurePackages, ROOT } from './ensure.mjs';

ensurePackages();
const file = path.join(ROOT, 'apps/server/src/shopCommand.ts');
const { status } = spawnSync(process.execPath, ['--import', 'tsx', file, ...process.argv.slice(2)], {
  cwd: ROOT,
  env: { ...process.env, EVEN_BED_DATA: path.resolve(process.env.EVEN_BED_DATA ?? path.join(ROOT, 'data')) },
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
