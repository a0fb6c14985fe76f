import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { DemoAccount, Role, SessionState } from '@even-bed/contract';
import { chromium, type Browser, type BrowserContext, type Page } from 'playwright-core';

const ROOT = path.join(__dirname, '..');
const SERVER = path.join(ROOT, 'apps/server/src');
/** Each worker of the test run has ports of its own. */
const BASE = 5200 + 200 * Number(process.env['JEST_WORKER_ID'] ?? 1);
let nextPort = BASE + 100;

export const PHONE = { width: 390, height: 844 };
export const WIDE = { width: 1280, height: 800 };

interface Options {
  /** The Saltmarsh Print Hall with its simulated machines; otherwise an empty shop. */
  demo?: boolean;
  /** Time of one simulated reading, ms. */
  paceMs?: number;
  /** Leaves an empty shop without its first account. */
  unclaimed?: boolean;
  /** A film (Y4M) that the browser takes for what its camera sees. */
  camera?: string;
}

/** The lead of an empty shop's tests. */
export const LEAD = { id: '01935f00-0000-7000-8000-00000000000a', name: 'Tess Marl', secret: 'a long evening' };

interface PageOptions {
  dark?: boolean;
  offlineApp?: boolean;
  /** Role or name of who is signed in; null: nobody. The lead when left out. */
  as?: Role | string | null;
  /** Time zone of the device. */
  zone?: string;
}

/** The demo's story goes by the minute: a copy is good for this long. */
const FRESH_MS = 4 * 60_000;

/**
 * The demo shop, loaded once for several files of tests of one run: loading it takes longer than most of them.
 * @returns a folder to copy from
 */
function demoFolder(env: NodeJS.ProcessEnv): string {
  // One for each of the run's hands: their simulated machines listen at ports of their own.
  const folder = path.join(os.tmpdir(), `even-bed-e2e-demo-${process.ppid}-${BASE}`);
  const done = path.join(folder, 'loaded');
  if (fs.existsSync(done) && Date.now() - fs.statSync(done).mtimeMs < FRESH_MS) return path.join(folder, 'data');
  fs.rmSync(folder, { recursive: true, force: true });
  const loaded = spawnSync(process.execPath, ['--import', 'tsx', path.join(SERVER, 'demoData.ts')], {
    cwd: ROOT,
    env: { ...env, EVEN_BED_DATA: path.join(folder, 'data') },
    encoding: 'utf8',
  });
  if (loaded.status !== 0) throw new Error(loaded.stderr);
  fs.writeFileSync(done, '');
  return path.join(folder, 'data');
}

/** A server on its own data folder, simulated machines beside it, and a browser. */
export class TestShop {
  private server: ChildProcess | null = null;
  private machines: ChildProcess | null = null;
  private browser: Browser | null = null;
  /** Session cookies by person, from the API. */
  private readonly cookies = new Map<string, string>();
  private readonly folder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-e2e-'));
  private readonly port = nextPort++;
  readonly url = `http://127.0.0.1:${this.port}`;

  private constructor(private readonly options: Options) {}

  static async open(options: Options = {}): Promise<TestShop> {
    const shop = new TestShop(options);
    if (options.demo) {
      fs.cpSync(demoFolder(shop.env()), shop.folder, { recursive: true });
      shop.machines = spawn(process.execPath, ['--import', 'tsx', path.join(SERVER, 'simulateMachines.ts')], {
        cwd: ROOT,
        env: shop.env(),
      });
      await said(shop.machines, /listen from port/);
    }
    await shop.startServer();
    if (!options.demo && !options.unclaimed)
      shop.keep(LEAD.name, await shop.post('/people/first', { ...LEAD, code: shop.firstCode, at: 1 }));
    shop.browser = await chromium.launch({
      executablePath: process.env['EVEN_BED_CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        ...['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-quic', '--no-first-run'],
        ...(options.camera === undefined
          ? []
          : [
              '--use-fake-ui-for-media-stream',
              '--use-fake-device-for-media-stream',
              `--use-file-for-fake-video-capture=${options.camera}`,
            ]),
      ],
    });
    return shop;
  }

  private env(): NodeJS.ProcessEnv {
    return {
      ...process.env,
      PORT: String(this.port),
      EVEN_BED_DATA: this.folder,
      EVEN_BED_BACKUPS: '0',
      EVEN_BED_CONSOLES: String(BASE),
      EVEN_BED_PACE: String(this.options.paceMs ?? 3),
      LOG_LEVEL: 'error',
    };
  }

