import type { Page as ListPage, Print } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import { eventually, TestShop, unfold } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

async function machinePage(page: Page, name: string): Promise<string> {
  const id = await shop.machineId(name);
  await page.goto(`/floor/${id}`);
  await page.getByTestId('log-print').waitFor();
  return id;
}
const prints = async (machineId: string) =>
  (await shop.get<ListPage<Print>>(`/prints?machineId=${machineId}&limit=500`)).items.length;
const isWrite = (url: URL) => url.pathname.startsWith('/api/prints/');

test('what the server fails on is parked with its reason, and what was done after it goes through', async () => {
  const page = await shop.page();
  const machineId = await machinePage(page, 'Dunlin');
  const before = await prints(machineId);
  let poisoned = '';
  await page.route(isWrite, (route) => {
    if (route.request().method() !== 'PUT') return route.fallback();
    poisoned ||= route.request().url();
    return route.request().url() === poisoned
      ? route.fulfill({ status: 500, contentType: 'application/json', body: '{}' })
      : route.fallback();
  });
  await page.getByTestId('print-held').click();
  // A tap right after a tap is taken for the same one.
  await page.waitForTimeout(1_000);
  await page.getByTestId('print-next').click();
  await page.waitForTimeout(1_000);
  await page.getByTestId('print-held').click();
  await eventually(async () => expect(await prints(machineId)).toBe(before + 1));
  await page.goto('/bench');
  const parked = page.getByTestId('parked');
  await parked.waitFor();
  expect(await parked.innerText()).toMatch(/The server failed on this 3 times \(500\)/);
  expect(await parked.innerText()).toContain('Everything else goes on');
  // Still there after the page was loaded anew; sent again it goes through, once.
  await page.reload();
  await parked.waitFor();
  await page.unroute(isWrite);
  await page.getByTestId('parked-again').click();
  await eventually(async () => expect(await prints(machineId)).toBe(before + 2));
  await eventually(async () => expect(await parked.count()).toBe(0));
});

test('what the server refused is put right on the spot and sent anew', async () => {
  const page = await shop.page();
  const machineId = await machinePage(page, 'Godwit');
  const before = await prints(machineId);
  // A reading that a server of another version doesn't take.
  await page.route(isWrite, (route) => {
    const body = route.request().postDataJSON() as { material: string };
    if (route.request().method() !== 'PUT' || body.material === 'PETG') return route.fallback();
    const fields = { material: 'This material is not known here.' };
    return route.fulfill({
      status: 422,
      contentType: 'application/json',
      body: JSON.stringify({ error: { code: 'not-valid', message: fields.material, fields } }),
    });
  });
  await page.getByTestId('print-held').click();
  await page.goto('/bench');
  await page.getByTestId('parked').waitFor();
  await page.getByTestId('parked-change').click();
  expect(await page.getByTestId('change-parked').innerText()).toContain('This material is not known here.');
  await page.getByTestId('change-material').fill('PETG');
  await page.getByTestId('change-send').click();
  await eventually(async () => expect(await prints(machineId)).toBe(before + 1));
  await eventually(async () => expect(await page.getByTestId('parked').count()).toBe(0));
  const { items } = await shop.get<ListPage<Print>>(`/prints?machineId=${machineId}&limit=1`);
  expect(items[0]!.material).toBe('PETG');
});

test('what somebody else left on a shared device is theirs: others see how much, and nothing of it', async () => {
  const page = await shop.page(undefined, { as: null });
  const [technician, looker] = [await shop.account('technician'), await shop.account('looker')];
  const enter = async ({ name, secret }: { name: string; secret: string }) => {
    await unfold(page, 'sign-in-form');
    await page.getByTestId('sign-in-name').fill(name);
    await page.getByTestId('sign-in-secret').fill(secret);
    await page.getByTestId('sign-in-device-shared').click();
    await page.getByTestId('sign-in-go').click();
    await page.getByTestId('sign-in').waitFor({ state: 'detached' });
  };
  const change = async (to: { name: string; secret: string }) => {
    await page.goto('/me');
    await page.getByTestId('switch-person').click();
    await enter(to);
    await page.goto('/bench');
  };
  await page.goto('/');
  await enter(technician);
  await machinePage(page, 'Curlew');
  await page.route(isWrite, (route) =>
    route.request().method() === 'PUT'
      ? route.fulfill({
          status: 422,
          contentType: 'application/json',
          body: JSON.stringify({ error: { code: 'not-valid', message: 'A secret of the technician.' } }),
        })
      : route.fallback(),
  );
  await page.getByTestId('print-held').click();
  await page.goto('/bench');
  await page.getByTestId('parked').waitFor();
  await change(looker);
  await page.getByTestId('parked-others').waitFor();
  expect(await page.getByTestId('parked-others').innerText()).toMatch(/One entry of somebody else/);
  expect(await page.getByTestId('parked').count()).toBe(0);
  expect(await page.locator('body').innerText()).not.toContain('A secret of the technician');
  // Nothing that was fetched for the one before is kept for the next.
  const kept = () =>
    page.evaluate(async () => {
      const requests = await (await caches.open('records')).keys();
      return requests.map(({ url }) => new URL(url).pathname).filter((path) => path.includes('/people'));
    });
  expect(await kept()).toEqual([]);
  await change(technician);
  await page.getByTestId('parked').waitFor();
  await page.unroute(isWrite);
  await page.getByTestId('parked-again').click();
  await eventually(async () => expect(await page.getByTestId('parked').count()).toBe(0));
  await page.context().close();
});

