import type { BookEntry, LevelCheck, LevelCheckSummary, MachineOverview } from '@even-bed/contract';
import { beginCheck, eventually, figure, scan, serverCheck, TestShop } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true, paceMs: 12 });
});
afterAll(() => shop.close());

test('a machine that does not answer is named, with what to look at', async () => {
  const page = await shop.page();
  await beginCheck(page, await shop.machineId('Plover'));
  await page.getByTestId('scan').click();
  await page.getByTestId('scan-problem').waitFor();
  expect(await page.getByTestId('scan-problem').innerText()).toContain(
    "Plover doesn't answer; check its power and cable.",
  );
});

test('a scan shows its progress and can be stopped', async () => {
  const page = await shop.page();
  await beginCheck(page, await shop.machineId('Lapwing'));
  await page.getByTestId('scan').click();
  await page.getByText(/^\d+ of 81$/).waitFor();
  await page.getByTestId('stop-scan').click();
  await page.getByTestId('scan-problem').waitFor();
  expect(await page.getByTestId('scan-problem').innerText()).toContain('Stopped');
});

test('a sign turned over is caught in round two, and turning it over mends it', async () => {
  const page = await shop.page();
  const machineId = await shop.machineId('Turnstone');
  await beginCheck(page, machineId);
  await scan(page);
  const first = await figure(page, 'range-now');
  await page.getByTestId('turns-made').click();
  await page.getByTestId('get-heights').waitFor();
  await scan(page);
  const answer = page.getByTestId('reversed-answer');
  await answer.waitFor();
  expect(await page.getByTestId('page-title').innerText()).toBe('Stop: the bed moved the other way');
  expect(await answer.innerText()).toContain('would make the next reading worse');
  const [, before, worse] = /It got worse: ([\d.]+) to ([\d.]+) mm/.exec(await answer.innerText())!;
  expect(Number(before)).toBe(first);
  expect(Number(worse)).toBeGreaterThan(1.5 * first);
  // The plan that would make it worse still is not offered.
  expect(await page.getByTestId('turns-made').count()).toBe(0);
  expect(await page.getByTestId('turn-list').count()).toBe(0);

  await page.getByTestId('turn-sign-over').click();
  await eventually(async () => expect(await answer.count()).toBe(0));
  await page.getByTestId('turns-made').click();
  await page.getByTestId('get-heights').waitFor();
  await scan(page);
  expect(await figure(page, 'range-now')).toBeLessThan(0.15);
  const machine = await eventually(async () => {
    const found = await shop.get<MachineOverview>(`/machines/${machineId}`);
    if (found.plus !== 'lower') throw new Error('not written down yet');
    return found;
  });
  expect(machine.version).toBe(2);
  const check = await serverCheck<LevelCheck>(shop, page, ({ rounds }) => rounds === 4);
  expect(check.roundList[2]!.raw).toBe(check.roundList[1]!.raw);
  expect(check.roundList.map(({ reading }) => reading.plus)).toEqual(['higher', 'higher', 'lower', 'lower']);
});

test('knobs that turn the other way are written down, and the check begins anew with the reading at hand', async () => {
  const page = await shop.page();
  const machineId = await shop.machineId('Sanderling');
  const type = async (slope: number) => {
    for (const r of [0, 1, 2])
      for (const c of [0, 1, 2])
        await page.getByTestId(`cell-${r}-${c}`).fill((slope * c).toFixed(2).replace('.', ','));
    await page.getByTestId('preview-range').waitFor();
    await page.getByTestId('use-heights').click();
    await page.getByTestId('plan-turns').waitFor();
  };
  await beginCheck(page, machineId);
  await type(0.15);
  const old = page.url();
  await page.getByTestId('turns-made').click();
  await page.getByTestId('get-heights').waitFor();
  await type(0.3);
  await page.getByTestId('turn-knobs-over').click();
  await eventually(async () => expect(page.url()).not.toBe(old));
  await page.getByTestId('plan-turns').waitFor();
  const check = await serverCheck<LevelCheck>(shop, page, ({ rounds }) => rounds === 1);
  expect(check.setup.adjusters.every(({ clockwise }) => clockwise === 'raises')).toBe(true);
  // Two writes that follow each other: the old check is told that it is dropped after the new one is there.
  await eventually(async () =>
    expect((await shop.get<LevelCheck>(`/level-checks/${old.split('/').pop()}`)).outcome).toBe('dropped'),
  );
});

