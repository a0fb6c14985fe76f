import type { LevelCheck } from '@even-bed/contract';
import { beginCheck, eventually, figure, serverCheck, tabTo, TestShop, WIDE } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

test('the three-column check, all by keyboard', async () => {
  const page = await shop.page(WIDE);
  await page.goto('/bench');
  await page.getByTestId('bench').waitFor();
  await page.keyboard.press('?');
  await page.getByTestId('keys-help').waitFor();
  await page.keyboard.press('Escape');
  await eventually(async () => expect(await page.getByTestId('keys-help').count()).toBe(0));
  await page.keyboard.press('f');
  await page.getByTestId('floor').waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('knot');
  await eventually(async () => expect(await page.locator('[data-testid^=machine-]').count()).toBe(1));
  await tabTo(page, 'machine-Knot');
  await page.keyboard.press('Enter');
  await page.getByTestId('machine').waitFor();
  await page.getByTestId('check-level').waitFor();
  await tabTo(page, 'check-level');
  await page.keyboard.press('Enter');

  await page.getByTestId('way-typed').waitFor();
  // As radio buttons do: Tab reaches the group once, arrows go round in it.
  await tabTo(page, (await page.locator('[role=radio][data-testid^=way-][tabindex="0"]').getAttribute('data-testid'))!);
  const typed = page.getByTestId('way-typed');
  for (let i = 0; i < 4 && (await typed.getAttribute('aria-checked')) !== 'true'; i++)
    await page.keyboard.press('ArrowRight');
  await tabTo(page, 'cell-0-0');
  for (const height of ['0', '0,1', '0,2', '0,1', '0,2', '0,3', '0,2', '0,3']) {
    await page.keyboard.type(height);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.type('0,4');
  await page.keyboard.press('ArrowDown');
  expect(await page.evaluate(() => (document.activeElement as HTMLElement).dataset['testid'])).toBe('cell-1-2');
  await page.keyboard.press('Tab');
  await page.getByTestId('preview-range').waitFor();
  await tabTo(page, 'use-heights');
  await page.keyboard.press('u');
  await page.getByTestId('plan-turns').waitFor();

  // Plan, adjusters and history stand side by side.
  const left = await page.getByTestId('bed-plan').boundingBox();
  const middle = await page.getByTestId('turn-list').boundingBox();
  const right = await page.getByTestId('past-checks').boundingBox();
  expect(left!.x + left!.width).toBeLessThanOrEqual(middle!.x);
  expect(middle!.x + middle!.width).toBeLessThanOrEqual(right!.x);
  expect(right!.x + right!.width).toBeLessThanOrEqual(WIDE.width);

  expect(await figure(page, 'range-now')).toBe(0.4);
  await page.keyboard.press('1');
  await eventually(async () =>
    expect(await page.getByRole('checkbox').first().getAttribute('aria-checked')).toBe('true'),
  );
  await page.keyboard.press('t');
  await page.getByTestId('get-heights').waitFor();
  await serverCheck<LevelCheck>(shop, page, ({ roundList }) => roundList[0]?.madeAt !== null);
  await tabTo(page, 'cell-0-0');
  for (let i = 0; i < 9; i++) {
    await page.keyboard.type('0');
    if (i < 8) await page.keyboard.press('Enter');
  }
  await page.getByTestId('preview-range').waitFor();
  await tabTo(page, 'use-heights');
  await page.keyboard.press('Enter');
  await eventually(async () => expect(await page.getByTestId('page-title').innerText()).toBe('Within the aim'));
  // Its keys are there a moment after its words.
  await page.waitForTimeout(300);
  await page.keyboard.press('e');
  await serverCheck<LevelCheck>(shop, page, ({ outcome }) => outcome === 'finished');
});

test('list and detail stand side by side, and back goes back', async () => {
  const page = await shop.page(WIDE);
  await page.goto('/floor');
  await page.getByTestId('machine-Godwit').click();
  await page.getByTestId('facts').waitFor();
  await page.getByTestId('machine-Avocet').click();
  await eventually(async () => expect(await page.getByTestId('page-title').innerText()).toBe('Avocet'));
  await page.goBack();
  await eventually(async () => expect(await page.getByTestId('page-title').innerText()).toBe('Godwit'));
  await beginCheck(page, await shop.machineId('Godwit'));
  await page.goBack();
  await page.getByTestId('machine').waitFor();
});
