import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { SessionState } from '@even-bed/contract';
import pino from 'pino';
import { chromium, type Browser, type BrowserContext, type Page } from 'playwright-core';
import { connect, migrate } from '../apps/server/src/db/connect';
import { loadDemo } from '../apps/server/src/demo/loadDemo';
import { PEOPLE } from '../apps/server/src/demo/saltmarsh';
import { buildApp } from '../apps/server/src/app/app';
import { report } from './measure';

const ROOT = path.join(import.meta.dirname, '..');
const CLIENT = path.join(ROOT, 'apps/client');
const EMPTY = path.join(ROOT, '.tmp/empty-app');
const PHONE = { width: 390, height: 844 };

/** One page that uses the kit's parts and the libraries that the app uses, and says nothing. */
const EMPTY_PAGE = `
import AsyncStorage from '@react-native-async-storage/async-storage';
import { configureStore } from '@reduxjs/toolkit';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { wrap } from 'comlink';
import { format } from 'date-fns/format';
import { useFonts } from 'expo-font';
import Head from 'expo-router/head';
import { StatusBar } from 'expo-status-bar';
import Joi from 'joi';
import { lazy, Suspense } from 'react';
import { useForm } from 'react-hook-form';
import { Button, Dialog, Menu, PaperProvider, Portal, ProgressBar, TextInput } from 'react-native-paper';
import Svg, { Path } from 'react-native-svg';
import { Provider } from 'react-redux';
import { v7 } from 'uuid';
const Chart = lazy(() => import('../Chart'));
const api = createApi({ baseQuery: fetchBaseQuery({ baseUrl: '/api' }), endpoints: (build) => ({ one: build.query({ query: () => '/health' }) }) });
const store = configureStore({ reducer: { [api.reducerPath]: api.reducer }, middleware: (get) => get().concat(api.middleware) });
const schema = Joi.object({ a: Joi.string() });
export default function Page() {
  useFonts({});
  const { control } = useForm();
  const unused = [AsyncStorage, wrap, format(0, 'd'), schema.validate({}), v7(), control, api.useOneQuery];
  return (
    <Provider store={store}>
      <PaperProvider>
        <Head><title>Empty</title></Head>
        <StatusBar />
        <Svg width={1} height={1}><Path d="M0 0" /></Svg>
        <Menu visible={false} anchor={<Button>{unused.length}</Button>} onDismiss={() => {}}><Menu.Item title="a" /></Menu>
        <Portal><Dialog visible={false}><Dialog.Title>a</Dialog.Title></Dialog></Portal>
        <TextInput /><ProgressBar progress={0} />
        {unused.length > 99 ? <Suspense fallback={null}><Chart /></Suspense> : null}
      </PaperProvider>
    </Provider>
  );
}`;

