import type { MachineOverview, Page as ListPage, Photo, Surface } from '@even-bed/contract';
import { readinessWords } from '@even-bed/words/readiness';
import { PDFDocument } from 'pdf-lib';
import type { Page } from 'playwright-core';
import { choose, eventually, TestShop, uncovered, WIDE } from './shop';

let shop: TestShop;
let page: Page;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
  page = await shop.page(WIDE);
});
afterAll(() => shop.close());

test('the rack stands beside the page of a surface, and each row opens another', async () => {
  await page.goto('/rack');
  await page.getByTestId('rack-search').fill('S-01');
  // Beside the list stands what waits, of the same rows: the list's own is meant.
  const list = page.getByTestId('rack-list');
  await list.getByTestId('surface-S-014').click();
  await page.getByTestId('surface').waitFor();
  expect(await page.getByRole('complementary', { name: 'The rack' }).isVisible()).toBe(true);
  await page.getByTestId('rack-search').fill('P-00');
  await list.getByTestId('surface-P-003').click();
  await page.getByTestId('surface-history').getByText('Lapped on glass', { exact: false }).first().waitFor();
  expect(new URL(page.url()).pathname).toMatch(/^\/rack\/[0-9a-f-]+$/);
});

test('it is narrowed by kind, state and place, in the address too', async () => {
  await page.goto('/rack');
  await page.getByTestId('rack-narrow').click();
  await choose(page, 'rack-group', 'sheet');
  await choose(page, 'rack-state', 'retired');
  await page.getByTestId('rack-list').getByTestId('surface-S-020').waitFor();
  await eventually(async () =>
    expect(await page.getByTestId('rack-list').locator('[data-testid^="surface-S-"]').count()).toBe(1),
  );
  expect(new URL(page.url()).search).toContain('state=retired');
  await page.reload();
  await page.getByTestId('rack-list').getByTestId('surface-S-020').waitFor();
  await page.goto('/rack?state=on-hold');
  await page.getByTestId('rack-list').getByTestId('surface-B-013').waitFor();
});

test('what stands against printing is said alike on floor, bench, rack, the machine’s page and in the API', async () => {
  const { items: machines } = await shop.get<ListPage<MachineOverview>>('/machines');
  const { items: surfaces } = await shop.get<ListPage<Surface>>('/surfaces?limit=500');
  const lies = ({ id }: MachineOverview) =>
    surfaces.find(
      ({ state: { where } }) => where.kind === 'machine' && where.machineId === id && where.slot === 'top',
    ) ?? surfaces.find(({ state: { where } }) => where.kind === 'machine' && where.machineId === id);
  // One that can't print for a reason of its own, with something on it that the rack lists.
  const machine = machines.find(
    (one) => one.readiness.state === 'not' && one.readiness.against[0]!.code !== 'bare' && lies(one),
  )!;
  const surface = lies(machine)!;
  const reader = { units: 'mm', numbers: 'point', zone: 'UTC' } as const;
  const words = readinessWords(machine.readiness, reader, Date.now()).split(',')[0]!;
  const says = async (address: string, testId: string) => {
    await page.goto(address);
    await eventually(async () => expect(await page.getByTestId(testId).first().innerText()).toContain(words));
  };
  await says('/floor', `machine-${machine.name}`);
  await says(`/floor/${machine.id}`, 'machine');
  await says(`/rack?search=${surface.tag}`, `surface-${surface.tag}`);
  await page.goto('/bench');
  await eventually(async () => expect(await page.getByTestId('due-list').innerText()).toContain(machine.name));
});

test('several are chosen: moved in one go, and their labels printed into the cells that are left', async () => {
  await page.goto('/rack?state=in-rack');
  await page.getByTestId('choose-several').click();
  for (const tag of ['S-021', 'S-027']) await page.getByTestId(`choose-${tag}`).click();
  await page.getByTestId('move-chosen').click();
  await page.getByTestId('place-typed').fill('Shelf by the window');
  await page.getByTestId('place-go').click();
  await eventually(async () => {
    const { items } = await shop.get<{ items: Surface[] }>('/surfaces?place=Shelf by the window');
    expect(items.map(({ tag }) => tag)).toEqual(['S-021', 'S-027']);
  });

  await uncovered(page);
  await page.goto('/rack?place=Shelf by the window');
  await page.getByTestId('choose-several').click();
  for (const tag of ['S-021', 'S-027']) await page.getByTestId(`choose-${tag}`).click();
  await page.getByTestId('labels-chosen').click();
  await page.getByTestId('labels-cells').waitFor();
  await page.getByTestId('cell-0').click();
  expect(await page.getByTestId('cell-0').innerText()).toBe('used');
  expect(await page.getByTestId('cell-1').innerText()).toBe('S-021');
  // Codes with this host's own address are of no use on a sheet: said before they are printed.
  expect(await page.getByTestId('labels-address').innerText()).toMatch(/on this computer alone[\s\S]*127\.0\.0\.1/);
  const asked = page.context().waitForEvent('request', (request) => request.url().includes('/api/labels'));
  await page.getByTestId('labels-pdf').click();
  const answer = await page.request.get((await asked).url());
  expect(answer.headers()['content-type']).toBe('application/pdf');
  const pdf = await PDFDocument.load(await answer.body());
  expect(pdf.getPageCount()).toBe(1);
  // ISO 216: A4 is 210 × 297 mm; a point is 25.4 / 72 mm.
  expect(Math.round((pdf.getPage(0).getWidth() * 25.4) / 72)).toBe(210);
});

test('two photos of one surface stand side by side with their dates', async () => {
  const { id } = await shop.get<{ id: string }>('/tags/S-014');
  await page.goto(`/rack/${id}`);
  await page.getByTestId('photos').waitFor();
  const { items } = await shop.get<{ items: Photo[] }>(`/photos?surfaceId=${id}`);
  const [latest, before] = items;
  await page.getByTestId(`photo-${latest!.id}`).click();
  await choose(page, 'photo-beside', before!.id);
  const large = page.getByTestId('compared').locator('img');
  await eventually(async () => expect(await large.count()).toBe(2));
  const sources = await large.evaluateAll((all) => all.map((image) => (image as HTMLImageElement).src));
  expect(sources[0]).toContain(before!.id);
  expect(sources[1]).toContain(latest!.id);
  await eventually(async () =>
    expect(await large.evaluateAll((all) => all.every((image) => (image as HTMLImageElement).naturalWidth > 500))).toBe(
      true,
    ),
  );
});

test('the book is searched, opened at a line, and leads to its record and back', async () => {
  await page.goto('/book');
  await page.getByTestId('book-search').fill('harbour fair');
  await eventually(async () => expect(await page.getByTestId('book-lines').innerText()).toContain('B-012'));
  await page.getByTestId('book-lines').getByRole('link').first().click();
  await eventually(async () => expect(new URL(page.url()).pathname).toMatch(/^\/(book|rack)\//));
  await page.goBack();
  await page.getByTestId('book-lines').waitFor();
  await page.goto('/book');
  await page.getByTestId('check-book').click();
  await eventually(async () =>
    expect(await page.locator('body').innerText()).toContain('each follows from the one before'),
  );
});