test('a reload in the middle loses nothing: neither what is typed nor what is ticked', async () => {
  const page = await shop.page();
  await beginCheck(page, await shop.machineId('Stint'));
  await page.getByTestId('cell-1-1').fill('0,12');
  await page.reload();
  await page.getByTestId('cell-1-1').waitFor();
  expect(await page.getByTestId('cell-1-1').inputValue()).toBe('0,12');
  for (const r of [0, 1, 2]) for (const c of [0, 1, 2]) await page.getByTestId(`cell-${r}-${c}`).fill(String(0.2 * r));
  await page.getByTestId('preview-range').waitFor();
  await page.getByTestId('use-heights').click();
  await page.getByRole('checkbox').first().click();
  await page.getByTestId('check-note').fill('half done');
  await page.reload();
  await page.getByTestId('plan-turns').waitFor();
  expect(await page.getByRole('checkbox').first().getAttribute('aria-checked')).toBe('true');
  expect(await page.getByTestId('check-note').inputValue()).toBe('half done');
});

test('two tabs of one device keep one check', async () => {
  const context = await shop.context();
  const [first, second] = [await context.newPage(), await context.newPage()];
  await beginCheck(first, await shop.machineId('Snipe'));
  await second.goto(first.url());
  await first.getByTestId('cell-0-0').fill('0,3');
  await eventually(async () => expect(await second.getByTestId('cell-0-0').inputValue()).toBe('0,3'));
  await second.getByTestId('cell-0-1').fill('0,1');
  await eventually(async () => expect(await first.getByTestId('cell-0-1').inputValue()).toBe('0,1'));
  expect(await first.getByTestId('cell-0-0').inputValue()).toBe('0,3');
});

test('the server is killed in the middle and started again: nothing lost, nothing doubled', async () => {
  const page = await shop.page(undefined, { offlineApp: true });
  const machineId = await shop.machineId('Curlew');
  await beginCheck(page, machineId);
  // The page's own files are kept by then, so that it opens without a server.
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const type = async (slope: number) => {
    for (const r of [0, 1, 2])
      for (const c of [0, 1, 2]) await page.getByTestId(`cell-${r}-${c}`).fill((slope * c).toFixed(2));
    await page.getByTestId('preview-range').waitFor();
    await page.getByTestId('use-heights').click();
    await page.getByTestId('plan-turns').waitFor();
  };
  await type(0.15);
  await serverCheck<LevelCheck>(shop, page, ({ rounds }) => rounds === 1);
  await shop.killServer();

  await page.getByTestId('turns-made').click();
  await page.getByTestId('waiting-to-send').waitFor();
  await type(0.02);
  await page.reload();
  await page.getByTestId('plan-turns').waitFor();
  await page.getByTestId('finish').click();
  await page.getByTestId('check-sending').waitFor();
  await page.reload();
  await page.getByTestId('check-sending').waitFor();

  await shop.startServer();
  await page.getByTestId('check-record').waitFor();
  const { items } = await shop.get<{ items: LevelCheckSummary[] }>(`/level-checks?machineId=${machineId}&limit=5`);
  expect(items[0]).toMatchObject({ outcome: 'finished', rounds: 2, before: 0.3, after: 0.04 });
  const book = await shop.get<{ items: BookEntry[] }>(`/book?machineId=${machineId}&limit=5`);
  expect(book.items.map(({ kind }) => kind)).toEqual([
    'check-finished',
    'heights-read',
    'turns-made',
    'heights-read',
    'check-started',
  ]);
  await eventually(async () => expect(await page.getByTestId('waiting-to-send').count()).toBe(0));
});
