import type { MachineOverview } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import { eventually, figure, hand, TestShop } from './shop';

let shop: TestShop;
let page: Page;
beforeAll(async () => {
  shop = await TestShop.open({ unclaimed: true });
  page = await shop.page(undefined, { zone: 'Pacific/Auckland' });
});
afterAll(() => shop.close());

test('a new shop asks for its first account, at the field what is wrong with it', async () => {
  await page.goto('/');
  await page.getByTestId('first-start').waitFor();
  await page.getByTestId('first-code').fill(shop.firstCode);
  await page.getByTestId('first-name').fill('Tess Marl');
  await page.getByTestId('first-secret').fill('1234');
  await page.getByTestId('first-again').fill('1234');
  await page.getByTestId('first-go').click();
  await eventually(async () => expect(await page.getByTestId('first-secret-error').innerText()).toMatch(/6 digits/));
  await page.getByTestId('first-secret').fill('a long evening');
  await page.getByTestId('first-code').fill('000000');
  await page.getByTestId('first-again').fill('a long evening');
  await page.getByTestId('first-go').click();
  await eventually(async () => expect(await page.getByTestId('first-code-error').innerText()).toMatch(/terminal/));
  await page.getByTestId('first-code').fill(shop.firstCode);
  await page.getByTestId('first-go').click();
  await page.getByTestId('add-first').waitFor();
  // The shop is where the device that opened it is.
  expect(await (await page.request.get('/api/settings')).json()).toMatchObject({ zone: 'Pacific/Auckland' });
  // Nobody makes a second first account.
  const refused = await fetch(`${shop.url}/api/people/first`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ id: crypto.randomUUID(), name: 'Eve', secret: 'another evening', shared: false, at: 1 }),
  });
  expect(refused.status).toBe(409);
});

test('from there to the first levelled machine, with a plate that is often met', async () => {
  await page.getByTestId('add-first').click();
  await page.getByTestId('field-name').fill('Whinchat');
  await page.getByTestId('field-newArea').fill('Garage');
  await page.getByTestId('short-plate-220 × 220').click();
  await page.getByTestId('save-and-check').click();
  await page.getByTestId('cell-0-0').waitFor();
  for (const r of [0, 1, 2]) for (const c of [0, 1, 2]) await page.getByTestId(`cell-${r}-${c}`).fill(`0,0${c}`);
  await page.getByTestId('preview-range').waitFor();
  expect(await figure(page, 'preview-range')).toBe(0.02);
  await page.getByTestId('use-heights').click();
  await page.getByTestId('finish').click();
  await page.getByTestId('check-record').waitFor();
});

test('a fleet comes in from a list; lines with faults are named and left out', async () => {
  await page.goto('/floor/list');
  const csv = [
    'Name;Area;Model;Print width;Print depth',
    'Dunlin;Long Room;225 slinger;225;225',
    'Knot;Loft;300 cube;300;300',
    ';Loft;300 cube;300;300',
    'Ruff;Loft;180 small;wide;180',
  ].join('\n');
  await hand(page, 'fleet-choose', { name: 'fleet.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await page.getByTestId('fleet-lines').waitFor();
  expect(await page.getByTestId('fleet-lines').innerText()).toMatch(/Line 4[\s\S]*Line 5/i);
  await page.getByTestId('fleet-add').click();
  const names = await eventually(async () => {
    const response = await page.request.get('/api/machines');
    const { items } = (await response.json()) as { items: MachineOverview[] };
    expect(items).toHaveLength(3);
    return items.map(({ name, areaName }) => `${name} in ${areaName}`);
  });
  expect(names.sort()).toEqual(['Dunlin in Long Room', 'Knot in Loft', 'Whinchat in Garage']);
});
