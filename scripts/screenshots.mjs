// Takes the pictures of docs/screenshots from the demo data, through the real server.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium } from 'playwright-core';
import { ensureChromium, ensureClient, ensurePackages, ROOT } from './ensure.mjs';

ensurePackages();
ensureClient();
const executablePath = ensureChromium();
const folder = path.join(ROOT, 'docs/screenshots');
const env = {
  ...process.env,
  PORT: '4899',
  EVEN_BED_DATA: fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-pictures-')),
  EVEN_BED_CONSOLES: '4860',
  EVEN_BED_PACE: '3',
};
const server = (file) => ['--import', 'tsx', path.join(ROOT, 'apps/server/src', file)];
spawnSync(process.execPath, server('demoData.ts'), { cwd: ROOT, env, stdio: 'inherit' });
const children = ['simulateMachines.ts', 'main.ts'].map((file) =>
  spawn(process.execPath, server(file), { cwd: ROOT, env }),
);
const url = `http://127.0.0.1:${env.PORT}`;
for (let i = 0; i < 100; i++) {
  if (
    await fetch(`${url}/api/health`).then(
      (r) => r.ok,
      () => false,
    )
  )
    break;
  await new Promise((resolve) => setTimeout(resolve, 200));
}
const { demo } = await (await fetch(`${url}/api/session`)).json();
const lead = demo.find(({ role }) => role === 'lead');
const entered = await fetch(`${url}/api/session`, {
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify({ name: lead.name, secret: lead.secret }),
});
const [, session] = /even-bed-session=([^;]+)/.exec(entered.headers.get('set-cookie'));
const get = async (address) =>
  (await fetch(`${url}/api${address}`, { headers: { Cookie: `even-bed-session=${session}` } })).json();
const { items } = await get('/machines');
const idOf = (name) => items.find((machine) => machine.name === name).id;

