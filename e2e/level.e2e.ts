import type { BookEntry, LevelCheck, MachineOverview } from '@even-bed/contract';
import { beginCheck, eventually, figure, scan, serverCheck, TestShop } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

test('a simulated machine goes from "level due" to "within aim" through two rounds', async () => {
  const page = await shop.page();
  await page.goto('/bench');
  await page.getByTestId('due-Dunlin').click();
  await page.getByTestId('machine').waitFor();
  expect(await page.getByTestId('next-due').innerText()).toMatch(/late$/);
  await page.getByTestId('check-level').click();
  await scan(page);

  const before = await figure(page, 'range-now');
  const predicted = await figure(page, 'range-after');
  expect(before).toBeGreaterThan(0.3);
  expect(predicted).toBeLessThanOrEqual(0.1);
  expect(await page.getByTestId('page-title').innerText()).toMatch(/turns? will do it/);
  // One turn is ticked by hand, the rest by the button.
  const turn = page.getByRole('checkbox').first();
  await turn.click();
  expect(await turn.getAttribute('aria-checked')).toBe('true');
  await turn.click();
  await page.getByTestId('turns-made').click();

  await page.getByTestId('get-heights').waitFor();
  await scan(page);
  const after = await figure(page, 'range-now');
  expect(after).toBeLessThanOrEqual(0.1);
  expect(await page.getByTestId('page-title').innerText()).toBe('Within the aim');
  await page.getByTestId('check-note').fill('Springs feel soft.');
  await page.getByTestId('finish').click();

  await page.getByTestId('record-next').waitFor();
  const check = await serverCheck<LevelCheck>(shop, page, ({ outcome }) => outcome === 'finished');
  expect(check).toMatchObject({ machineName: 'Dunlin', rounds: 2, note: 'Springs feel soft.' });
  expect(check.roundList[0]!.made.length).toBeGreaterThan(0);
  expect(check.before!.toFixed(2)).toBe(before.toFixed(2));
  expect(check.after!.toFixed(2)).toBe(after.toFixed(2));

  // It is in the book, the next one has a date, and both are there after a restart.
  await shop.killServer();
  await shop.startServer();
  const machine = await shop.get<MachineOverview>(`/machines/${check.machineId}`);
  expect(machine.rule!.nextDueAt).toBe(check.endedAt! + 14 * 86_400_000);
  await page.goto('/book');
  await page.getByTestId('book-search').fill('dunlin finish');
  await page.getByText('Springs feel soft.').first().waitFor();
  await page.goto('/bench');
  await page.getByTestId('due-list').waitFor();
  expect(await page.getByTestId('due-Dunlin').count()).toBe(0);
});

test('the book is searched by words, machine and kind, and older lines come when asked for', async () => {
  const page = await shop.page();
  await page.goto('/book');
  const lines = page.getByTestId('book-lines');
  const count = () => lines.locator('[data-testid^="line-"]').count();
  await page.getByTestId('book-older').click();
  await eventually(async () => expect(await count()).toBeGreaterThan(40));
  await page.getByTestId('book-search').fill('belt clamp');
  await eventually(async () => expect(await count()).toBe(1));
  expect(await lines.innerText()).toContain('Whimbrel');
  await page.getByTestId('book-search').fill('');
  await page.getByTestId('book-narrow').click();
  await page.getByTestId('book-kind').click();
  await page.getByRole('menuitem', { name: 'Rule set' }).click();
  await eventually(async () => expect(await lines.innerText()).toMatch(/every 7 days/));
  await page.reload();
  await eventually(async () => expect(await lines.innerText()).toMatch(/every 7 days/));
  expect(page.url()).toContain('kind=rule-set');
  await lines.getByRole('link').first().click();
  await page.getByTestId('machine').waitFor();
  await page.goBack();
  await page.getByTestId('book').waitFor();
});

test('a check left for later waits on the bench, and goes on where it was', async () => {
  const page = await shop.page();
  await beginCheck(page, await shop.machineId('Avocet'));
  await scan(page);
  const title = await page.getByTestId('page-title').innerText();
  await page.getByTestId('leave').click();
  await page.getByTestId('draft-Avocet').click();
  await page.getByTestId('plan-turns').waitFor();
  expect(await page.getByTestId('page-title').innerText()).toBe(title);

  // Another device sees it under way and can take it over.
  const other = await shop.page();
  await eventually(async () => {
    await other.goto('/bench');
    await other.getByText('Begun on another device').waitFor({ timeout: 1500 });
  });
  await other.getByText('Begun on another device').click();
  await other.getByTestId('take-over').click();
  await other.getByTestId('plan-turns').waitFor();
  expect(await other.getByTestId('page-title').innerText()).toBe(title);

  await page.getByTestId('drop-check').click();
  await page.getByTestId('prompt-cancel').click();
  await page.getByTestId('drop-check').click();
  await page.getByTestId('prompt-confirm').click();
  await page.getByTestId('machine').waitFor();
  const { items } = await eventually(async () => {
    const found = await shop.get<{ items: BookEntry[] }>('/book?search=avocet&kind=check-dropped');
    if (found.items.length === 0) throw new Error('not in the book yet');
    return found;
  });
  expect(items[0]!.text).toBe('Avocet: level check dropped.');
});
