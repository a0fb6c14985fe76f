import type { Page } from 'playwright-core';
import { beginCheck, PHONE, scan, TestShop } from './shop';
import { views } from './views';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

const SIZES: Record<string, { width: number; height: number }> = {
  'a small phone': { width: 320, height: 640 },
  'a phone on its side': { width: 844, height: 390 },
  'a tablet upright': { width: 820, height: 1180 },
  'a wide screen': { width: 1280, height: 800 },
  'a very wide screen': { width: 1920, height: 1080 },
};

/** What reaches past the side of the page, or past that of whatever scrolls round it. */
const tooWide = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[data-testid], button, h1, h2')]
      .filter((node) => {
        for (let round = node.parentElement; round; round = round.parentElement)
          if (/auto|scroll/.test(getComputedStyle(round).overflowX) && round.scrollWidth > round.clientWidth + 1)
            return round.getBoundingClientRect().right > window.innerWidth + 1;
        const { right, left, width } = node.getBoundingClientRect();
        return width > 0 && (right > window.innerWidth + 1 || left < -1);
      })
      .map(
        (node) =>
          `${node.dataset['testid'] ?? node.innerText.slice(0, 40)} ends at ${Math.round(node.getBoundingClientRect().right)}`,
      )
      .slice(0, 6),
  );

/** Words that are cut off by what holds them, or broken in their middle for want of room. */
const cutWords = (page: Page) =>
  page.evaluate(() => {
    const faults = new Set<string>();
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walk.nextNode(); node; node = walk.nextNode()) {
      const holder = node.parentElement!;
      const text = node.textContent ?? '';
      if (text.trim() === '' || holder.closest('style, script, svg, [aria-hidden=true]')) continue;
      const { overflowX } = getComputedStyle(holder);
      if (overflowX !== 'visible' && holder.scrollWidth > holder.clientWidth + 1)
        faults.add(`cut: ${text.slice(0, 40)}`);
      for (const { index, 0: word } of text.matchAll(/[\p{L}\p{N}]{4,}/gu)) {
        const range = document.createRange();
        range.setStart(node, index);
        range.setEnd(node, index + word.length);
        const tops = [...range.getClientRects()].filter(({ width }) => width > 0).map(({ top }) => Math.round(top));
        if (new Set(tops).size > 1) faults.add(`broken: ${word}`);
      }
    }
    return [...faults].slice(0, 6);
  });

/** What can be tapped and lies under something else even when it is brought to the middle of what scrolls round it. */
const covered = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button, a[href], input, textarea, [role=button], [role=radio]')]
      .filter((node) => {
        if (
          node.closest('[aria-hidden=true]') ||
          !node.checkVisibility({ opacityProperty: true, visibilityProperty: true })
        )
          return false;
        node.scrollIntoView({ block: 'center', behavior: 'instant' });
        const { left, top, width, height } = node.getBoundingClientRect();
        if (width === 0 || height === 0) return false;
        const there = document.elementFromPoint(left + width / 2, top + height / 2);
        // A field's own frame, or its label, may lie over it: taps on them reach it.
        return !(
          there &&
          (node.contains(there) ||
            there.contains(node) ||
            there.closest('label, [role=group], [role=radiogroup]')?.contains(node))
        );
      })
      .map((node) => `covered: ${node.dataset['testid'] ?? node.innerText.slice(0, 40)}`)
      .slice(0, 6),
  );

const faultsOf = async (page: Page) => [...(await tooWide(page)), ...(await cutWords(page)), ...(await covered(page))];

const WHAT = 'nothing runs past its side, no word is cut, nothing that is tapped is covered';

/** Looks at the view as it stands at each size. */
async function atEachSize(page: Page, view: string, faults: string[]) {
  for (const [name, size] of Object.entries(SIZES)) {
    await page.setViewportSize(size);
    // What measures itself is drawn once more.
    await page.waitForTimeout(80);
    for (const fault of await faultsOf(page)) faults.push(`${view}, ${name}: ${fault}`);
  }
}

test(`every view at each size: ${WHAT}`, async () => {
  const page = await shop.page(SIZES['a small phone']);
  const faults: string[] = [];
  for (const [address, ready] of await views(shop)) {
    await page.goto(address);
    await page.getByTestId(ready).first().waitFor();
    await atEachSize(page, address, faults);
  }
  expect(faults).toEqual([]);
}, 300_000);

test(`a level check at each size: ${WHAT}`, async () => {
  const page = await shop.page(PHONE);
  const faults: string[] = [];
  await beginCheck(page, await shop.machineId('Lapwing'));
  for (const way of ['typed', 'pasted', 'felt', 'machine']) {
    await page.setViewportSize(PHONE);
    await page.getByTestId(`way-${way}`).click();
    await atEachSize(page, `heights, ${way}`, faults);
  }
  await scan(page);
  await atEachSize(page, 'turns', faults);
  expect(faults).toEqual([]);
}, 120_000);

test(`every view on a phone whose type is twice as large: ${WHAT}`, async () => {
  const page = await shop.page(PHONE);
  const browser = await page.context().newCDPSession(page);
  await browser.send('Page.setFontSizes', { fontSizes: { standard: 32, fixed: 26 } });
  const faults: string[] = [];
  for (const [address, ready] of await views(shop)) {
    await page.goto(address);
    await page.getByTestId(ready).first().waitFor();
    for (const fault of await faultsOf(page)) faults.push(`${address}: ${fault}`);
  }
  expect(faults).toEqual([]);
}, 200_000);
