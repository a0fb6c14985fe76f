import type { LevelCheck, MachineOverview } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import { beginCheck, eventually, figure, serverCheck, TestShop } from './shop';

let shop: TestShop;
let page: Page;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
  page = await shop.page();
});
afterAll(() => shop.close());

// Three consoles' ways of printing one and the same bed: tilted by 0.40 mm from left to right, place (2, 2) not reached.
const INDEXED = `[09:14:10] heights of the bed, mm
[09:14:10]           0      1      2
[09:14:11]    2  -0.200 +0.000    nan
[09:14:12]    1  -0.200 +0.000 +0.200
[09:14:13]    0  -0.200 +0.000 +0.200
ok`;
const LABELLED = [15, 112.5, 210]
  .flatMap((y) =>
    [15, 112.5, 210].map(
      (x, i) =>
        `bed at X:${x.toFixed(2)} Y:${y.toFixed(2)} Z:${x === 210 && y === 210 ? 'nan' : (0.2 * (i - 1)).toFixed(3)}\nok`,
    ),
  )
  .join('\n');
const POSITIONS = `y\\x;15,0;112,5;210,0
15,0;\u22120,200;0,000;0,200
112,5;\u22120,200;0,000;0,200
210,0;\u22120,200;0,000;`;

async function paste(name: string, text: string): Promise<void> {
  await beginCheck(page, await shop.machineId(name));
  await page.getByTestId('way-pasted').click();
  await page.getByTestId('heights-text').fill(text);
}

async function useAndSee(): Promise<LevelCheck> {
  expect(await figure(page, 'preview-count')).toBe(8);
  expect(await figure(page, 'preview-range')).toBe(0.4);
  await page.getByTestId('use-heights').click();
  await page.getByTestId('plan-turns').waitFor();
  expect(await figure(page, 'range-now')).toBe(0.4);
  const left = page.getByTestId('turn-front-right');
  expect(await left.innerText()).toMatch(/clockwise/);
  return serverCheck<LevelCheck>(shop, page, ({ rounds }) => rounds === 1);
}

test('an indexed map is asked where it lies, and keeps its text as it came', async () => {
  await paste('Dunlin', INDEXED);
  await page.getByTestId('still-to-say').waitFor();
  expect(await page.getByTestId('use-heights').getAttribute('aria-disabled')).toBe('true');
  await page.getByTestId('first-row-rear').click();
  for (const [key, value] of Object.entries({ x0: '15', x1: '210', y0: '15,0', y1: '14' }))
    await page.getByTestId(`extent-${key}`).fill(value);
  expect(await page.getByTestId('extent-y1-error').innerText()).toBe('Must lie beyond the first');
  await page.getByTestId('extent-y1').fill('210');
  await page.getByTestId('remember-map').click();
  await page.getByTestId('map-known').waitFor();
  await page.getByTestId('preview-range').waitFor();
  const check = await useAndSee();
  expect(check.roundList[0]).toMatchObject({ source: 'pasted', raw: INDEXED, points: 8 });
  const machine = await shop.get<MachineOverview>(`/machines/${check.machineId}`);
  expect(machine).toMatchObject({ mapExtent: { x0: 15, y0: 15, x1: 210, y1: 210 }, mapFirstRow: 'rear' });
});

test('labelled lines', async () => {
  await paste('Knot', LABELLED);
  await page.getByTestId('preview-range').waitFor();
  await useAndSee();
});

test('a table with positions, decimal commas and true minus signs', async () => {
  await paste('Avocet', POSITIONS);
  await page.getByTestId('preview-range').waitFor();
  await useAndSee();
});

test('a file, and text without heights says what to paste', async () => {
  await beginCheck(page, await shop.machineId('Redshank'));
  await page.getByTestId('way-file').click();
  await page.getByTestId('file-input').setInputFiles({
    name: 'heights.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Z,Y,X\n0.1,20,20\n0.3,20,280\n0.15,280,150\n'),
  });
  await page.getByTestId('preview-range').waitFor();
  expect(await figure(page, 'preview-range')).toBe(0.2);
  await page.getByTestId('heights-text').fill('ok\nbusy');
  await page.getByTestId('reading-failed').waitFor();
  expect(await page.getByTestId('reading-failed').innerText()).toContain('No heights were found');
  await page.getByTestId('heights-text').fill('x,y,z\n20,20,0\n280,20,12\n150,280,0');
  await page.getByTestId('reading-warnings').waitFor();
  expect(await page.getByTestId('reading-warnings').innerText()).toContain('Are they in millimetres');
});

test('a typed 3 × 3 grid with decimal commas and a missing cell', async () => {
  await beginCheck(page, await shop.machineId('Sanderling'));
  expect(await page.getByTestId('way-machine').count()).toBe(0);
  const cell = (r: number, c: number) => page.getByTestId(`cell-${r}-${c}`);
  // Front row first; Enter walks along.
  await cell(0, 0).click();
  for (const height of ['0,05', '0,10', '0,15', '0,02', 'oops', '0,12']) {
    await page.keyboard.type(height);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await page.keyboard.type('\u22120,01');
  const fault = page.getByTestId('grid-fault');
  await eventually(async () => expect(await fault.innerText()).toContain('“oops” in row 2, place 2, is not a number.'));
  await cell(1, 1).fill('0,07');
  await eventually(async () => expect(await fault.innerText()).toContain('Readings are missing: 1 in row 3.'));
  await page.getByTestId('mark-missing').click();
  expect(await cell(2, 2).inputValue()).toBe('-');
  expect(await cell(0, 0).inputValue()).toBe('0,05');
  await page.getByTestId('preview-range').waitFor();
  expect(await figure(page, 'preview-count')).toBe(8);
  await page.getByTestId('use-heights').click();
  await page.getByTestId('plan-turns').waitFor();
  expect(await figure(page, 'range-now')).toBe(0.16);
  const check = await serverCheck<LevelCheck>(shop, page, ({ rounds }) => rounds === 1);
  expect(check.roundList[0]!.raw).toContain('15;15;0,05');
});

test('a knob that is seen from below is told from below', async () => {
  await beginCheck(page, await shop.machineId('Ruff'));
  for (const r of [0, 1, 2]) for (const c of [0, 1, 2]) await page.getByTestId(`cell-${r}-${c}`).fill(String(0.2 * c));
  await page.getByTestId('preview-range').waitFor();
  await page.getByTestId('use-heights').click();
  await page.getByTestId('turn-list').waitFor();
  expect(await page.getByTestId('turn-list').innerText()).toMatch(/LOOKING UP FROM BELOW/);
  // Common practice: clockwise, seen from the knob, lowers; the right side stands high.
  expect(await page.getByTestId('turn-front-right').innerText()).toMatch(/ clockwise/);
  const check = await serverCheck<LevelCheck>(shop, page, ({ rounds }) => rounds === 1);
  const turn = check.roundList[0]!.plan.turns.find(({ id }) => id === 'front-right')!;
  expect([turn.rise < 0, turn.turns < 0]).toEqual([true, true]);
});
