import { spawn, type ChildProcess } from 'node:child_process';
import { createHash, X509Certificate } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import tls from 'node:tls';
import { chromium, type Browser, type BrowserContext, type Page } from 'playwright-core';
import { eventually, PHONE } from './shop';

const ROOT = path.resolve(__dirname, '..');
/** A name of the shop's own, looked up as this host: no browser takes it for a page of its own host. */
const NAME = 'bench.local';
const SECRET = 'tide and tern 7';

interface Hall {
  url: string;
  said: string;
  port: number;
  close: () => void;
}

/** A server that is open to the shop's network, on a folder of its own. */
async function hall(env: Record<string, string> = {}): Promise<Hall> {
  const data = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-e2e-https-'));
  const child: ChildProcess = spawn(process.execPath, ['--import', 'tsx', path.join(ROOT, 'apps/server/src/main.ts')], {
    cwd: ROOT,
    env: {
      ...process.env,
      ...{ PORT: '0', EVEN_BED_DATA: data, EVEN_BED_BACKUPS: '0', EVEN_BED_HOST: '0.0.0.0', EVEN_BED_HOSTS: NAME },
      ...{ LOG_LEVEL: 'error', ...env },
    },
  });
  let said = '';
  const wanted = env['EVEN_BED_HTTPS'] === 'none' ? /data lies/ : /Fingerprint/;
  await new Promise<void>((resolve, reject) => {
    child.stdout!.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      if (wanted.test(said)) resolve();
    });
    child.stderr!.on('data', (chunk: Buffer) => (said += chunk.toString()));
    child.once('exit', () => reject(new Error(`ended early: ${said}`)));
  });
  const [, scheme, port] = /open at (https?):\/\/[^:]+:(\d+)/.exec(said)!;
  return {
    url: `${scheme}://${NAME}:${port}`,
    said,
    port: Number(port),
    close: () => {
      child.kill('SIGKILL');
      fs.rmSync(data, { recursive: true, force: true });
    },
  };
}

/**
 * A browser in which the shop's certificate counts as trusted: by its key (SPKI, RFC 7469), since no list of authorities can
 * be added to here. That the authority carries it is held by OpenSSL in the server's tests.
 */
async function trusting({ port }: Hall): Promise<Browser> {
  const cert = await new Promise<X509Certificate>((resolve, reject) => {
    const socket = tls.connect({ host: '127.0.0.1', port, servername: NAME, rejectUnauthorized: false }, () => {
      resolve(new X509Certificate(socket.getPeerCertificate().raw));
      socket.destroy();
    });
    socket.on('error', reject);
  });
  const key = cert.publicKey.export({ type: 'spki', format: 'der' });
  return launch([`--ignore-certificate-errors-spki-list=${createHash('sha256').update(key).digest('base64')}`]);
}

const launch = (more: readonly string[] = []) =>
  chromium.launch({
    executablePath: process.env['EVEN_BED_CHROMIUM'] ?? '/usr/bin/chromium',
    args: [
      ...['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-quic', '--no-first-run'],
      ...['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'],
      `--host-resolver-rules=MAP ${NAME} 127.0.0.1`,
      ...more,
    ],
  });

async function phone(browser: Browser, url: string, more: Parameters<Browser['newContext']>[0] = {}) {
  const context = await browser.newContext({ viewport: PHONE, baseURL: url, reducedMotion: 'reduce', ...more });
  context.setDefaultTimeout(20_000);
  return { context, page: await context.newPage() };
}

async function firstAccount(page: Page, { said }: Hall): Promise<void> {
  await page.goto('/');
  await page.getByTestId('first-code').fill(/code (\d{6})/.exec(said)![1]!);
  await page.getByTestId('first-name').fill('Merle Quay');
  for (const field of ['first-secret', 'first-again']) await page.getByTestId(field).fill(SECRET);
  await page.getByTestId('first-go').click();
  await page.getByTestId('bench').waitFor();
}

const device = (page: Page, what: string) => page.getByTestId(`device-${what}`).innerText();
const offline = async (context: BrowserContext, is: boolean) => context.setOffline(is);

