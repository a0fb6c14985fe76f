import fs from 'node:fs';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import pino from 'pino';
import { chromium } from 'playwright-core';
import { connect, migrate } from '../apps/server/src/db/connect';
import { loadDemo } from '../apps/server/src/demo/loadDemo';
import { PEOPLE } from '../apps/server/src/demo/saltmarsh';
import { buildApp } from '../apps/server/src/app/app';
const ROOT = path.join(import.meta.dirname, '..');
const folder = process.argv[2] ?? path.join(ROOT, 'apps/client/dist');
let addr = process.argv[3] ?? '/bench';
const testId = process.argv[4] ?? 'due-list';
const sw = process.argv[5] === 'sw';
(async () => {
  const db = connect(':memory:');
  await migrate(db);
  await loadDemo(db, { now: Date.now(), seed: 'bench', consoleBasePort: 1 });
  const server = buildApp({ db, log: pino({ level: 'silent' }), clientFolder: folder }).listen(0, '127.0.0.1');
  await new Promise((r) => server.once('listening', r));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const { name, secret } = PEOPLE[0];
  const entered = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name, secret }),
  });
  const [, cookie] = /even-bed-session=([^;]+)/.exec(entered.headers.get('set-cookie') ?? '')!;
  const mm = (await db('machines').where({ name: 'Dunlin' }).first()) as any; const ss = (await db('surfaces').where({ tag: 'S-014' }).first()) as any;
  addr = addr.replace('MACHINE', mm.id).replace('SURFACE', ss.id);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const times: number[] = [];
  const second: number[] = [];
  let shift: number[] = [];
  const N = Number(process.env.N ?? 5);
  for (let i = 0; i < N; i++) {
    const context = await browser.newContext({
      viewport: { width: 390, height: 844 },
      serviceWorkers: sw ? 'allow' : 'block',
    });
    await context.addCookies([{ name: 'even-bed-session', value: cookie!, url }]);
    const page = await context.newPage();
    const s = await context.newCDPSession(page);
    await s.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    await page.addInitScript(() => {
      (window as any).__cls = 0;
      (window as any).__tasks = [];
      (window as any).__paints = [];
      new PerformanceObserver((l) => {
        for (const e of l.getEntries() as any) {
          if (!e.hadRecentInput) {
            (window as any).__cls += e.value;
            (window as any).__paints.push([
              'shift',
              Math.round(e.startTime),
              e.value.toFixed(3),
              (e.sources ?? []).map((x: any) => (x.node?.getAttribute?.('data-testid') ?? x.node?.tagName) + ' ' + Math.round(x.previousRect.y) + '+' + Math.round(x.previousRect.height) + '→' + Math.round(x.currentRect.y) + '+' + Math.round(x.currentRect.height) + ' ' + (x.node?.textContent ?? '').slice(0, 40)).join(' | '),
            ]);
          }
        }
      }).observe({ type: 'layout-shift', buffered: true });
      new PerformanceObserver((l) => {
        for (const e of l.getEntries()) (window as any).__tasks.push([Math.round(e.startTime), Math.round(e.duration)]);
      }).observe({ type: 'longtask', buffered: true });
    });
    const start = Date.now();
    await page.goto(url + addr);
    await page.getByTestId(testId).waitFor();
    times.push(Date.now() - start);
    if (i === N - 1 && !sw) {
      const info = await page.evaluate(() => ({
        res: performance
          .getEntriesByType('resource')
          .map((e: any) => [
            Math.round(e.startTime),
            Math.round(e.responseEnd),
            e.name.replace(location.origin, '').slice(-70),
          ]),
        tasks: (window as any).__tasks,
        paint: performance.getEntriesByType('paint').map((e) => [e.name, Math.round(e.startTime)]),
        shifts: (window as any).__paints,
      }));
      console.log(JSON.stringify(info.res).replaceAll('],', '],\n'));
      console.log('tasks', JSON.stringify(info.tasks));
      console.log('paint', JSON.stringify(info.paint));
      await page.waitForTimeout(1500);
      console.log(
        'shifts',
        JSON.stringify(await page.evaluate(() => (window as any).__paints)).replaceAll('],', '],\n'),
      );
    }
    await page.waitForTimeout(1500);
    shift.push(await page.evaluate(() => (window as any).__cls));
    if (sw) {
      await page.waitForTimeout(4000);
      const start2 = Date.now();
      await page.goto(url + addr);
      await page.getByTestId(testId).waitFor();
      second.push(Date.now() - start2);
    }
    await context.close();
  }
  console.log('first', times.join(' '), 'second', second.join(' '), 'cls', shift.map((x) => x.toFixed(3)).join(' '));
  await browser.close();
  server.closeAllConnections();
  server.close();
  await db.destroy();
  process.exit(0);
})();