const browser = await chromium.launch({
  executablePath,
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const open = async (width, height, colorScheme = 'light') => {
  const context = await browser.newContext({
    viewport: { width, height },
    colorScheme,
    serviceWorkers: 'block',
    baseURL: url,
    reducedMotion: 'reduce',
  });
  await context.addCookies([{ name: 'even-bed-session', value: session, url }]);
  return context.newPage();
};
const settle = (page) => page.waitForTimeout(900);
const shoot = async (page, name) => {
  await settle(page);
  await page.screenshot({ path: path.join(folder, `${name}.png`) });
};
const check = async (page, name) => {
  await page.goto(`/floor/${idOf(name)}`);
  await page.getByTestId('check-level').click();
  await page.getByTestId('way').waitFor();
};
const scan = async (page) => {
  await page.getByTestId('scan').click();
  await page.getByTestId('plan-turns').waitFor();
};

const phone = await open(390, 844);
await phone.goto('/bench');
await phone.getByTestId('due-list').waitFor();
await shoot(phone, 'bench-phone');
await phone.goto(`/floor/${idOf('Godwit')}`);
await phone.getByTestId('level-history').waitFor();
await shoot(phone, 'machine-phone');
await phone.goto('/book?search=whimbrel');
await phone.getByTestId('book-older').waitFor();
await shoot(phone, 'book-phone');
await check(phone, 'Knot');
await phone.getByTestId('way-typed').click();
for (const [cell, height] of Object.entries({
  '0-0': '0,05',
  '0-1': '0,08',
  '0-2': '0,12',
  '1-0': '0,01',
  '1-1': '0,04',
  '1-2': '0,09',
  '2-0': '\u22120,02',
})) {
  await phone.getByTestId(`cell-${cell}`).fill(height);
}
await shoot(phone, 'heights-phone');
await check(phone, 'Dunlin');
await scan(phone);
await shoot(phone, 'turns-phone');

const tagged = async (tag) => (await get(`/tags/${tag}`)).id;
const fading = await tagged('S-014');
await phone.goto(`/rack/${fading}`);
await phone.getByTestId('life').waitFor();
await phone.getByTestId('life').scrollIntoViewIfNeeded();
await shoot(phone, 'surface-phone');
await phone.goto(`/tools/light?machine=${idOf('Turnstone')}`);
for (const lit of [true, true, false, false]) {
  await phone.getByTestId('light-plan').waitFor();
  if (lit) {
    await phone.getByTestId('lit-middle').click();
    await phone.getByTestId('next-line').click();
  } else await phone.getByTestId('no-light').click();
  await settle(phone);
}
await phone.getByTestId('lit-middle').click();
await phone.getByTestId('light-so-far').waitFor();
await phone.getByTestId('light-plan').scrollIntoViewIfNeeded();
await shoot(phone, 'light-phone');
await phone.goto(`/tools/strips?machine=${idOf('Plover')}`);
const surveys = await get(`/shapes?machineId=${idOf('Plover')}`);
await phone.getByTestId('strip-source').click();
await phone.getByTestId(`strip-source-${surveys.items.find(({ kind }) => kind === 'light').id}`).click();
await phone.getByTestId('tape-pieces').fill('4');
await phone.getByTestId('tape-thickness').fill('0.30');
await phone.getByTestId('tape-want-few').click();
await phone.getByTestId('strips-after').waitFor({ timeout: 60_000 });
await settle(phone);
await phone.getByTestId('strip-1').scrollIntoViewIfNeeded();
await shoot(phone, 'strips-phone');

await phone.goto('/tools/stack');
await phone.getByTestId('moves-head').click();
await phone.getByTestId('home-surface').click();
await phone.getByTestId('stack-sentence').getByText('1. ', { exact: false }).waitFor();
await phone.getByTestId('stack-compare').scrollIntoViewIfNeeded();
await shoot(phone, 'stack-phone');
await phone.goto(`/jobs/new?procedure=fit-base-and-sheet&machine=${idOf('Avocet')}`);
for (const part of ['part-base', 'part-sheet']) {
  await phone.getByTestId(part).click();
  await phone.getByTestId(`${part}-`).click();
  await settle(phone);
}
await phone.getByTestId('begin-job').click();
await phone.getByTestId('manner').click();
await phone.getByTestId('reading-measure-base').fill('1.4');
await phone.getByTestId('reading-measure-sheet').fill('0.5');
await phone.getByTestId('check-size-0').click();
await phone.getByTestId('step-done').click();
await phone.getByTestId('card-degrease').waitFor();
// A tap too soon after another is taken for a bounce.
await settle(phone);
await phone.getByTestId('answer-so').click();
await phone.getByTestId('tap-anywhere').waitFor();
await shoot(phone, 'job-phone');

await phone.goto(`/jobs/new?procedure=level-resin&machine=${idOf('Stilt')}`);
await phone.getByTestId('ready-at').waitFor();
await settle(phone);
await phone.getByTestId('begin-job').click();
await phone.getByTestId('card-ready').waitFor();
if ((await phone.getByTestId('manner').innerText()) === 'step by step') await phone.getByTestId('manner').click();
await settle(phone);
for (const tick of await phone.getByTestId(/^check-/).all()) await tick.click();
for (const [button, card] of [
  ['step-done', 'lower'],
  ['answer-touching', 'press'],
  ['step-done', 'tug'],
]) {
  await settle(phone);
  await phone.getByTestId(button).click();
  await phone.getByTestId(`card-${card}`).waitFor();
}
for (const key of [1, 1, 1, 0]) await phone.getByTestId(`tug-key-${key}`).click();
await phone.getByTestId('tug-plan').scrollIntoViewIfNeeded();
await shoot(phone, 'tugs-phone');

const dark = await open(390, 844, 'dark');
await check(dark, 'Redshank');
await dark.getByTestId('way-felt').click();
for (const i of [0, 1]) await dark.getByTestId(`feel-gate-${i}`).click();
await dark.getByTestId('begin-feel').click();
await settle(dark);
await dark.getByTestId('feel-free').click();
await settle(dark);
await dark.getByTestId('feel-turned').click();
await shoot(dark, 'feel-phone-dark');

const wide = await open(1280, 800);
await wide.goto('/floor');
await wide.getByTestId('machine-Dunlin').waitFor();
await shoot(wide, 'floor-wide');
await wide.goto(`/floor/${idOf('Whimbrel')}`);
await wide.getByTestId('level-history').waitFor();
await shoot(wide, 'machine-wide');
await wide.goto(`/rack/${fading}`);
await wide.getByTestId('life').waitFor();
await shoot(wide, 'rack-wide');
await wide.goto(`/floor/${idOf('Curlew')}/level`);
await wide.getByTestId('span-trend').waitFor();
await shoot(wide, 'levels-wide');
await wide.goto(`/floor/${idOf('Whimbrel')}/maps`);
await wide.getByTestId('change-words').waitFor();
await shoot(wide, 'maps-wide');
await wide.goto('/tools/blanks');
await wide.getByTestId('blanks-drawing').waitFor();
await shoot(wide, 'blanks-wide');
await check(wide, 'Greenshank');
await scan(wide);
await shoot(wide, 'turns-wide');

await browser.close();
for (const child of children) child.kill('SIGTERM');
fs.rmSync(env.EVEN_BED_DATA, { recursive: true, force: true });
