// Client and server with reload, on the demo data: the client at 8081 asks the server at 4242.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import concurrently from 'concurrently';
import { ensurePackages, ROOT } from './ensure.mjs';

ensurePackages();
const env = {
  EVEN_BED_DATA: process.env.EVEN_BED_DATA ?? path.join(ROOT, '.dev'),
  EVEN_BED_CONSOLES: process.env.EVEN_BED_CONSOLES ?? '4300',
  PORT: process.env.PORT ?? '4242',
  EXPO_OFFLINE: '1',
  EXPO_NO_TELEMETRY: '1',
};
const tsx = path.join(ROOT, 'node_modules/.bin/tsx');
if (!fs.existsSync(path.join(env.EVEN_BED_DATA, 'even-bed.sqlite'))) {
  spawnSync(tsx, ['apps/server/src/demoData.ts'], { cwd: ROOT, env: { ...process.env, ...env }, stdio: 'inherit' });
}
const { result } = concurrently(
  [
    { name: 'machines', command: `${tsx} apps/server/src/simulateMachines.ts` },
    { name: 'server', command: `${tsx} watch apps/server/src/main.ts` },
    {
      name: 'client',
      command: 'node ../../node_modules/expo/bin/cli start --web --port 8081',
      cwd: path.join(ROOT, 'apps/client'),
    },
  ].map((command) => ({ env, cwd: ROOT, ...command })),
  { killOthersOn: ['failure', 'success'] },
);
result.catch(() => process.exit(1));
