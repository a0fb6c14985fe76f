import type { MachineOverview, Surface } from '@even-bed/contract';
import { choose, eventually, figure, TestShop } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

test('the first level check is at most eight taps away', async () => {
  const page = await shop.page();
  await page.goto('/');
  let taps = 0;
  const tap = async (testId: string) => {
    taps++;
    await page.getByTestId(testId).click();
  };
  await tap('add-first');
  await page.getByTestId('machine-short').waitFor();
  await tap('save-and-check');
  await page.getByText('Choose the plate that is nearest').waitFor();
  expect(await page.getByTestId('field-name-error').innerText()).toBe('Name is empty.');
  taps--; // A person who doesn't forget the name makes no such tap.
  await tap('field-name');
  await page.keyboard.type('Wheatear');
  await tap('short-plate-220 × 220');
  await tap('short-knobs-three-front');
  await tap('short-finding-by-hand');
  await tap('save-and-check');
  await page.getByTestId('cell-0-0').waitFor();
  expect(taps).toBeLessThanOrEqual(8);
  const { items } = await shop.get<{ items: MachineOverview[] }>('/machines');
  expect(items[0]).toMatchObject({
    name: 'Wheatear',
    areaName: 'Workshop',
    model: '220 × 220 filament',
    finding: 'by-hand',
    plateWidth: 235,
    originX: 7.5,
  });
  expect(items[0]!.adjusters.map(({ id, x, y }) => [id, x, y])).toEqual([
    ['front', 110, 15],
    ['rear-left', 15, 205],
    ['rear-right', 205, 205],
  ]);
  await page.goto('/floor');
  await page.getByTestId('add-machine').click();
  await page.getByTestId('short-plate-143 × 89, resin').click();
  await page.getByTestId('field-name').fill('Ouzel');
  expect(await page.getByTestId('short-area').getByRole('radio', { checked: true }).innerText()).toContain('Workshop');
  await page.getByTestId('save-and-check').click();
  await page.getByTestId('machine').waitFor();
  const ouzel = await shop.get<MachineOverview>(`/machines/${await shop.machineId('Ouzel')}`);
  expect(ouzel).toMatchObject({ family: 'resin', adjusters: [], finding: 'endstop', firstLayer: 0.05 });
});

test('the first surface is on its machine in a few taps', async () => {
  const page = await shop.page();
  await page.goto('/rack');
  await page.getByTestId('add-surface').click();
  await page.getByTestId('save-and-mount').click();
  await page.getByText('Choose what it is.').waitFor();
  await page.getByTestId('surface-group-sheet').click();
  await choose(page, 'field-kindId', '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d0001');
  await page.getByTestId('surface-size-235 × 235').click();
  await page.getByTestId('save-and-mount').click();
  await page.getByTestId('mount-machine').waitFor();
  await choose(page, 'mount-machine', await shop.machineId('Wheatear'));
  await page.getByTestId('ask-clean-dry').waitFor();
  const { items } = await shop.get<{ items: Surface[] }>('/surfaces?limit=5');
  expect(items[0]).toMatchObject({ tag: 'S-001', width: 235, depth: 235 });
});

test('with all its facts at once: the first machine is added and levelled by hand', async () => {
  const page = await shop.page();
  await page.goto('/floor/new');
  await page.getByTestId('short-knobs-three-rear').click();
  await page.getByTestId('all-facts').click();
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
  const whinchat = items.find(({ name }) => name === 'Whinchat')!;
  expect(whinchat).toMatchObject({
    name: 'Whinchat',
    areaName: 'Garage',
    plateWidth: 215.9,
    plateDepth: 216,
    firstLayer: 0.24,
    originY: 8,
  });
  expect(whinchat.adjusters.map(({ id }) => id)).toEqual(['front-left', 'front-right', 'rear']);

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
