// Every simulation whole, side by side on all cores; what each saw goes into docs/proved.md.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensurePackages, ROOT } from './ensure.mjs';

ensurePackages();

const only = process.argv[2] ?? '';
/** Less than all of them where time is short: each row says of how many. */
const share = process.argv[3] ?? '1';
if (!(Number(share) > 0 && Number(share) <= 1)) {
  console.error('The share of the trials is a number above 0 and up to 1: npm run prove -- feel 0.2');
  process.exit(1);
}
const proved = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-prove-')), 'rows.jsonl');
fs.writeFileSync(proved, '');

/** Tests that take a sample otherwise: those that ask for their number of trials. */
function simulations(folder) {
  return fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const file = path.join(folder, entry.name);
    if (entry.isDirectory()) return simulations(file);
    return entry.name.endsWith('.test.ts') && fs.readFileSync(file, 'utf8').includes('prove.fixture') ? [file] : [];
  });
}
const files = ['packages/core/src', 'apps/server/src']
  .flatMap((folder) => simulations(path.join(ROOT, folder)))
  .filter((file) => file.includes(only));
if (files.length === 0) {
  console.error(`No simulation has “${only}” in its path.`);
  process.exit(1);
}
console.log(
  `${files.length} files of simulations, ${share === '1' ? 'whole; this takes an hour or two on two cores' : `${share} of each`}.`,
);

const { status } = spawnSync(
  path.join(ROOT, 'node_modules/.bin/jest'),
  ['--selectProjects', 'core', 'server', '--testTimeout', '5400000', '--verbose', '--runTestsByPath', ...files],
  {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, NODE_ENV: 'test', EVEN_BED_PROVE: share, EVEN_BED_PROVED: proved },
  },
);

const rows = fs
  .readFileSync(proved, 'utf8')
  .split('\n')
  .filter(Boolean)
  .map((line) => JSON.parse(line));
const table = path.join(ROOT, 'docs/proved.md');
const before = new Map();
if (fs.existsSync(table))
  for (const line of fs.readFileSync(table, 'utf8').split('\n')) {
    const cells = line.split(' | ').map((cell) => cell.replace(/^\| |\s*\|$/g, '').trim());
    if (line.startsWith('| ') && cells.length === 4 && cells[0] !== 'instrument' && !cells[0].startsWith('-'))
      before.set(`${cells[0]} | ${cells[1]}`, cells);
  }
const today = new Date().toISOString().slice(0, 10);
for (const { instrument, what, saw } of rows) {
  const plain = [instrument, what, saw].map((cell) => cell.replaceAll('|', '/'));
  before.set(`${plain[0]} | ${plain[1]}`, [...plain, today]);
}
fs.writeFileSync(
  table,
  [
    '# What simulated people and machines came to',
    '',
    'Written by `npm run prove`, which runs every simulation whole; `npm test` runs a seeded sample of each. People and machines are',
    'in `packages/core/src/simulated`. A row that was not run again keeps its day.',
    '',
    '| instrument | followed by, or on | what came of it | day |',
    '| --- | --- | --- | --- |',
    ...[...before.values()].map((cells) => `| ${cells.join(' | ')} |`),
    '',
  ].join('\n'),
);
spawnSync(path.join(ROOT, 'node_modules/.bin/prettier'), ['--write', table], { stdio: 'ignore' });
console.log(`${rows.length} rows written into docs/proved.md`);
process.exit(status ?? 1);
