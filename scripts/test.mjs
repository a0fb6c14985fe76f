// Everything that must hold: format, lint, types, unit tests, the build, the browser tests. Ends with one line of counts.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensureChromium, ensureClient, ensurePackages, ROOT } from './ensure.mjs';

ensurePackages();
ensureChromium();

const bin = (name) => path.join(ROOT, 'node_modules/.bin', name);
let passed = 0;
let failed = 0;

function check(name, command, args) {
  const start = Date.now();
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' });
  const seconds = Math.round((Date.now() - start) / 1000);
  console.log(`${status === 0 ? 'ok    ' : 'FAILED'} ${name} (${seconds} s)`);
  if (status === 0) passed++;
  else failed++;
}

/** Runs jest and adds its own counts; a run that says nothing counts as one failure. */
function jest(name, args) {
  const report = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-test-')), 'report.json');
  const start = Date.now();
  const { status } = spawnSync(bin('jest'), [...args, '--json', `--outputFile=${report}`], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'test' },
  });
  let counts = { numPassedTests: 0, numFailedTests: 0, numRuntimeErrorTestSuites: 0 };
  if (fs.existsSync(report)) counts = JSON.parse(fs.readFileSync(report, 'utf8'));
  passed += counts.numPassedTests;
  const bad = counts.numFailedTests + counts.numRuntimeErrorTestSuites;
  failed += status !== 0 && bad === 0 ? 1 : bad;
  console.log(
    `${status === 0 ? 'ok    ' : 'FAILED'} ${name}: ${counts.numPassedTests} tests (${Math.round((Date.now() - start) / 1000)} s)`,
  );
}

check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
check('lint', bin('eslint'), ['.', '--max-warnings', '0']);
for (const project of ['packages/core', 'packages/contract', 'apps/server', 'apps/client', 'e2e']) {
  check(`types of ${project}`, bin('tsc'), ['-p', project, '--noEmit']);
}
jest('sums, contract, server, parts of the app', []);
ensureClient();
jest('the app in Chromium', ['-c', 'jest.e2e.config.mjs']);

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