  /** What the server asks of the first account. */
  firstCode = '';

  /** @param aheadMs how far the server's clock stands ahead, as after a wait */
  async startServer(aheadMs = 0): Promise<void> {
    const clock = aheadMs === 0 ? [] : ['--import', path.join(ROOT, 'e2e/clockAhead.mjs')];
    this.server = spawn(process.execPath, [...clock, '--import', 'tsx', path.join(SERVER, 'main.ts')], {
      cwd: ROOT,
      env: { ...this.env(), CLOCK_AHEAD_MS: String(aheadMs) },
    });
    const told = await said(this.server, /is open at/);
    this.firstCode = /code (\d{6})/.exec(told)?.[1] ?? this.firstCode;
  }

  /** Ends the server as a power cut would. */
  async killServer(): Promise<void> {
    const { server } = this;
    if (!server || server.exitCode !== null) return;
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGKILL');
    await gone;
  }

  private post(address: string, body: unknown): Promise<Response> {
    return fetch(`${this.url}/api${address}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  }

  private keep(name: string, response: Response): string {
    if (!response.ok) throw new Error(`sign-in of ${name}: ${response.status}`);
    const [, token] = /even-bed-session=([^;]+)/.exec(response.headers.get('set-cookie') ?? '')!;
    this.cookies.set(name, token!);
    return token!;
  }

  /** A session of somebody: of the demo by role, otherwise the lead. */
  private async token(who?: string): Promise<string> {
    if (!this.options.demo) return this.cookies.get(LEAD.name)!;
    const state = (await (await fetch(`${this.url}/api/session`)).json()) as SessionState;
    const account = state.demo!.find(({ role, name }) => role === (who ?? 'lead') || name === who)!;
    return (
      this.cookies.get(account.name) ??
      this.keep(account.name, await this.post('/session', { name: account.name, secret: account.secret }))
    );
  }

  /** An account of the demo by its role. */
  async account(role: Role): Promise<DemoAccount> {
    const state = (await (await fetch(`${this.url}/api/session`)).json()) as SessionState;
    return state.demo!.find((known) => known.role === role)!;
  }

  async context(size = PHONE, more: PageOptions = {}): Promise<BrowserContext> {
    const context = await this.browser!.newContext({
      viewport: size,
      colorScheme: more.dark ? 'dark' : 'light',
      reducedMotion: 'reduce',
      ...(more.zone === undefined ? {} : { timezoneId: more.zone }),
      serviceWorkers: more.offlineApp ? 'allow' : 'block',
      baseURL: this.url,
    });
    context.setDefaultTimeout(20_000);
    if (more.as !== null && !this.options.unclaimed)
      await context.addCookies([{ name: 'even-bed-session', value: await this.token(more.as), url: this.url }]);
    return context;
  }

  async page(size = PHONE, more: PageOptions = {}): Promise<Page> {
    const page = await (await this.context(size, more)).newPage();
    page.on('pageerror', (error) => {
      throw error;
    });
    return page;
  }

  /** What the API answers to a GET. */
  async get<T>(address: string): Promise<T> {
    const response = await fetch(`${this.url}/api${address}`, {
      headers: { Cookie: `even-bed-session=${await this.token()}` },
    });
    if (!response.ok) throw new Error(`${address}: ${response.status}`);
    return (await response.json()) as T;
  }

  /** A write through the API, by the lead. */
  async put(address: string, body: unknown): Promise<void> {
    const response = await fetch(`${this.url}/api${address}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', Cookie: `even-bed-session=${await this.token()}` },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${address}: ${response.status} ${await response.text()}`);
  }

  async machineId(name: string): Promise<string> {
    const { items } = await this.get<{ items: { id: string; name: string }[] }>('/machines');
    return items.find((machine) => machine.name === name)!.id;
  }

  async close(): Promise<void> {
    await this.browser?.close();
    for (const child of [this.server, this.machines]) child?.kill('SIGKILL');
    fs.rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Opens a part of a page that is folded on a phone; on a wide screen it is open. */
export async function unfold(page: Page, testId: string): Promise<void> {
  await page.getByTestId(testId).waitFor();
  const fold = page.locator(`[data-testid="${testId}-fold"][aria-expanded=false]`);
  if ((await fold.count()) > 0) await fold.click();
}

/** Waits until a process says something; fails with its words when it ends first. */
function said(child: ChildProcess, what: RegExp): Promise<string> {
  return new Promise((resolve, reject) => {
    let all = '';
    const onData = (chunk: Buffer) => {
      all += chunk.toString();
      if (what.test(all)) resolve(all);
    };
    child.stdout!.on('data', onData);
    child.stderr!.on('data', onData);
    child.once('exit', () => reject(new Error(`ended early: ${all}`)));
  });
}

/** Hands a file to whatever a press asks one for. */
export async function hand(
  page: Page,
  testId: string,
  file: { name: string; mimeType: string; buffer: Buffer },
): Promise<void> {
  const asked = page.waitForEvent('filechooser');
  await page.getByTestId(testId).click();
  await (await asked).setFiles(file);
}

/** Chooses an option of a list that opens. */
export async function choose(page: Page, testId: string, option: string): Promise<void> {
  await page.getByTestId(testId).click();
  await page.getByTestId(`${testId}-${option}`).click();
  // A list that still closes is not opened again by any hand.
  await page.getByTestId(`${testId}-${option}`).waitFor({ state: 'detached' });
  await uncovered(page);
}

/** Waits until what lay over the page has taken its entry out of the browser's history. */
export const uncovered = (page: Page) =>
  page.waitForFunction(() => (history.state as { evenBedOver?: boolean } | null)?.evenBedOver !== true);

/** Opens a machine's page and begins, or goes on with, its check. */
export async function beginCheck(page: Page, machineId: string): Promise<void> {
  await page.goto(`/floor/${machineId}`);
  await page.getByTestId('check-level').click();
  await page.getByTestId('way').waitFor();
}

/** Has the machine read its heights; ends at the plan. */
export async function scan(page: Page): Promise<void> {
  await page.getByTestId('scan').click();
  await page.getByTestId('plan-turns').waitFor();
}

/**
 * Stands in for the device's voice, on every page that is opened after it.
 * @returns what has been said since the voice was last silenced: each its language and its words.
 */
export async function listen(page: Page): Promise<() => Promise<string[]>> {
  await page.addInitScript(() => {
    const said: string[] = [];
    Object.assign(window, { said });
    class Utterance {
      lang = '';
      constructor(readonly text: string) {}
    }
    Object.assign(window, { SpeechSynthesisUtterance: Utterance });
    Object.defineProperty(window, 'speechSynthesis', {
      value: { speak: ({ text, lang }: Utterance) => said.push(`${lang} ${text}`), cancel: () => said.splice(0) },
    });
  });
  return () => page.evaluate(() => [...(window as unknown as { said: string[] }).said]);
}

/** Presses Tab until the focus is where it should be, as somebody without a mouse does. */
export async function tabTo(page: Page, testId: string): Promise<void> {
  for (let presses = 0; presses < 120; presses++) {
    const here = await page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset['testid']);
    if (here === testId) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`${testId} can't be reached by Tab`);
}

/** A height in mm as a figure shows it. */
export async function figure(page: Page, testId: string): Promise<number> {
  const text = await page.getByTestId(testId).innerText();
  return Number(text.replace('\u2212', '-').replace(/[^\d.-]/g, ''));
}

/** The check whose page is open, as the server has it, once a condition holds. */
export async function serverCheck<T>(shop: TestShop, page: Page, holds: (check: T) => boolean): Promise<T> {
  const id = new URL(page.url()).pathname.split('/').pop()!;
  return eventually(async () => {
    const check = await shop.get<T>(`/level-checks/${id}`);
    if (!holds(check)) throw new Error(`not yet: ${JSON.stringify(check).slice(0, 300)}`);
    return check;
  });
}

/** Tries until it doesn't throw, for ten seconds. */
export async function eventually<T>(attempt: () => Promise<T>): Promise<T> {
  for (const start = Date.now(); ;) {
    try {
      return await attempt();
    } catch (error) {
      if (Date.now() - start > 10_000) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}

/** Waits until the app takes a tap in the same place again: right after another it would be a bounced one. */
export const rested = (page: Page) => page.locator('html:not([data-resting])').waitFor({ state: 'attached' });

/** A tap that is no bounce of the one before, and what it changes under the finger. */
export async function tap(page: Page, testId: string): Promise<void> {
  await rested(page);
  await page.getByTestId(testId).click();
  await rested(page);
}
