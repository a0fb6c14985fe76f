import { eventually, PHONE, TestShop, tabTo, WIDE } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

test('a dialog is entered by Tab, kept within by Tab, and left by Escape with the focus where it was', async () => {
  const page = await shop.page(WIDE);
  const focused = () => page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset['testid'] ?? null);
  const within = () =>
    page.evaluate(() => document.querySelector('[role=dialog]')?.contains(document.activeElement) ?? false);
  await page.goto('/bench');
  await page.getByTestId('due-list').waitFor();
  await tabTo(page, 'show-keys');
  await page.keyboard.press('Enter');
  await page.getByRole('dialog', { name: 'Keys' }).waitFor();
  expect(await page.getByRole('dialog').getAttribute('aria-modal')).toBe('true');
  for (let presses = 0; presses < 6; presses++) {
    await page.keyboard.press('Tab');
    expect(await within()).toBe(true);
  }
  await page.keyboard.press('Shift+Tab');
  expect(await within()).toBe(true);
  await page.keyboard.press('Escape');
  await eventually(async () => expect(await page.getByRole('dialog').count()).toBe(0));
  expect(await focused()).toBe('show-keys');
});

test('Back closes what lies over the page, the topmost first, and then leaves the page', async () => {
  const page = await shop.page(PHONE);
  const stint = await shop.machineId('Stint');
  await page.goto('/floor');
  await page.goto(`/tools/stack?machine=${stint}`);
  const save = page.getByTestId('save-plan');
  await save.click();
  await page.getByRole('dialog').waitFor();
  await page.goBack();
  await eventually(async () => expect(await page.getByRole('dialog').count()).toBe(0));
  expect(new URL(page.url()).pathname).toBe('/tools/stack');
  // Escape does the same, also while something is typed; so does the cross; neither leaves a trace in the way back.
  await save.click();
  await page.getByRole('dialog').getByRole('textbox').first().fill('A winter');
  await page.keyboard.press('Escape');
  await eventually(async () => expect(await page.getByRole('dialog').count()).toBe(0));
  await save.click();
  await page.getByTestId('dialog-close').click();
  await eventually(async () => expect(await page.getByRole('dialog').count()).toBe(0));
  await page.waitForFunction(() => history.state?.evenBedOver !== true);
  await page.goBack();
  await page.getByTestId('floor').waitFor();
});

test('Back closes a list that is open; choosing from it leaves no trace in the way back', async () => {
  const page = await shop.page(PHONE);
  await page.goto('/floor');
  await page.goto('/tools/layer');
  const pick = page.getByTestId('layer-machine');
  const dunlin = await shop.machineId('Dunlin');
  await pick.click();
  await page.getByTestId(`layer-machine-${dunlin}`).waitFor();
  await page.goBack();
  await eventually(async () => expect(await pick.getAttribute('aria-expanded')).toBe('false'));
  expect(new URL(page.url()).pathname).toBe('/tools/layer');
  await pick.click();
  await page.getByTestId(`layer-machine-${dunlin}`).click();
  await page.waitForFunction(() => history.state?.evenBedOver !== true);
  await page.goBack();
  await page.getByTestId('floor').waitFor();
});

test('whoever comes back to a list finds its search, its filter and the place where they were', async () => {
  const page = await shop.page(PHONE);
  await page.goto('/floor');
  await page.getByTestId('floor').waitFor();
  const woodcock = page.getByTestId('machine-Woodcock');
  await woodcock.waitFor();
  await woodcock.scrollIntoViewIfNeeded();
  // The page hears of the scroll in the frames that follow.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const before = (await woodcock.boundingBox())!.y;
  await woodcock.click();
  await page.getByTestId('machine').waitFor();
  await page.goBack();
  await eventually(async () => expect(Math.abs((await woodcock.boundingBox())!.y - before)).toBeLessThan(40));
  await page.getByTestId('room-rack').click();
  await page.getByTestId('rack-search').fill('S-01');
  const sheet = page.getByTestId('surface-S-014');
  await sheet.click();
  await page.getByTestId('surface').waitFor();
  await page.getByTestId('room-rack').click();
  await page.getByTestId('rack').waitFor();
  expect(await page.getByTestId('rack-search').inputValue()).toBe('S-01');
  await sheet.waitFor();
});

test('single letters act no more once they are switched off, here and after a reload', async () => {
  const page = await shop.page(WIDE);
  await page.goto('/bench');
  await page.getByTestId('due-list').waitFor();
  await page.keyboard.press('f');
  await page.getByTestId('floor').waitFor();
  await page.getByTestId('show-keys').click();
  await tabTo(page, 'single-keys-on');
  await page.keyboard.press('ArrowRight');
  expect(await page.getByTestId('single-keys-off').getAttribute('aria-checked')).toBe('true');
  await page.keyboard.press('Escape');
  await eventually(async () => expect(await page.getByRole('dialog').count()).toBe(0));
  for (const again of [false, true]) {
    if (again) await page.reload();
    await page.getByTestId('floor').waitFor();
    await page.keyboard.press('b');
    await page.keyboard.press('?');
    await page.waitForTimeout(300);
    expect(new URL(page.url()).pathname).toBe('/floor');
    expect(await page.getByRole('dialog').count()).toBe(0);
  }
});

test('each view has a title of its own', async () => {
  const page = await shop.page(PHONE);
  const titles: string[] = [];
  for (const address of ['/bench', '/floor', '/rack', '/book', '/tools/stack', '/jobs']) {
    await page.goto(address);
    await page.getByTestId('page-title').first().waitFor();
    const heading = await page.getByTestId('page-title').first().innerText();
    await eventually(async () => expect(await page.title()).toContain(heading));
    titles.push(await page.title());
  }
  expect(new Set(titles).size).toBe(titles.length);
});