test('trusted: a second person’s phone gets in by the code, and works without a signal, with camera, alarms and knocks', async () => {
  const shop = await hall();
  const browser = await trusting(shop);
  try {
    const lead = await phone(browser, shop.url);
    await firstAccount(lead.page, shop);
    await lead.page.goto('/people');
    await lead.page.getByTestId('add-person').click();
    await lead.page.getByTestId('person-name').fill('Otto Reedmace');
    await lead.page.getByTestId('person-secret').fill('482915');
    await lead.page.getByTestId('person-save').click();
    const added = lead.page.getByTestId('person-added');
    await added.waitFor();
    const address = await added.getByTestId('way-in-address').innerText();
    expect(address).toBe(`http://${NAME}:${shop.port}/trust`);
    expect(await added.getByTestId('first-secret').innerText()).toBe('482915');
    // What the page says is what stands on the terminal.
    const fingerprint = await added.getByTestId('way-in-fingerprint').innerText();
    expect(shop.said).toContain(fingerprint);
    // The code holds the address: read as a phone's camera reads it.
    await added.getByRole('img', { name: `Code for ${address}` }).waitFor();

    // The second phone, from the code on.
    const second = await phone(browser, shop.url, { permissions: ['camera', 'notifications'] });
    await second.page.goto(address);
    expect(await second.page.locator('body').innerText()).toContain(fingerprint);
    await second.page.getByText('This device trusts the shop.').waitFor();
    await second.page.getByRole('link', { name: 'Open Even Bed' }).click();
    await second.page.getByTestId('sign-in-name').fill('Otto Reedmace');
    await second.page.getByTestId('sign-in-secret').fill('482915');
    await second.page.getByTestId('sign-in-go').click();
    await second.page.getByTestId('bench').waitFor();
    expect(second.page.url()).toMatch(/^https:/);
    // What was asked over http ends up over https, at the same page.
    await second.page.goto(`http://${NAME}:${shop.port}/me`);
    expect(second.page.url()).toBe(`${shop.url}/me`);
    await eventually(async () => expect(await device(second.page, 'offline')).toContain('where there is no signal'));
    for (const what of ['camera', 'alarms', 'knocks']) expect(await device(second.page, what)).not.toContain('Off');
    expect(await second.page.evaluate(() => Notification.permission)).toBe('granted');
    await second.page.goto('/scan');
    await second.page.getByTestId('scan-camera').click();
    await second.page.getByLabel('What the camera sees').waitFor();
    // Without a signal it opens anew.
    await second.page.evaluate(async () => {
      await navigator.serviceWorker.ready;
    });
    await second.page.goto('/bench');
    await second.page.getByTestId('bench').waitFor();
    await offline(second.context, true);
    await second.page.reload();
    await second.page.getByTestId('bench').waitFor();
    await offline(second.context, false);
    const cookies = await second.context.cookies(shop.url);
    expect(cookies.find(({ name }) => name === 'even-bed-session')).toMatchObject({ secure: true, httpOnly: true });
  } finally {
    await browser.close();
    shop.close();
  }
});

test('not trusted yet: whoever goes past the warning is told what is off and why', async () => {
  const shop = await hall();
  const browser = await launch();
  try {
    const { page } = await phone(browser, shop.url, { ignoreHTTPSErrors: true });
    await firstAccount(page, shop);
    await page.goto('/me');
    await eventually(async () =>
      expect(await device(page, 'offline')).toContain('does not trust the shop’s certificate'),
    );
    expect(await page.getByTestId('this-device').innerText()).toContain('“People” shows how');
    // A browser that goes past nothing stops before the page, and the way in says so.
    const plain = await phone(browser, shop.url);
    await expect(plain.page.goto('/')).rejects.toThrow(/ERR_CERT/);
    const way = await plain.context.newPage();
    await way.goto(`http://${NAME}:${shop.port}/trust`);
    await way.getByText('This device does not trust the shop yet.').waitFor();
  } finally {
    await browser.close();
    shop.close();
  }
});

test('without https each thing that needs it says why not', async () => {
  const shop = await hall({ EVEN_BED_HTTPS: 'none' });
  const browser = await launch();
  try {
    const { page } = await phone(browser, shop.url);
    await firstAccount(page, shop);
    await page.goto('/me');
    for (const what of ['offline', 'camera', 'alarms', 'knocks'])
      await eventually(async () => expect(await device(page, what)).toContain('Off: this address has no https.'));
    await page.goto('/scan');
    await page.getByTestId('scan-camera').click();
    expect(await page.getByTestId('scan-problem').innerText()).toContain(
      'The camera needs https, and this address has none',
    );
    await page.goto('/people');
    expect(await page.getByTestId('way-in').innerText()).toContain('This address has no https');
  } finally {
    await browser.close();
    shop.close();
  }
});
