// How strong the tests are: small faults are put into the code, one at a time, and the tests have to notice each.
//   npm run mutate                          a sample of every area
//   npm run mutate -- core/fit --lines 200  one area, so many lines of it; --lines all for the whole of it
//   npm run mutate -- core --seed 5         other lines
// Whole areas take hours; a sample of lines, drawn by a seed, says within a few points the same.
import fs from 'node:fs';
import path from 'node:path';
import { spawnSync } from 'node:child_process';
import { parseArgs } from 'node:util';

const ROOT = path.join(import.meta.dirname, '..');
const CORE = ['level', 'fit', 'care', 'surfaces', 'rounds', 'wear', 'fleet'];
const SERVER = ['kernel', 'book', 'fleet', 'people', 'rounds', 'wear', 'surfaces', 'fit', 'care', 'level', 'tags'];
const AREAS = [...CORE.map((area) => `core/${area}`), ...SERVER.map((area) => `server/${area}`)];
/** Rooms whose tests stand in other rooms too. */
const TESTS = {
  kernel: ['kernel/', 'app/app'],
  book: ['book/', 'app/app', 'db/'],
  fleet: ['app/app', 'level/', 'surfaces/routes'],
  rounds: ['app/app', 'level/'],
  tags: ['surfaces/'],
  surfaces: ['surfaces/', 'care/jobs'],
};
const LEAST = 80;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    lines: { type: 'string', default: '40' },
    seed: { type: 'string', default: '1' },
    concurrency: { type: 'string', default: '2' },
  },
});
const wanted = AREAS.filter(
  (area) => positionals.length === 0 || positionals.some((name) => area === name || area.startsWith(`${name}/`)),
);
if (wanted.length === 0) {
  console.error(`No such area. There are: ${AREAS.join(', ')}`);
  process.exit(2);
}

const folderOf = (area) =>
  area.startsWith('core/') ? `packages/core/src/${area.slice(5)}` : `apps/server/src/${area.slice(7)}`;

function filesIn(folder) {
  return fs.readdirSync(path.join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const file = `${folder}/${entry.name}`;
    if (entry.isDirectory()) return filesIn(file);
    return /\.ts$/.test(entry.name) && !/\.(test|fixture)\.ts$/.test(entry.name) ? [file] : [];
  });
}

/** Lines that hold code: no imports, comments or lone brackets. */
function linesOf(file) {
  return fs
    .readFileSync(path.join(ROOT, file), 'utf8')
    .split('\n')
    .flatMap((text, i) =>
      /^\s*(import\b|export \{|export type|type |interface |\/\/|\/?\*|[)\]}({;,]*$)/.test(text)
        ? []
        : [`${file}:${i + 1}-${i + 1}`],
    );
}

function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function sample(lines, count, random) {
  const left = [...lines];
  const drawn = [];
  while (drawn.length < count && left.length > 0) drawn.push(...left.splice(Math.floor(random() * left.length), 1));
  return drawn;
}

const out = path.join(ROOT, '.tmp/mutate');
fs.mkdirSync(out, { recursive: true });
const count = values.lines === 'all' ? Infinity : Number(values.lines);
const random = seeded(Number(values.seed));
const results = [];
// The core is asked whole; a room of the server by its own tests and those that name it, or each fault would ask hundreds.
const runs = [
  { project: 'core', areas: wanted.filter((area) => area.startsWith('core/')), tests: [] },
  ...wanted
    .filter((area) => area.startsWith('server/'))
    .map((area) => ({ project: 'server', areas: [area], tests: TESTS[area.slice(7)] ?? [`${area.slice(7)}/`] })),
];
for (const { project, areas, tests } of runs) {
  if (areas.length === 0) continue;
  const mutate = areas.flatMap((area) => {
    const lines = filesIn(folderOf(area)).flatMap(linesOf);
    return sample(lines, count, random);
  });
  const report = path.join(out, `${project}.json`);
  const config = path.join(out, `${project}.config.json`);
  fs.writeFileSync(
    config,
    JSON.stringify({
      packageManager: 'npm',
      testRunner: 'jest',
      jest: { projectType: 'custom', configFile: 'jest.mutate.config.mjs', enableFindRelatedTests: true },
      mutate,
      mutator: { excludedMutations: ['StringLiteral'] },
      ignoreStatic: true,
      coverageAnalysis: 'perTest',
      disableBail: false,
      concurrency: Number(values.concurrency),
      timeoutMS: 8_000,
      dryRunTimeoutMinutes: 20,
      tempDirName: '.tmp/mutate/sandbox',
      ignorePatterns: ['.tmp', '.demo', 'dist', 'apps/client', 'e2e', 'bench', 'data'],
      reporters: ['json', 'progress-append-only'],
      jsonReporter: { fileName: report },
      allowEmpty: true,
    }),
  );
  const { status } = spawnSync('npx', ['stryker', 'run', config], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, MUTATE_PROJECT: project, MUTATE_TESTS: tests.join(',') },
  });
  if (status !== 0) process.exit(status ?? 1);
  const { files } = JSON.parse(fs.readFileSync(report, 'utf8'));
  for (const area of areas) {
    const folder = `${folderOf(area)}/`;
    const mutants = Object.entries(files)
      .filter(([file]) => file.startsWith(folder))
      .flatMap(([file, { mutants: own, source }]) => own.map((mutant) => ({ ...mutant, file, source })));
    const by = (...states) => mutants.filter(({ status: state }) => states.includes(state));
    const killed = by('Killed', 'Timeout').length;
    const left = by('Survived', 'NoCoverage');
    results.push({ area, killed, of: killed + left.length, left });
  }
}
for (const { left } of results)
  for (const { file, source, location, mutatorName, replacement, status } of left) {
    const line = source.split('\n')[location.start.line - 1].trim();
    console.log(
      `${file}:${location.start.line} ${mutatorName} ${status === 'NoCoverage' ? '(no test comes here) ' : ''}`,
    );
    console.log(`    ${line}\n    → ${(replacement ?? '').split('\n')[0]}`);
  }
const share = ({ killed, of }) => (of === 0 ? '–' : `${((100 * killed) / of).toFixed(0)} %`);
for (const result of results)
  console.log(
    `${result.area.padEnd(18)} ${String(result.killed).padStart(4)} of ${String(result.of).padStart(4)}  ${share(result)}`,
  );
const all = results.reduce((sum, { killed, of }) => ({ killed: sum.killed + killed, of: sum.of + of }), {
  killed: 0,
  of: 0,
});
console.log(`${'all'.padEnd(18)} ${all.killed} of ${all.of}, ${share(all)}; wanted: ${LEAST} %`);