test('arrows go round in a group of choices, and Tab goes past it', async () => {
  const page = await shop.page(WIDE);
  await page.goto('/tools/soak');
  const group = page.locator('[role=radiogroup]', { has: page.locator('[role=radio][data-testid]') }).first();
  await group.waitFor();
  const checked = () => group.locator('[aria-checked=true]').getAttribute('data-testid');
  const count = await group.getByRole('radio').count();
  const first = (await group.locator('[tabindex="0"]').getAttribute('data-testid'))!;
  await tabTo(page, first);
  await page.keyboard.press('ArrowRight');
  const second = await checked();
  expect(second).not.toBe(first);
  for (let presses = 1; presses < count; presses++) await page.keyboard.press('ArrowRight');
  expect(await checked()).toBe(first);
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Tab');
  expect(await group.evaluate((node) => node.contains(document.activeElement))).toBe(false);
});

test('a piece of the app that is missing leaves a page that says what to do, and the rooms stay', async () => {
  const page = await shop.page(PHONE);
  await page.goto('/bench');
  await page.getByTestId('due-list').waitFor();
  const piece = /static\/js\/web\/stack-/;
  await page.route(piece, (route) => route.abort());
  await page.goto('/tools/stack');
  await page.getByTestId('crashed').waitFor();
  expect(await page.getByTestId('crashed').innerText()).toContain('A piece of the app is missing');
  await page.unroute(piece);
  await page.getByTestId('load-anew').click();
  await page.getByTestId('stack-compare').waitFor();
});

test('a phone laid on its side has its rooms and its actions beside the content', async () => {
  const page = await shop.page({ width: 844, height: 390 });
  const machine = await shop.machineId('Dunlin');
  await page.goto(`/floor/${machine}`);
  await page.getByTestId('check-level').waitFor();
  const rooms = (await page.getByRole('navigation', { name: 'Rooms' }).boundingBox())!;
  expect(rooms).toMatchObject({ x: 0, height: 390 });
  const action = (await page.getByTestId('check-level').boundingBox())!;
  expect(action.x).toBeGreaterThan(600);
  expect(action.y + action.height).toBeLessThanOrEqual(390);
  const { scrollWidth } = await page.evaluate(() => ({ scrollWidth: document.documentElement.scrollWidth }));
  expect(scrollWidth).toBeLessThanOrEqual(844);
});

test('what was installed knows its name, icons and colours, and the terms of its parts can be read', async () => {
  const manifest = (await (await fetch(`${shop.url}/manifest.webmanifest`)).json()) as {
    name: string;
    display: string;
    icons: { src: string; sizes: string; purpose?: string }[];
  };
  expect(manifest).toMatchObject({ name: 'Even Bed', display: 'standalone' });
  for (const { src, sizes } of manifest.icons) {
    const icon = Buffer.from(await (await fetch(`${shop.url}${src}`)).arrayBuffer());
    // Width and height of a PNG, as big-endian numbers (PNG specification, 11.2.2).
    expect(`${icon.readUInt32BE(16)}x${icon.readUInt32BE(20)}`).toBe(sizes);
  }
  expect(manifest.icons.map(({ sizes, purpose }) => `${sizes} ${purpose ?? 'any'}`)).toEqual([
    '192x192 any',
    '192x192 maskable',
    '512x512 any',
    '512x512 maskable',
  ]);
  const notices = await (await fetch(`${shop.url}/notices.txt`)).text();
  for (const part of ['SIL OPEN FONT LICENSE', 'Apache License', 'react-native-paper']) expect(notices).toContain(part);
});

test('a page left open while the server was upgraded says so, and loads the new app without losing what was typed', async () => {
  const page = await shop.page(PHONE);
  await page.goto('/floor/new');
  await page.getByTestId('field-name').fill('Whimbrel');
  const come = () => page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  const asked = page.waitForResponse('**/version.txt');
  await come();
  expect((await (await asked).text()).trim()).toMatch(/^\/_expo\/.*\/entry-.+\.js$/);
  expect(await page.getByTestId('new-version').count()).toBe(0);
  await page.route('**/version.txt', (route) => route.fulfill({ body: '/_expo/static/js/web/entry-0123abcd.js\n' }));
  await come();
  await page.getByTestId('new-version').waitFor();
  await Promise.all([page.waitForEvent('load'), page.getByTestId('load-version').click()]);
  await eventually(async () => expect(await page.getByTestId('field-name').inputValue()).toBe('Whimbrel'));
});

test('on paper nothing is folded, nothing is left that only hands on glass need, and drawings keep their size', async () => {
  const page = await shop.page(PHONE);
  await page.goto(`/floor/${await shop.machineId('Godwit')}`);
  await page.getByTestId('log-print').waitFor();
  await page.getByTestId('facts-fold').waitFor();
  await page.emulateMedia({ media: 'print' });
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  expect(await page.getByTestId('facts').innerText()).toContain('Print area');
  expect(await page.getByTestId('stack-height').isVisible()).toBe(true);
  for (const testId of ['log-print', 'tokens', 'offset-typed', 'plans', 'facts-fold'])
    expect(await page.getByTestId(testId).count()).toBe(0);
  const plan = (await page
    .getByRole('img', { name: /^Plate of Godwit/ })
    .locator('svg')
    .boundingBox())!;
  expect(plan.width).toBeGreaterThan(180);
  await page.emulateMedia({ media: 'screen' });
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
  await page.getByTestId('facts-fold').waitFor();
});
