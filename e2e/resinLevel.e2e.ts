import type { LevelNote, MachineLevels, MachineZero } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import { choose, eventually, PHONE, TestShop, unfold, WIDE, tap } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

const at = (page: Page, step: string) => page.getByTestId(`card-${step}`).waitFor();
const tickAll = async (page: Page) => {
  for (const check of await page.getByTestId(/^check-/).all()) await check.click();
};
const zeroOf = (machineId: string) => shop.get<MachineZero>(`/machines/${machineId}/zero`);
const notesOf = async (machineId: string) =>
  (await shop.get<{ items: LevelNote[] }>(`/level-notes?machineId=${machineId}`)).items;

/** From the machine's page into the job, in the practised manner. */
async function begin(page: Page, machineId: string, way?: string): Promise<void> {
  await page.goto(`/floor/${machineId}`);
  await unfold(page, 'zero');
  await page.getByTestId('level-resin').click();
  await page.getByTestId('ready-at').waitFor();
  await page.waitForTimeout(300);
  if (way) await page.getByTestId(`school-gauge-${way}`).click();
  await page.getByTestId('begin-job').click();
  await page.getByTestId('job').waitFor();
  if ((await page.getByTestId('manner').innerText()) === 'step by step') await tap(page, 'manner');
}

test('a platform whose zero is from before home was moved: quarter sheets, a loose corner, even, and zero last', async () => {
  const machineId = await shop.machineId('Sandpiper');
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto(`/floor/${machineId}`);
  await unfold(page, 'zero');
  expect(await page.getByTestId('zero-home').innerText()).toMatch(/^Zero is from before home was moved/);
  const before = (await notesOf(machineId)).length;
  await begin(page, machineId);
  await at(page, 'ready');
  // No gate is passed by haste.
  await tap(page, 'step-done');
  expect(await page.getByTestId('refusal').innerText()).toMatch(/^Not yet/);
  await tickAll(page);
  await tap(page, 'step-done');
  await at(page, 'lower');
  await tap(page, 'answer-touching');
  await at(page, 'press');
  await tap(page, 'step-done');
  await at(page, 'tug');
  // Four taps for four sheets: the one meant now goes on by itself.
  for (const key of [1, 1, 1, 0]) await page.getByTestId(`tug-key-${key}`).click();
  expect(await page.getByTestId('tugs-sum').innerText()).toMatch(
    /^Front left is looser than the rest: loosen all, press in the middle, tighten crosswise, front left, rear right/,
  );
  // One is pulled again, and put right.
  await page.getByTestId('tug-rear-right').click();
  await page.getByTestId('tug-key-2').click();
  await page.getByTestId('tug-rear-right').click();
  await page.getByTestId('tug-key-1').click();
  await tap(page, 'step-done');
  await at(page, 'press');
  await tap(page, 'step-done');
  await at(page, 'tug');
  // After tightening nothing of what was felt before stands there: all four are asked anew.
  expect(await page.getByTestId('tugs-sum').count()).toBe(0);
  for (const key of [1, 1, 1, 1]) await page.getByTestId(`tug-key-${key}`).click();
  expect(await page.getByTestId('tugs-sum').innerText()).toBe('Alike at all four: it is level. Now zero.');
  await tap(page, 'step-done');
  await at(page, 'zero');
  await tickAll(page);
  // Zero is asked for last; "not yet" leads to setting it.
  await tap(page, 'answer-not');
  await at(page, 'zero-now');
  await tap(page, 'answer-set');
  await page.getByTestId('job-ended').waitFor();
  const [note] = await eventually(async () => {
    const notes = await notesOf(machineId);
    expect(notes).toHaveLength(before + 1);
    return notes;
  });
  expect(note).toMatchObject({ way: 'quarters', result: { verdict: 'even', range: { least: 0, most: 0.03 } } });
  expect((await zeroOf(machineId)).stands).toEqual({ state: 'stands', since: [] });
  // Taken back, without a signal, it is as it was.
  await page.goto(`/floor/${machineId}`);
  await unfold(page, 'zero');
  await page.context().setOffline(true);
  await page.getByTestId('home-moved').click();
  await page.getByTestId('z-back').click();
  await page.context().setOffline(false);
  await eventually(async () => {
    const lines = (await shop.get<{ items: { text: string }[] }>('/book?search=home')).items.map(({ text }) => text);
    expect(lines[0]).toBe('Sandpiper: that home was moved is taken back.');
  });
  expect((await zeroOf(machineId)).stands.state).toBe('stands');
  await page.context().close();
});

