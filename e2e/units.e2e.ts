import type { ShopSettings } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import { beginCheck, PHONE, scan, TestShop } from './shop';
import { views } from './views';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

/** All that a view says: its lines, what stands in its fields, what its drawings and buttons are called. */
const saidOn = (page: Page) =>
  page.evaluate(() => {
    const said = new Set(document.body.innerText.split('\n').map((line) => line.trim()));
    for (const node of document.querySelectorAll<HTMLInputElement>('[aria-label], [placeholder], input, textarea')) {
      for (const name of ['aria-label', 'placeholder']) said.add(node.getAttribute(name) ?? '');
      if (node.value) said.add(`${node.getAttribute('aria-label') ?? ''}: ${node.value}`);
    }
    for (const node of document.querySelectorAll('svg text')) said.add(node.textContent ?? '');
    said.delete('');
    return [...said];
  });

/** Sentences whose point is another way of writing, and addresses, which are no numbers. */
const EXCEPT = [
  /works? too/,
  /^(millimetres, °C|inches, °F|point: 0\.25|comma: 0,25)$/,
  /^What is typed is understood either way/,
  /https?:\/\/|\b\d+\.\d+\.\d+\.\d+\b/,
  /^Or 12 in, 5 1\/4 in$/,
  // What a setting was and is.
  /^Settings: lengths and temperatures in|^(millimetres, °C|inches, °F) → /,
];

interface House {
  name: string;
  /** A machine that awaits a level check. */
  machine: string;
  units: ShopSettings['units'];
  numbers: ShopSettings['numbers'];
  /** What such a shop never says. */
  never: RegExp;
}

const HOUSES: House[] = [
  {
    name: 'inches, °F and a comma',
    machine: 'Lapwing',
    units: 'in',
    numbers: 'comma',
    never: /\b(mm|cm)\b|°C|µm|[Hh]undredths|\d\.\d|\bin in\b/,
  },
  {
    name: 'millimetres, °C and a point',
    machine: 'Dunlin',
    units: 'mm',
    numbers: 'point',
    never: /°F|\d in\b(?! [a-z])|\d,\d(?!\d\d)|\bmm mm\b/,
  },
];

/** What views a shop has beside the demo's list: paper, jobs, a level check in every way. */
async function walk(page: Page, look: (view: string) => Promise<void>): Promise<void> {
  const resin = await shop.machineId('Phalarope');
  const { items: doc } = await shop.get<{ items: { id: string }[] }>('/procedures');
  const more: [string, string][] = [
    [`/floor/${resin}`, 'page-title'],
    [`/floor/${resin}/edit`, 'field-name'],
    ...doc.map(({ id }): [string, string] => [`/jobs/paper?procedure=${id}`, 'paper']),
  ];
  for (const [address, ready] of [...(await views(shop)), ...more]) {
    await page.goto(address);
    await page.getByTestId(ready).first().waitFor();
    await page.getByTestId('page-title').first().waitFor();
    const folded = page.locator('[aria-expanded=false][data-testid$="-fold"]');
    for (let left = await folded.count(); left > 0; left = await folded.count()) await folded.first().click();
    await look(address);
  }
}

test.each(HOUSES)(
  'a shop of $name: every view and paper says it so',
  async ({ units, numbers, never, machine }) => {
    const settings = await shop.get<ShopSettings>('/settings');
    await shop.put('/settings', { ...settings, units, numbers, at: Date.now() });
    const page = await shop.page(PHONE);
    const faults: string[] = [];
    let lines = 0;
    const look = async (view: string) => {
      const said = await saidOn(page);
      lines += said.length;
      for (const line of said)
        if (never.test(line) && !EXCEPT.some((fine) => fine.test(line))) faults.push(`${view}: ${line.slice(0, 120)}`);
    };
    await walk(page, look);
    await beginCheck(page, await shop.machineId(machine));
    for (const way of ['typed', 'pasted', 'felt', 'machine']) {
      await page.getByTestId(`way-${way}`).click();
      await look(`heights, ${way}`);
    }
    await scan(page);
    await look('turns');
    expect(faults).toEqual([]);
    expect(lines).toBeGreaterThan(1500);
  },
  300_000,
);
