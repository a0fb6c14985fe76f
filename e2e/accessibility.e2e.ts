import fs from 'node:fs';
import type { Page } from 'playwright-core';
import { beginCheck, scan, TestShop, WIDE, PHONE, unfold } from './shop';

const AXE = fs.readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
}

const BOTH = ['light', 'dark'] as const;

/** Serious and critical faults of the page as it stands, in light and in dark, with the first place of each. */
async function faults(page: Page, schemes: readonly (typeof BOTH)[number][] = BOTH): Promise<string[]> {
  await page.evaluate(AXE);
  const found: string[] = [];
  for (const scheme of schemes) {
    await page.emulateMedia({ colorScheme: scheme });
    // The app is drawn anew in its other colours.
    await page.waitForTimeout(100);
    for (const fault of await faultsNow(page)) found.push(`${scheme}: ${fault}`);
  }
  return found;
}

async function faultsNow(page: Page): Promise<string[]> {
  const { violations } = await page.evaluate(() =>
    // What is right needs no list of its nodes: that takes most of the time.
    (window as unknown as { axe: { run: (of: Document, options: object) => Promise<AxeResult> } }).axe.run(document, {
      resultTypes: ['violations'],
    }),
  );
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id} × ${nodes.length}: ${nodes[0]!.html.slice(0, 200)} — ${nodes[0]!.failureSummary.slice(0, 200)}`,
    );
}

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

/** Views without parts of their own: their colours and shapes are those of the others, so light on the phone and dark on a wide screen do. */
const PLAIN: [string, string, string][] = [
  ['rack', '/rack', 'surface-B-001'],
  ['new surface', '/rack/new', 'surface-form'],
  ['kinds', '/kinds', 'page-title'],
  ['labels', '/labels?tags=S-001,S-002', 'labels-cells'],
  ['scan', '/scan', 'scan-tag'],
  ['prints', '/prints', 'page-title'],
  ['prints on a grid', '/prints/grid', 'print-grid'],
  ['a list of prints', '/prints/list', 'choose-list'],
  ['me', '/me', 'take-along'],
  ['people', '/people', 'page-title'],
  ['settings', '/settings', 'set-save'],
  ['a fleet from a list', '/floor/list', 'fleet-choose'],
  ['jobs', '/jobs', 'procedure-cut-glass'],
  ['before a job', '/jobs/new?procedure=fit-flex-on-resin', 'ready-at'],
  ['jobs as the shop does them', '/procedures', 'procedure-cut-glass'],
  ['a job as a document', '/procedures/fit-base-and-sheet', 'step-list'],
  ['a job on paper', '/jobs/paper?procedure=cut-glass', 'paper'],
  ['tools', '/tools', 'to-stack'],
  ['the stack tool', '/tools/stack', 'stack-compare'],
  ['the size tool', '/tools/size', 'size-drawing'],
  ['the tool for what is on top', '/tools/top', 'top-0'],
  ['the tool for what is under the bed', '/tools/underbed', 'room-compressed'],
  ['the blanks tool', '/tools/blanks', 'blanks-drawing'],
  ['the soak tool', '/tools/soak', 'soak-time'],
  ['what goes with what', '/tools/together', 'finding-0'],
  ['the spacer tool', '/tools/spacer', 'solid-view'],
  ['the first gap', '/tools/gap', 'gap-sentence'],
  ['two compared', '/tools/compare', 'compare-sentence'],
  ['a skirt', '/tools/skirt', 'skirt-plan'],
  ['paper and feel', '/tools/feel', 'gauge-thickness'],
  ['a practice bed', '/tools/practice', 'practice-plan'],
  ['the printer’s feet', '/tools/feet', 'feet-across'],
  ['light under a straightedge', '/tools/light', 'light-plan'],
  ['strips of tape', '/tools/strips', 'no-source'],
  ['lapping', '/tools/lap', 'lap-proven'],
  ['heights pasted in for flatness', '/tools/shape', 'shape-paste'],
];

describe.each([
  ['a phone', PHONE, 'light'],
  ['a wide screen', WIDE, 'dark'],
] as const)('%s', (_, size, plain) => {
  let page: Page;
  beforeAll(async () => {
    page = await shop.page(size);
  });
  afterAll(() => page.context().close());

  test.each([
    ['bench', '/bench', 'due-list'],
    ['floor', '/floor', 'machine-Dunlin'],
    ['book', '/book', 'book-older'],
    ['new machine', '/floor/new', 'machine-short'],
    ['new machine with all facts', '/floor/new?all=1', 'machine-form'],
    ['nothing there', '/nowhere', 'page-title'],
  ])('%s', async (_name, address, testId) => {
    await page.goto(address);
    await page.getByTestId(testId).waitFor();
    expect(await faults(page)).toEqual([]);
  });

  test('the colours follow the device while the app is open', async () => {
    await page.goto('/bench');
    await page.getByTestId('due-list').waitFor();
    const inks: string[] = [];
    for (const colorScheme of BOTH) {
      await page.emulateMedia({ colorScheme });
      await page.waitForTimeout(100);
      inks.push(await page.getByTestId('page-title').evaluate((node) => getComputedStyle(node).color));
    }
    expect(new Set(inks).size).toBe(2);
  });

  test.each(PLAIN)('%s', async (_name, address, testId) => {
    await page.goto(address);
    await page.getByTestId(testId).waitFor();
    expect(await faults(page, [plain])).toEqual([]);
  });

  test('a surface, putting it on, and looking at it', async () => {
    const { id } = await shop.get<{ id: string }>('/tags/S-014');
    await page.goto(`/rack/${id}`);
    await page.getByTestId('life').waitFor();
    await page.getByTestId('photos').waitFor();
    expect(await faults(page)).toEqual([]);
    await page.goto(`/mount?machine=${await shop.machineId('Lapwing')}&surface=${id}`);
    await page.getByTestId('ask-clean-dry').waitFor();
    expect(await faults(page)).toEqual([]);
    await page.goto(`/inspect?surface=${id}&card=coat`);
    await page.getByTestId('code-faded').waitFor();
    expect(await faults(page)).toEqual([]);
  });

  test('a machine, its form, its check and the record', async () => {
    const id = await shop.machineId(size === WIDE ? 'Godwit' : 'Dunlin');
    await page.goto(`/floor/${id}`);
    await page.getByTestId('level-history').waitFor();
    if (size === PHONE) for (const part of ['stack', 'level-history', 'photos', 'facts']) await unfold(page, part);
    expect(await faults(page)).toEqual([]);
    await page.goto(`/floor/${id}/maps`);
    await page.getByTestId('maps').waitFor();
    expect(await faults(page)).toEqual([]);
    await page.goto(`/tools/shape?machine=${id}`);
    await page.getByTestId('flatness').waitFor();
    await page.getByTestId('cure-mount').waitFor();
    expect(await faults(page)).toEqual([]);
    await page.goto(`/tools/layer?machine=${id}`);
    await page.getByTestId('pad-plan').waitFor();
    expect(await faults(page)).toEqual([]);
    await page.goto(`/floor/${id}/edit`);
    await page.getByTestId('field-name').waitFor();
    expect(await faults(page)).toEqual([]);
    await beginCheck(page, id);
    for (const way of ['typed', 'pasted', 'file', 'machine']) {
      await page.getByTestId(`way-${way}`).click();
      expect(await faults(page)).toEqual([]);
    }
    await scan(page);
    expect(await faults(page)).toEqual([]);
    await page.getByTestId('drop-check').click();
    await page.getByTestId('prompt-confirm').waitFor();
    // The question fades in: its colours count once it is there.
    await page.waitForTimeout(500);
    expect(await faults(page)).toEqual([]);
    await page.getByTestId('prompt-cancel').click();
    await page.getByTestId('finish-as-is').click();
    await page.getByTestId('check-record').waitFor();
    expect(await faults(page)).toEqual([]);
  });
});