test('a step of a job that the server refuses is named where the job stands', async () => {
  const page = await shop.page();
  const machineId = await shop.machineId('Snipe');
  await page.goto(`/jobs/new?procedure=check-plate&machine=${machineId}`);
  await page.getByTestId('ready-at').waitFor();
  // Its parts are settled by what lies there, once that is known: until then it asks for them.
  await eventually(async () => {
    if (!(await page.getByTestId('job').isVisible())) await page.getByTestId('begin-job').click({ timeout: 1_000 });
    await page.getByTestId('job').waitFor({ timeout: 2_000 });
  });
  const isEvent = (url: URL) => /^\/api\/jobs\/[^/]+\/events\//.test(url.pathname);
  await page.route(isEvent, (route) =>
    route.fulfill({
      status: 409,
      contentType: 'application/json',
      body: JSON.stringify({ error: { code: 'elsewhere', message: 'Another device was there first.' } }),
    }),
  );
  const title = await page.getByTestId('job').getByRole('heading').first().innerText();
  await page.locator('[data-testid="step-done"], [data-testid^="answer-"]').first().click();
  await page.getByTestId('parked').waitFor();
  const said = await page.getByTestId('parked').innerText();
  expect(said).toContain('Another device was there first.');
  expect(said).toContain(`“${title}”`);
  await page.unroute(isEvent);
  await page.context().close();
});

test('two tabs show the same, send once, and one lets go of what the other has parked', async () => {
  const page = await shop.page();
  const machineId = await machinePage(page, 'Lapwing');
  const other = await page.context().newPage();
  await other.goto('/bench');
  await other.getByTestId('due-list').waitFor();
  const before = await prints(machineId);
  await page.context().route(isWrite, (route) =>
    route.fulfill({
      status: 422,
      contentType: 'application/json',
      body: JSON.stringify({ error: { code: 'no', message: 'Not like this.' } }),
    }),
  );
  await page.getByTestId('print-held').click();
  const parked = other.getByTestId('parked');
  await parked.waitFor();
  expect(await parked.innerText()).toContain('Not like this.');
  await page.context().unroute(isWrite);
  await other.getByTestId('parked-drop').click();
  await other.getByTestId('prompt-confirm').click();
  await eventually(async () => expect(await parked.count()).toBe(0));
  await page.goto('/bench');
  await page.getByTestId('due-list').waitFor();
  expect(await page.getByTestId('parked').count()).toBe(0);
  expect(await prints(machineId)).toBe(before);
});

test('a device that is full says so before anything is lost, and sends what only the page has', async () => {
  const page = await shop.page();
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...args) {
      if ((window as unknown as { full?: boolean }).full) throw new DOMException('no room', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  const machineId = await machinePage(page, 'Godwit');
  const before = await prints(machineId);
  await page.evaluate(() => ((window as unknown as { full: boolean }).full = true));
  await page.route(isWrite, (route) => route.abort());
  await page.getByTestId('print-held').click();
  await page.getByTestId('not-kept').waitFor();
  expect(await page.getByTestId('not-kept').innerText()).toContain('Leave it open until it is sent');
  await page.unroute(isWrite);
  await eventually(async () => expect(await prints(machineId)).toBe(before + 1));
  await eventually(async () => expect(await page.getByTestId('not-kept').count()).toBe(0));
});

test('without a signal the rooms open with what was kept, say from when it is, and a tag is still found', async () => {
  const page = await shop.page(undefined, { offlineApp: true });
  await page.goto('/bench');
  await page.getByTestId('due-list').waitFor();
  await eventually(async () => expect(await page.evaluate(() => !!navigator.serviceWorker.controller)).toBe(true));
  // A page that the worker looks after from its first request: it takes along what a round needs.
  await page.reload();
  await page.getByTestId('due-list').waitFor();
  await eventually(async () => {
    const kept = await page.evaluate(async () => {
      const cache = await caches.open('records');
      return (await cache.keys()).map(({ url }) => new URL(url).pathname);
    });
    for (const path of ['/api/machines', '/api/surfaces', '/api/jobs', '/api/places', '/api/procedures'])
      expect(kept).toContain(path);
  });
  await page.context().setOffline(true);
  await page.goto('/t/S-014');
  await page.getByTestId('surface').waitFor();
  await page.getByTestId('views-old').waitFor();
  expect(await page.getByTestId('views-old').innerText()).toMatch(
    /The server doesn’t answer\. What you see is from \d\d:\d\d\./,
  );
  await page.context().setOffline(false);
  await eventually(async () => expect(await page.getByTestId('views-old').count()).toBe(0));
});
