// Everything that must hold: format, lint, types, unit tests, the build, the browser tests. Ends with one line of counts.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensureChromium, ensureClient, ensurePackages, ROOT } from './ensure.mjs';

ensurePackages();
ensureChromium();

const bin = (name) => path.join(ROOT, 'node_modules/.bin', name);
let passed = 0;
let failed = 0;

/** One check after the other; what they say is shown when each ends. */
async function checks(list) {
  for (const [name, command, args] of list) {
    const start = Date.now();
    const { status, said } = await run(command, args);
    process.stdout.write(said);
    console.log(`${status === 0 ? 'ok    ' : 'FAILED'} ${name} (${Math.round((Date.now() - start) / 1000)} s)`);
    if (status === 0) passed++;
    else failed++;
  }
}

function run(command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
    child.on('error', (error) => resolve({ status: 1, said: `${error.message}\n` }));
    child.on('close', (status) => resolve({ status, said }));
  });
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

const projects = ['packages/core', 'packages/contract', 'packages/words', 'apps/server', 'apps/client', 'e2e'];
await Promise.all([
  checks([
    ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
    ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
  ]),
  checks(projects.map((project) => [`types of ${project}`, bin('tsc'), ['-p', project, '--noEmit']])),
]);
jest('sums, contract, server, parts of the app', []);
ensureClient();
jest('the app in Chromium', ['-c', 'jest.e2e.config.mjs']);

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
