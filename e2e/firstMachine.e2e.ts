import type { MachineOverview } from '@even-bed/contract';
import { eventually, figure, TestShop } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

test('an empty shop says what to do first; the first machine is added and levelled by hand', async () => {
  const page = await shop.page();
  await page.goto('/');
  await page.getByTestId('add-first').click();
  await page.getByTestId('machine-form').waitFor();
  await page.getByTestId('save-machine').click();
  await eventually(async () => expect(await page.getByTestId('field-name-error').innerText()).toBe('Name is empty.'));

  await page.getByTestId('field-name').fill('Whinchat');
  await page.getByTestId('field-areaId').click();
  await page.getByRole('menuitem', { name: 'A new area' }).click();
  await page.getByTestId('field-newArea').fill('Garage');
  await page.getByTestId('field-model').fill('Kit 200');
  await page.getByTestId('field-plateWidth').fill('8 1/2 in');
  await page.getByTestId('field-plateDepth').fill('breit');
  await page.getByTestId('field-printWidth').fill('200');
  await page.getByTestId('field-printDepth').fill('200');
  await page.getByTestId('field-firstLayer').fill('0,24');
  await page.getByTestId('adjuster-pattern-three-rear').click();
  await page.getByTestId('save-machine').click();
  await eventually(async () =>
    expect(await page.getByTestId('field-plateDepth-error').innerText()).toContain('must be a length'),
  );

  // A reload loses nothing of it.
  await page.reload();
  await eventually(async () => expect(await page.getByTestId('field-name').inputValue()).toBe('Whinchat'));
  expect(await page.getByTestId('field-plateDepth').inputValue()).toBe('breit');
  await page.getByTestId('field-plateDepth').fill('216');
  await page.getByTestId('save-machine').click();
  await page.getByTestId('machine').waitFor();
  const { items } = await shop.get<{ items: MachineOverview[] }>('/machines');
  expect(items[0]).toMatchObject({
    name: 'Whinchat',
    areaName: 'Garage',
    plateWidth: 215.9,
    plateDepth: 216,
    firstLayer: 0.24,
    originY: 8,
  });
  expect(items[0]!.adjusters.map(({ id }) => id)).toEqual(['front-left', 'front-right', 'rear']);

  await page.getByTestId('rule-change').click();
  await page.getByTestId('rule-days').fill('0');
  await page.getByTestId('rule-save').click();
  await eventually(async () =>
    expect(await page.getByTestId('rule-days-error').innerText()).toBe('Days between checks must be at least 1.'),
  );
  await page.getByTestId('rule-days').fill('10');
  await page.getByTestId('rule-save').click();
  await eventually(async () => expect(await page.getByTestId('next-due').innerText()).toBe('Due today'));

  await page.getByTestId('check-level').click();
  for (const r of [0, 1, 2]) for (const c of [0, 1, 2]) await page.getByTestId(`cell-${r}-${c}`).fill(`0,0${c}`);
  await page.getByTestId('preview-range').waitFor();
  expect(await figure(page, 'preview-range')).toBe(0.02);
  await page.getByTestId('use-heights').click();
  await page.getByTestId('finish').click();
  await page.getByTestId('record-next').waitFor();
});

test('two people edit one machine: the second sees both versions and loses nothing', async () => {
  const machineId = await shop.machineId('Whinchat');
  const [first, second] = [await shop.page(), await shop.page()];
  for (const page of [first, second]) {
    await page.goto(`/floor/${machineId}/edit`);
    await page.getByTestId('field-shelf').waitFor();
  }
  await first.getByTestId('field-shelf').fill('B2');
  await first.getByTestId('save-machine').click();
  await first.getByTestId('machine').waitFor();
  await second.getByTestId('field-note').fill('New springs');
  await second.getByTestId('save-machine').click();
  await second.getByTestId('form-failure').waitFor();
  expect(await second.getByTestId('form-failure').innerText()).toContain('shelf “B2”');
  expect(await second.getByTestId('field-note').inputValue()).toBe('New springs');
  await second.getByTestId('save-machine').click();
  await second.getByTestId('machine').waitFor();
  expect(await shop.get<MachineOverview>(`/machines/${machineId}`)).toMatchObject({
    version: 3,
    shelf: '',
    note: 'New springs',
  });
});