/** Exports the empty app of the same kit with the same settings. */
function exportEmptyApp(): string {
  fs.rmSync(EMPTY, { recursive: true, force: true });
  fs.mkdirSync(path.join(EMPTY, 'app'), { recursive: true });
  for (const file of ['package.json', 'app.json', 'babel.config.js'])
    fs.copyFileSync(path.join(CLIENT, file), path.join(EMPTY, file));
  fs.cpSync(path.join(CLIENT, 'assets'), path.join(EMPTY, 'assets'), { recursive: true });
  fs.writeFileSync(
    path.join(EMPTY, 'metro.config.js'),
    `const config = require('expo/metro-config').getDefaultConfig(__dirname);\nconfig.watchFolders = [${JSON.stringify(ROOT)}];\n` +
      `config.resolver.nodeModulesPaths = [${JSON.stringify(path.join(ROOT, 'node_modules'))}];\nmodule.exports = config;\n`,
  );
  fs.writeFileSync(path.join(EMPTY, 'app/index.tsx'), EMPTY_PAGE);
  fs.writeFileSync(path.join(EMPTY, 'Chart.tsx'), `export { LineChart as default } from 'react-native-chart-kit';\n`);
  const env = { ...process.env, CI: '1', EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', NODE_ENV: 'production' };
  const done = spawnSync(process.execPath, [path.join(ROOT, 'node_modules/expo/bin/cli'), 'export', '-p', 'web'], {
    cwd: EMPTY,
    env,
    encoding: 'utf8',
  });
  if (done.status !== 0) throw new Error(done.stdout + done.stderr);
  return path.join(EMPTY, 'dist');
}

interface Served {
  url: string;
  machineId: string;
  surfaceId: string;
  /** The lead's session. */
  cookie: string;
  /** Who is signed in, as a device remembers it. */
  remembered: string;
  close: () => Promise<void>;
}

async function serve(clientFolder: string): Promise<Served> {
  const db = connect(':memory:');
  await migrate(db);
  await loadDemo(db, { now: Date.now(), seed: 'bench', consoleBasePort: 1 });
  const server = buildApp({ db, log: pino({ level: 'silent' }), clientFolder }).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { id } = (await db('machines').where({ name: 'Dunlin' }).first()) as { id: string };
  const surface = (await db('surfaces').where({ tag: 'S-014' }).first()) as { id: string };
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const { name, secret } = PEOPLE[0];
  const entered = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name, secret }),
  });
  const [, cookie] = /even-bed-session=([^;]+)/.exec(entered.headers.get('set-cookie') ?? '')!;
  const { person, manner } = (await entered.json()) as SessionState;
  return {
    url,
    remembered: JSON.stringify({ person, manner, shared: false, lockedHere: false, names: [] }),
    machineId: id,
    surfaceId: surface.id,
    cookie: cookie!,
    close: async () => {
      server.closeAllConnections();
      server.close();
      await db.destroy();
    },
  };
}

/** A phone on which somebody is signed in, and that knows it: the first script asks for somebody's views alone. */
async function signedIn(
  browser: Browser,
  { url, cookie, remembered }: Served,
  serviceWorkers: 'allow' | 'block' = 'block',
): Promise<BrowserContext> {
  const context = await browser.newContext({ viewport: PHONE, serviceWorkers });
  await context.addCookies([{ name: 'even-bed-session', value: cookie, url }]);
  await context.addInitScript((people) => localStorage.setItem('even-bed/device/people', people), remembered);
  return context;
}

/** The scripts that a page asks for until it rests, each once, gzipped: KiB. Workers don't hold a view up and don't count. */
async function scriptsOf(browser: Browser, served: Served, address: string): Promise<number> {
  const { url } = served;
  const context = await signedIn(browser, served);
  const page = await context.newPage();
  const sizes = new Map<string, Promise<number>>();
  page.on('response', (response) => {
    const request = response.request();
    if (request.resourceType() !== 'script' || /heights-/.test(response.url())) return;
    sizes.set(
      response.url(),
      response.body().then(
        (body) => gzipSync(body).length,
        () => 0,
      ),
    );
  });
  await page.goto(url + address, { waitUntil: 'networkidle' });
  // On a slow machine the network rests while the first script is read: what it asks for comes after.
  await page.waitForTimeout(4_000);
  await page.waitForLoadState('networkidle');
  const all = await Promise.all(sizes.values());
  await context.close();
  return all.reduce((sum, size) => sum + size, 0) / 1024;
}

/** Times from the start until a view shows what it is for, on a processor four times slower, and what moved on it. */
interface Seen {
  first: number;
  /** With the files kept by the service worker of the visit before; null: not measured. */
  second: number | null;
  /** Cumulative layout shift. */
  shift: number;
}

async function visit(
  browser: Browser,
  served: Served,
  [address, wanted]: [address: string, wanted: string],
  again: boolean,
): Promise<Seen> {
  const { url } = served;
  const context = await signedIn(browser, served, again ? 'allow' : 'block');
  const page: Page = await context.newPage();
  await page.addInitScript(() => {
    const shifts = { sum: 0 };
    Object.assign(window, { shifts });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[])
        if (!entry.hadRecentInput) shifts.sum += entry.value;
    }).observe({ type: 'layout-shift', buffered: true });
  });
  const session = await context.newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const come = async () => {
    const start = Date.now();
    await page.goto(url + address);
    await page.locator(wanted).first().waitFor();
    return Date.now() - start;
  };
  const first = await come();
  await page.waitForTimeout(1_000);
  const shift = await page.evaluate(() => (window as unknown as { shifts: { sum: number } }).shifts.sum);
  let second: number | null = null;
  if (again) {
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready;
    });
    await page.waitForTimeout(6_000);
    second = await come();
  }
  await context.close();
  return { first, second, shift };
}

