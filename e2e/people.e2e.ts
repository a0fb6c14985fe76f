import type { BookEntry, Page as ListPage } from '@even-bed/contract';
import { eventually, TestShop, unfold } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

test('the demo names its accounts on its sign-in page; a wrong secret says so and keeps the name', async () => {
  const page = await shop.page(undefined, { as: null });
  const refused: string[] = [];
  page.on('response', (response) => {
    if (response.status() === 401) refused.push(response.url());
  });
  await page.goto('/');
  await page.getByTestId('sign-in').waitFor();
  await page.waitForLoadState('networkidle');
  // Nothing is asked for that nobody may see yet.
  expect(refused).toEqual([]);
  await page.getByTestId('demo-accounts').waitFor();
  expect(await page.getByTestId('page-title').innerText()).toBe('Even Bed');
  expect(await page.getByTestId('welcome').innerText()).toContain('build plates of a print shop');
  const lead = await shop.account('lead');
  await unfold(page, 'sign-in-form');
  await page.getByTestId('sign-in-name').fill(lead.name);
  await page.getByTestId('sign-in-secret').fill('wrong all along');
  await page.getByTestId('sign-in-go').click();
  await eventually(async () => expect(await page.locator('body').innerText()).toContain('do not belong together'));
  expect(await page.getByTestId('sign-in-name').inputValue()).toBe(lead.name);
  await page.getByTestId('sign-in-secret').fill(lead.secret);
  await page.getByTestId('sign-in-go').click();
  await page.getByTestId('due-list').waitFor();
  expect(await page.locator('body').innerText()).not.toContain(lead.secret);
  // Somebody new is told what to try, until they put it away.
  await page.getByTestId('try-first').waitFor();
  await page.getByTestId('try-first-close').click();
  await page.reload();
  await page.getByTestId('due-list').waitFor();
  expect(await page.getByTestId('try-first').count()).toBe(0);
  await page.context().close();
});

test('on a shared device people switch in a few taps, and the book knows whose hands it were', async () => {
  const page = await shop.page(undefined, { as: null });
  const [lead, technician] = [await shop.account('lead'), await shop.account('technician')];
  await page.goto('/');
  for (const { name, secret } of [lead, technician]) {
    await unfold(page, 'sign-in-form');
    await page.getByTestId('sign-in-name').fill(name);
    await page.getByTestId('sign-in-secret').fill(secret);
    await page.getByTestId('sign-in-device-shared').click();
    await page.getByTestId('sign-in-go').click();
    await page.getByTestId('sign-in').waitFor({ state: 'detached' });
    if (name === lead.name) {
      await page.goto('/me');
      await page.getByTestId('switch-person').click();
    }
  }
  const stint = await shop.machineId('Stint');
  await page.goto(`/floor/${stint}`);
  await page.getByTestId('print-held').click();
  await eventually(async () => {
    const { items } = await shop.get<ListPage<BookEntry>>(`/book?machineId=${stint}&kind=print-logged&limit=1`);
    expect(items[0]!.personName).toBe(technician.name);
  });
  // Back to the first one: the name is a tap, the secret is not kept.
  await page.goto('/me');
  await page.getByTestId('switch-person').click();
  await page.getByTestId(`known-${lead.name}`).click();
  expect(await page.getByTestId('sign-in-name').inputValue()).toBe(lead.name);
  expect(await page.getByTestId('sign-in-secret').inputValue()).toBe('');
  await page.getByTestId('sign-in-secret').fill(lead.secret);
  await page.getByTestId('sign-in-go').click();
  await eventually(async () => expect(await page.locator('body').innerText()).toContain(lead.name.split(' ')[0]!));
  await page.context().close();
});

test('a shared device locks by itself, over a reload too, and opens with the secret', async () => {
  const page = await shop.page(undefined, { as: null });
  const technician = await shop.account('technician');
  await page.clock.install();
  await page.goto('/');
  await unfold(page, 'sign-in-form');
  await page.getByTestId('sign-in-name').fill(technician.name);
  await page.getByTestId('sign-in-secret').fill(technician.secret);
  await page.getByTestId('sign-in-device-shared').click();
  await page.getByTestId('sign-in-go').click();
  await page.getByTestId('due-list').waitFor();
  await page.clock.runFor(6 * 60_000);
  await page.getByTestId('sign-in').waitFor();
  await page.reload();
  await page.clock.runFor(2_000);
  await page.getByTestId('sign-in').waitFor();
  const locked = await page.request.get('/api/machines');
  expect(locked.status()).toBe(401);
  await page.getByTestId('sign-in-secret').fill(technician.secret);
  await page.getByTestId('sign-in-go').click();
  await page.clock.runFor(2_000);
  await page.getByTestId('due-list').waitFor();
  await page.context().close();
});

test('a looker sees and has no buttons that do', async () => {
  const page = await shop.page(undefined, { as: 'looker' });
  await page.goto(`/floor/${await shop.machineId('Dunlin')}`);
  await page.getByTestId('stack').waitFor();
  for (const testId of ['check-level', 'print-held', 'mount-here', 'edit-machine', 'turn-over'])
    expect(await page.getByTestId(testId).count()).toBe(0);
  await page.context().close();
});

test('a lead changes how the shop reads, and every screen follows', async () => {
  const page = await shop.page();
  await page.goto('/settings');
  await page.getByTestId('set-units-in').click();
  await page.getByTestId('set-numbers-comma').click();
  await page.getByTestId('set-save').click();
  await page.getByTestId('settings-saved').waitFor();
  await page.goto(`/floor/${await shop.machineId('Dunlin')}`);
  await unfold(page, 'facts');
  expect(await page.getByTestId('facts').innerText()).toMatch(/9,252 × 9,252 in[\s\S]*/);
  await page.context().close();
});
