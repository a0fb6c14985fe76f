// What every command needs before it starts: the right Node, the packages, a compiler. Says in one line what is missing.
import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '..');

/**
 * How the server's process keeps its memory, where the C library is the usual one of Linux: few pools, and large pieces
 * given back at once. Without it what one large photo took stays with the process.
 */
export const MEMORY = JSON.parse(fs.readFileSync(path.join(ROOT, 'apps/server/memory.json'), 'utf8'));

export function fail(message) {
  console.error(message);
  process.exit(1);
}

export function ensureNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19) || major > 22) {
    fail(
      `Even Bed needs Node 20.19 to 22; this is ${process.versions.node}. Install Node 20 or 22 and run this again.`,
    );
  }
}

const has = (command) => spawnSync(command, ['--version'], { stdio: 'ignore' }).status === 0;

/** Installs the packages when they are missing or older than the lockfile. */
export function ensurePackages() {
  ensureNode();
  const stamp = path.join(ROOT, 'node_modules/.package-lock.json');
  const lock = path.join(ROOT, 'package-lock.json');
  const native = path.join(ROOT, 'node_modules/better-sqlite3/build/Release/better_sqlite3.node');
  if (fs.existsSync(stamp) && fs.existsSync(native) && fs.statSync(stamp).mtimeMs >= fs.statSync(lock).mtimeMs) return;
  for (const [command, packageName] of [
    ['python3', 'python3'],
    ['make', 'make'],
    ['g++', 'g++'],
  ]) {
    if (!has(command))
      fail(`The database driver is compiled here and needs ${command}: apt-get install -y ${packageName}`);
  }
  console.log('Installing packages (a few minutes the first time) …');
  const done = spawnSync('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], { cwd: ROOT, stdio: 'inherit' });
  if (done.status !== 0) fail('npm ci failed: its own words are above.');
  fs.utimesSync(stamp, new Date(), new Date());
}

/** The browser that the tests drive; installed from Debian's packages when it is missing and that is possible. */
export function ensureChromium() {
  const known = process.env.EVEN_BED_CHROMIUM ?? '/usr/bin/chromium';
  if (fs.existsSync(known)) return known;
  const root = process.getuid?.() === 0;
  if (!has('apt-get') || !root)
    fail('The browser tests need Chromium: apt-get install -y chromium (or set EVEN_BED_CHROMIUM to its path).');
  console.log('Installing Chromium …');
  try {
    execFileSync('apt-get', ['update', '-qq'], { stdio: 'inherit' });
    execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  } catch {
    fail('Chromium could not be installed: apt-get install -y chromium');
  }
  return known;
}

/** Newest change below some folders, ms. */
function newest(folders) {
  let latest = 0;
  const walk = (folder) => {
    for (const entry of fs.readdirSync(folder, { withFileTypes: true })) {
      if (entry.name === 'node_modules' || entry.name === 'dist' || entry.name === '.expo') continue;
      const full = path.join(folder, entry.name);
      if (entry.isDirectory()) walk(full);
      else latest = Math.max(latest, fs.statSync(full).mtimeMs);
    }
  };
  folders.forEach((folder) => walk(path.join(ROOT, folder)));
  return latest;
}

/** Builds the client when there is none, or when its sources are newer. */
export function ensureClient() {
  const page = path.join(ROOT, 'apps/client/dist/index.html');
  if (fs.existsSync(page) && fs.statSync(page).mtimeMs > newest(['apps/client', 'packages'])) return;
  console.log('Building the app (about two minutes the first time) …');
  const done = spawnSync(process.execPath, [path.join(ROOT, 'scripts/build.mjs')], { cwd: ROOT, stdio: 'inherit' });
  if (done.status !== 0) fail('The app could not be built: the reason is above.');
}

export const TSX = path.join(ROOT, 'node_modules/.bin/tsx');