test('the first-layer lock says why power is cut, proves by eye, and sets zero one layer up', async () => {
  const machineId = await shop.machineId('Stilt');
  const page = await shop.page(PHONE, { as: 'technician' });
  await begin(page, machineId, 'lock');
  await at(page, 'ready');
  expect(await page.getByTestId('step-ready').innerText()).toMatch(/Vat in, empty, clean and dry/);
  await tickAll(page);
  await tap(page, 'step-done');
  await at(page, 'lower');
  await tap(page, 'answer-touching');
  await at(page, 'dummy');
  expect(await page.getByTestId('step-dummy').innerText()).toMatch(/power off: not pause/);
  await tickAll(page);
  await tap(page, 'step-done');
  await at(page, 'press');
  await tap(page, 'step-done');
  await at(page, 'edges');
  await tap(page, 'answer-even');
  await at(page, 'zero-lock');
  expect(await page.getByTestId('step-zero-lock').innerText()).toMatch(/up by that first layer, and set zero there/);
  await tickAll(page);
  await tap(page, 'answer-set');
  await page.getByTestId('job-ended').waitFor();
  await eventually(async () => expect((await notesOf(machineId))[0]).toMatchObject({ way: 'lock' }));
  await page.context().close();
});

test('crosswise on a frame: the screw meant now is marked, and a tap goes on to the next', async () => {
  const machineId = await shop.machineId('Stilt');
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto(`/jobs/new?procedure=fit-film&machine=${machineId}`);
  await page.getByTestId('ready-at').waitFor();
  for (const part of await page.getByTestId(/^part-\w+$/).all())
    await choose(page, (await part.getAttribute('data-testid'))!, '');
  await page.getByTestId('begin-job').click();
  await page.getByTestId('job').waitFor();
  if ((await page.getByTestId('manner').innerText()) === 'practised') await tap(page, 'manner');
  await at(page, 'empty');
  await tap(page, 'step-done');
  await at(page, 'old-off');
  expect(await page.getByTestId('next-place').getAttribute('aria-label')).toMatch(/rear left, 1 of 4/);
  await page.getByTestId('next-place').click();
  expect(await page.getByTestId('next-place').getAttribute('aria-label')).toMatch(/front right, 2 of 4/);
  await page.context().close();
});

test('on a wide screen a machine’s level stands over time, each way with how well it is known; one is taken back', async () => {
  const machineId = await shop.machineId('Sandpiper');
  const page = await shop.page(WIDE, { as: 'lead' });
  await page.goto(`/floor/${machineId}`);
  await page.getByTestId('to-levels').click();
  await page.getByTestId('levels').waitFor();
  const { items, again } = await shop.get<MachineLevels>(`/machines/${machineId}/levels`);
  expect(items.length).toBeGreaterThan(3);
  expect(again.more).toBe(3);
  expect(await page.getByTestId('span-trend').getAttribute('aria-label')).toMatch(
    `the last ${items.filter(({ least }) => least !== null).length} levels`,
  );
  expect(await page.getByTestId('level-list').innerText()).toMatch(/by quarter sheets\n0\.00 mm to 0\.03 mm/);
  await page.getByTestId(`back-${items[0]!.id}`).click();
  await eventually(async () =>
    expect((await shop.get<MachineLevels>(`/machines/${machineId}/levels`)).items).toHaveLength(items.length - 1),
  );
  // By probe it is known as well as what was read twice says.
  await page.goto(`/floor/${await shop.machineId('Dunlin')}/level`);
  await page.getByTestId('levels').waitFor();
  expect(await page.getByTestId('level-list').innerText()).toMatch(/by probe\n0\.\d\d mm to 0\.\d\d mm/);
  expect(await page.getByTestId('drift').innerText()).toMatch(/^Every \d+ days?: it drifts about/);
  await page.context().close();
});