const median = (times: number[]) => times.sort((p, q) => p - q)[times.length >> 1]!;

async function main(): Promise<void> {
  const emptyFolder = exportEmptyApp();
  const empty = await serve(emptyFolder);
  const ours = await serve(path.join(CLIENT, 'dist'));
  const browser = await chromium.launch({
    executablePath: process.env['EVEN_BED_CHROMIUM'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const base = process.argv.length > 2 ? 0 : await scriptsOf(browser, empty, '/');
  const routes: [string, string, string][] = [
    ['/bench', '/bench', 'due-list'],
    ['/floor', '/floor', 'machine-Dunlin'],
    ['/floor/<machine>', `/floor/${ours.machineId}`, 'level-history'],
    ['/floor/<machine>/edit', `/floor/${ours.machineId}/edit`, 'field-name'],
    ['/rack', '/rack', 'surface-B-001'],
    ['/rack/<surface>', `/rack/${ours.surfaceId}`, 'life'],
    ['/mount', `/mount?machine=${ours.machineId}`, 'find-surface'],
    ['/prints', '/prints', 'prints-search'],
    ['/book', '/book', 'book-older'],
  ];
  for (const [name, address] of process.argv.length > 2 ? [] : routes) {
    const size = await scriptsOf(browser, ours, address);
    report(`initial JavaScript of ${name}`, {
      ours: size,
      other: base,
      otherName: 'empty app of the same kit',
      unit: 'KiB gzipped',
      ratio: `${(size / base).toFixed(2)} times`,
      aim: 'at most 1.2 times',
      met: size / base <= 1.2,
    });
  }
  // The empty app and ours by turns: what the machine does beside falls on both. Views named on the line are seen alone.
  const only = process.argv.slice(2);
  const rounds = 5;
  const emptyTimes: number[] = [];
  const views = routes.filter(([name]) => only.length === 0 || only.includes(name));
  const seen = new Map(views.map(([name]) => [name, [] as Seen[]]));
  for (let round = 0; round < rounds; round++)
    for (const [name, address, testId] of views) {
      emptyTimes.push((await visit(browser, empty, ['/', 'input'], false)).first);
      const again = name === '/bench';
      seen.get(name)!.push(await visit(browser, ours, [address, `[data-testid="${testId}"]`], false));
      if (again) seen.get(name)!.push(await visit(browser, ours, [address, `[data-testid="${testId}"]`], true));
    }
  const bare = median(emptyTimes);
  for (const [name, visits] of seen) {
    const first = median(visits.filter(({ second }) => second === null).map((one) => one.first));
    report(`first useful view of ${name}, processor 4 times slower`, {
      ours: first,
      other: bare,
      otherName: 'first field of the empty app',
      unit: 'ms',
      ratio: `${(first / bare).toFixed(2)} times`,
      aim: 'at most 1.15 times',
      met: first / bare <= 1.15,
    });
    const later = visits.flatMap(({ second }) => second ?? []);
    if (later.length > 0)
      report(`second visit of ${name}`, {
        ours: median(later),
        other: bare,
        otherName: 'first visit of the empty app',
        unit: 'ms',
        ratio: `${(median(later) / bare).toFixed(2)} times`,
        aim: 'at most 0.6 times',
        met: median(later) / bare <= 0.6,
      });
    console.log(`measured layout shift of ${name}: ${Math.max(...visits.map(({ shift }) => shift)).toFixed(3)}`);
  }
  await browser.close();
  await empty.close();
  await ours.close();
}

void main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
