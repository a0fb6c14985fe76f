import type { Machine, Page as ListPage, Print } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import seedrandom from 'seedrandom';
import { eventually, PHONE, TestShop, WIDE } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

/** Most that a view may move by itself while it comes: share of the screen times share of the way (Layout Instability). */
const MOST = 0.02;
/** A view has come when nothing was asked or answered for so long, ms. */
const QUIET_MS = 400;

interface Shift {
  value: number;
  moved: string[];
}

/** Answers come late and in any order, as in a shop with thick walls. */
async function slow(page: Page, seed: string): Promise<() => Promise<void>> {
  const random = seedrandom(seed);
  let open = 0;
  let last = Date.now();
  await page.route('**/api/**', async (route) => {
    if (route.request().url().includes('/api/events')) return route.continue();
    open++;
    await new Promise((resolve) => setTimeout(resolve, 60 + random() * 400));
    await route.continue().catch(() => undefined);
  });
  const done = () => {
    open = Math.max(0, open - 1);
    last = Date.now();
  };
  page.on('requestfinished', (request) => request.url().includes('/api/') && done());
  page.on('requestfailed', (request) => request.url().includes('/api/') && done());
  return () =>
    eventually(async () => {
      expect(open === 0 && Date.now() - last > QUIET_MS).toBe(true);
    });
}

/** All that a view shifted since it was opened, without what followed a tap or a key. */
const shifts = (page: Page) =>
  page.evaluate(() => (globalThis as unknown as { shifts: Shift[] }).shifts) as Promise<Shift[]>;

async function watch(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const seen: Shift[] = [];
    (globalThis as unknown as { shifts: Shift[] }).shifts = seen;
    interface Entry extends PerformanceEntry {
      value: number;
      hadRecentInput: boolean;
      sources: { node: Node | null; previousRect: DOMRect; currentRect: DOMRect }[];
    }
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as Entry[])
        if (!entry.hadRecentInput)
          seen.push({
            value: entry.value,
            moved: entry.sources.map(
              ({ node, previousRect, currentRect }) =>
                `${(node?.textContent ?? '').slice(0, 40)} ${Math.round(previousRect.y)} → ${Math.round(currentRect.y)}`,
            ),
          });
    }).observe({ type: 'layout-shift', buffered: true });
  });
}

test.each([
  ['a phone', PHONE],
  ['a wide screen', WIDE],
] as const)(
  'no view moves under a finger while it comes: %s',
  async (name, size) => {
    const { items: machines } = await shop.get<ListPage<Machine>>('/machines');
    const id = (machine: string) => machines.find((one) => one.name === machine)!.id;
    const { id: sheet } = await shop.get<{ id: string }>('/tags/S-014');
    const failed = (await shop.get<ListPage<Print>>('/prints?held=false&limit=1')).items[0]!.id;
    const views = [
      ...['/bench', '/floor', '/rack', '/book', '/me', '/people', '/settings', '/kinds', '/labels?tags=S-001,S-002'],
      ...['Dunlin', 'Turnstone', 'Phalarope'].map((machine) => `/floor/${id(machine)}`),
      ...['edit', 'levels', 'maps'].map((part) => `/floor/${id('Dunlin')}/${part}`),
      ...['/floor/new', '/floor/list', '/rack/new', `/rack/${sheet}`, `/inspect?surface=${sheet}`],
      `/mount?machine=${id('Dunlin')}`,
      ...['/prints', '/prints/grid', '/prints/list', `/prints/${failed}`],
      ...['/jobs', '/jobs/new?procedure=fit-flex-on-resin', '/procedures', '/procedures/fit-base-and-sheet'],
      `/jobs/new?procedure=fit-base-and-sheet&machine=${id('Dunlin')}`,
      ...['', '/size', '/top', '/underbed', '/blanks', '/soak', '/together', '/spacer', '/gap', '/compare'].map(
        (tool) => `/tools${tool}`,
      ),
      ...['skirt', 'feel', 'practice', 'feet', 'light', 'strips', 'lap', 'shape', 'layer'].map(
        (tool) => `/tools/${tool}`,
      ),
      `/tools/stack?machine=${id('Dunlin')}`,
    ];
    const page = await shop.page(size);
    await watch(page);
    const quiet = await slow(page, name);
    const moved: [view: string, sum: number, moved: string[]][] = [];
    for (const view of views) {
      await page.goto(view);
      await page.getByTestId('page-title').first().waitFor();
      await quiet();
      const seen = await shifts(page);
      const sum = seen.reduce((all, { value }) => all + value, 0);
      if (sum > MOST) moved.push([view, sum, seen.filter(({ value }) => value > MOST / 4).flatMap((one) => one.moved)]);
    }
    expect(moved).toEqual([]);
  },
  600_000,
);

test('what moves is seen', async () => {
  const page = await shop.page(PHONE);
  await watch(page);
  await page.goto('/settings');
  await page.getByTestId('set-save').waitFor();
  await page.evaluate(() => {
    const push = document.createElement('div');
    push.style.height = '300px';
    document.querySelector('[data-testid=page-title]')!.before(push);
  });
  await eventually(async () =>
    expect((await shifts(page)).reduce((all, { value }) => all + value, 0)).toBeGreaterThan(MOST),
  );
});
