import { eventually, TestShop, unfold } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

test('what one phone writes down a second one shows within a second, and what is typed there stays', async () => {
  const id = await shop.machineId('Dunlin');
  const one = await shop.page();
  const two = await shop.page();
  await two.goto(`/floor/${id}`);
  await two.getByTestId('level-history').waitFor();
  await one.goto('/bench');
  await one.getByTestId('due-list').waitFor();
  // The second phone's stream is open once its page has settled.
  await two.waitForTimeout(500);
  const { version } = await shop.get<{ version: number }>(`/machines/${id}`);
  const machine = await shop.get<Record<string, unknown>>(`/machines/${id}`);
  const facts = Object.fromEntries(
    Object.entries(machine).filter(
      ([key]) =>
        ![
          'id',
          'createdAt',
          'updatedAt',
          'areaName',
          'rule',
          'lastCheck',
          'openCheckId',
          'heldUntil',
          'top',
          'stands',
          'readiness',
        ].includes(key),
    ),
  );
  const start = Date.now();
  await one.evaluate(
    async ([address, body]) => {
      await fetch(address!, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body: body! });
    },
    [`/api/machines/${id}`, JSON.stringify({ ...facts, name: 'Dunlin the second', version, at: Date.now() })],
  );
  await two.getByText('Dunlin the second').first().waitFor({ timeout: 5_000 });
  const took = Date.now() - start;
  // A second is what is aimed at; a loaded machine that runs tests beside it is given more.
  expect(took).toBeLessThan(3_000);
  console.info(`a second phone followed after ${took} ms`);
});

test('a page out of sight holds no stream, and catches up when it is looked at again', async () => {
  const page = await shop.page();
  const streams = () =>
    page.evaluate(
      () => performance.getEntriesByType('resource').filter(({ name }) => name.includes('/api/events')).length,
    );
  await page.goto('/settings');
  await page.getByTestId('set-name').fill('Typed and not saved');
  const now = await shop.get<Record<string, unknown>>('/settings');
  await shop.put('/settings', { ...now, name: 'Changed elsewhere', at: Date.now() });
  await page.getByTestId('settings-newer').waitFor();
  expect(await page.getByTestId('set-name').inputValue()).toBe('Typed and not saved');
  await page.getByText('Take theirs').click();
  await eventually(async () => expect(await page.getByTestId('set-name').inputValue()).toBe('Changed elsewhere'));
  expect(await streams()).toBeLessThan(4);
});

test('a lead makes a token for a display, which reads and follows, until it is revoked', async () => {
  const page = await shop.page();
  await page.goto('/settings');
  await unfold(page, 'program-tokens');
  await page.getByTestId('token-open').click();
  await page.getByTestId('token-name').fill('Display at the door');
  await page.getByTestId('token-make').click();
  await page.getByTestId('token-shown').waitFor();
  const token = await page.getByTestId('token-shown').innerText();
  const ask = (path: string, method = 'GET') =>
    fetch(`${shop.url}/api${path}`, { method, headers: { Authorization: `Bearer ${token}` } }).then(
      ({ status }) => status,
    );
  expect(await ask('/machines')).toBe(200);
  expect(await ask('/settings', 'PUT')).toBe(403);
  expect(await ask('/backups/last')).toBe(403);
  await page.getByTestId('token-revoke-Display at the door').click();
  await eventually(async () => expect(await ask('/machines')).toBe(401));
});
