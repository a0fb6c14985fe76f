import fs from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';

// What a page has to fetch before it shows anything is held here: a size is no time, and may fail a test.
const SCRIPTS = path.join(__dirname, '../apps/client/dist/_expo/static/js/web');

const files = fs.readdirSync(SCRIPTS).filter((name) => name.endsWith('.js'));
const kib = (name: string) => gzipSync(fs.readFileSync(path.join(SCRIPTS, name))).length / 1024;
const named = (part: string) => files.filter((name) => name.startsWith(part));

test('the first piece, which every page fetches, is at most 1.15 of an app that holds its kit alone', () => {
  const first = ['entry-', '__common-', '__expo-metro-runtime-'].flatMap(named);
  expect(first).toHaveLength(3);
  const layout = Math.max(...named('_layout-').map(kib));
  const sum = first.reduce((all, name) => all + kib(name), layout);
  // The kit alone is 467 KiB (`bench/bundle.bench.ts`).
  expect(sum).toBeLessThan(1.15 * 467);
  // And it holds an app.
  expect(sum).toBeGreaterThan(300);
});

test.each([
  ['handsRoom-', 245],
  ['formsRoom-', 32],
  ['bench-', 6],
  ['schemas-', 66],
  ['charts-', 90],
  // It reads codes by itself.
  ['scan-', 50],
])('%s: at most %i KiB', (part, most) => {
  const pieces = named(part);
  expect(pieces).toHaveLength(1);
  expect(kib(pieces[0]!)).toBeLessThan(most);
});

test('no view brings more than 30 KiB of its own', () => {
  const rooms = /^(entry|__|_layout|handsRoom|formsRoom|schemas|charts|scan|heights|shapes|sums)/;
  const heavy = files.filter((name) => !rooms.test(name)).map((name) => [name, Math.round(kib(name))] as const);
  expect(heavy.filter(([, size]) => size > 30)).toEqual([]);
  expect(heavy.length).toBeGreaterThan(20);
});
