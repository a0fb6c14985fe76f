import fs from 'node:fs';
import type { Plan } from '@even-bed/contract';
import { DOMParser } from '@xmldom/xmldom';
import { PDFDocument } from 'pdf-lib';
import type { Page } from 'playwright-core';
import { choose, eventually, PHONE, TestShop, WIDE, unfold } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

const type = (page: Page, field: string, text: string) => page.getByTestId(`field-${field}`).fill(text);
const says = (page: Page, part: string, words: RegExp) =>
  eventually(async () => expect(await page.getByTestId(part).innerText()).toMatch(words));

/** What a button hands over as a file. */
async function saved(page: Page, button: string): Promise<{ name: string; bytes: Buffer }> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId(button).click()]);
  return { name: download.suggestedFilename(), bytes: fs.readFileSync((await download.path())!) };
}

describe('on a phone', () => {
  let page: Page;
  beforeAll(async () => {
    page = await shop.page(PHONE);
  });
  afterAll(() => page.context().close());

  test('from the bench to a tool by searching for its word', async () => {
    await page.goto('/bench');
    await page.getByTestId('to-tools').click();
    await page.getByRole('textbox', { name: 'Search tools and plans' }).fill('washer');
    await page.getByTestId('to-underbed').click();
    await says(page, 'underbed-sentence', /2 × ISO 7089 M3 \(1 mm\)/);
    expect(await page.getByTestId('room-compressed').innerText()).toBe('−0.70 mm');
    await type(page, 'washers', '1,5');
    await type(page, 'backOff', '1');
    await says(page, 'room-compressed', /^\+0\.80 mm$/);
    await says(page, 'room-backed-off', /^\+1\.30 mm$/);
  });

  test('a fault stands at its field and loses nothing; what was typed is there after a reload', async () => {
    await page.goto('/tools/underbed');
    await type(page, 'springCompressed', 'tall');
    await says(page, 'field-springCompressed-error', /must be a length/);
    expect(await page.getByTestId('save-plan').isDisabled()).toBe(true);
    await type(page, 'springCompressed', '1/2 in');
    await says(page, 'room-compressed', /^\+3\.70 mm$/);
    await page.reload();
    await says(page, 'room-compressed', /^\+3\.70 mm$/);
  });

  test('a change of stack is filled in from the machine, kept as its plan without a signal, and opened again', async () => {
    const id = await shop.machineId('Avocet');
    await page.goto(`/floor/${id}`);
    await unfold(page, 'plans');
    await page.getByTestId('plan-stack').click();
    await eventually(async () =>
      expect(await page.getByTestId('layers-before').getByRole('textbox').count()).toBeGreaterThan(4),
    );
    await choose(page, 'finding', 'spacer');
    const layers = await page
      .getByTestId('layers-after')
      .getByTestId(/^field-after\.\d+\.name$/)
      .count();
    await page.getByTestId('layers-after-add').click();
    await type(page, `after.${layers}.name`, 'glass on top');
    await type(page, `after.${layers}.thickness`, '1/8"');
    // What moves and where home lies is asked, not guessed.
    await says(page, 'stack-sentence', /Don't home yet.*what moves.*where home lies/);
    await page.getByTestId('moves-head').click();
    await page.getByTestId('home-surface').click();
    await says(page, 'travel', /the head travels down/);
    await says(page, 'stack-sentence', /1\. Put a spacer of 3\.2 mm \(20 layers\)[\s\S]*2\. .*\n3\. Home/);
    await page.getByTestId('caution-zero-cannot-rescue').waitFor();
    await page.context().setOffline(true);
    await page.getByTestId('save-plan').click();
    await page.getByTestId('plan-title').fill('Glass for the winter');
    await page.getByTestId('plan-keep').click();
    await page.getByTestId('plan-done').click();
    expect(await shop.get<{ items: Plan[] }>(`/plans?machineId=${id}`)).toMatchObject({ items: [] });
    await page.context().setOffline(false);
    await eventually(async () =>
      expect((await shop.get<{ items: Plan[] }>(`/plans?machineId=${id}`)).items).toHaveLength(1),
    );
    await page.goto(`/floor/${id}`);
    await unfold(page, 'plans');
    await page.getByTestId('plan-Glass for the winter').click();
    await says(page, 'stack-sentence', /spacer of 3\.2 mm \(20 layers\)/);
    await page.getByTestId('to-spacer').click();
    await says(page, 'spacer-sentence', /^3\.2 mm: 20 layers of 0\.16 mm$/);
    const stl = await saved(page, 'save-stl');
    expect(stl.name).toBe('pad-3.2.stl');
    expect(stl.bytes.length).toBe(84 + 50 * stl.bytes.readUInt32LE(80));
    expect((await saved(page, 'save-3mf')).bytes.subarray(0, 2).toString()).toBe('PK');
    await page.goto(`/floor/${id}`);
    await unfold(page, 'plans');
    await page.getByTestId('withdraw-Glass for the winter').click();
    await eventually(async () => expect(await page.getByTestId('plan-Glass for the winter').count()).toBe(0));
  });

  test('a soak is calibrated by two readings, and compared with a stack that was kept', async () => {
    await page.goto('/tools/soak');
    await type(page, 'setpoint', '100');
    await type(page, 'ambient', '22');
    await says(page, 'soak-time', /min/);
    await page.getByTestId('compare-keep').click();
    const [, time] = /It took (.+) and ended/.exec(await page.getByTestId('compared').innerText())!;
    await choose(page, 'material-1', 'glass');
    await type(page, 'layers.1.thickness', '4');
    await eventually(async () => expect(await page.getByTestId('soak-time').innerText()).not.toBe(time));
    expect(await page.getByTestId('compared').innerText()).toContain(`It took ${time} and`);
    await page.getByTestId('calibrate').click();
    for (const [field, text] of [
      ['t1', '3'],
      ['top1', '50'],
      ['t2', '40'],
      ['top2', '94,5'],
    ] as const)
      await page.getByTestId(`calibrate-${field}`).fill(text);
    await page.getByTestId('calibrate-go').click();
    await says(page, 'calibrated', /Heater \d+ W\/m², loss \d+\.\d W\/m²K/);
    await eventually(async () => expect(await page.getByTestId('soak-top').innerText()).toMatch(/^94\.[456] °C$/));
    await page.getByTestId('wanted-top').fill('100');
    await page.getByText(/^set 10\d/).waitFor();
  });

  test('what goes with what says yes, with care or no, and why', async () => {
    await page.goto('/tools/together');
    await says(page, 'together-answer', /^No/);
    await says(page, 'finding-0', /only over a thin film/);
    await choose(page, 'asked-glue', 'glue-film');
    await says(page, 'together-answer', /With care/);
    await choose(page, 'asked-solvent', 'alcohol');
    await type(page, 'heat', '60');
    await says(page, 'together-answer', /^No/);
    await says(page, 'finding-0', /flammable/);
  });

  test('a plate with what must stay free, and clips against a base', async () => {
    await page.goto('/tools/size');
    await says(page, 'covered', /front-left knob/);
    await page.getByTestId('notches-add').click();
    await eventually(async () => expect(await page.getByTestId('covered').count()).toBe(0));
    await page.getByTestId('pads-add').click();
    await type(page, 'plate.width', '310');
    await type(page, 'plate.depth', '320');
    await page.getByText(/^2, each cut to 310 mm × 160 mm, 1 seam/).waitFor();
    await page.goto('/tools/top');
    await says(page, 'top-0', /would be hit by: nozzle/);
    await type(page, 'items.0.height', '1');
    await says(page, 'top-0', /below the top/);
    await says(page, 'top-1', /Countersink 90°, 6\.72 mm wide and 1\.71 mm deep/);
    // A hole that no head of this thread sits in is said in words, and the view stands.
    await type(page, 'items.1.hole', '7');
    await says(page, 'no-answer', /^This needs a hole above 0 and narrower than the head of [\d.]+ mm\.$/);
    await type(page, 'items.1.hole', '3.4');
    await says(page, 'top-1', /Countersink 90°/);
  });
});

describe('on a wide screen', () => {
  let page: Page;
  beforeAll(async () => {
    page = await shop.page(WIDE);
  });
  afterAll(() => page.context().close());

  test('blanks: drawn, cut by cut, and taken along at true size', async () => {
    await page.goto('/tools/blanks');
    await says(page, 'blanks-sentence', /^6 from the sheet$/);
    await page.getByTestId('may-rotate-no').click();
    await says(page, 'blanks-sentence', /^4 from the sheet$/);
    await page.getByTestId('may-rotate-yes').click();
    await type(page, 'sheets', '6');
    await type(page, 'price', '4,50');
    await says(page, 'blanks-sentence', /^36 from 6 sheets, 6 from each$/);
    await page.getByText('0.75 a piece').waitFor();
    expect(await page.getByTestId('cuts').getByText('142 mm').count()).toBeGreaterThan(0);
    const svg = (await saved(page, 'save-svg')).bytes.toString();
    const pieces = [...new DOMParser().parseFromString(svg, 'text/xml').getElementsByTagName('polygon')];
    expect(pieces).toHaveLength(6);
    expect((await saved(page, 'save-dxf')).bytes.toString()).toContain('LWPOLYLINE');
    const pdf = await PDFDocument.load((await saved(page, 'save-pdf')).bytes);
    // A long one is stopped, and can be asked again.
    await page.route('**/api/blanks/pdf', () => undefined);
    await page.getByTestId('save-pdf').click();
    await page.getByTestId('stop-pdf').click();
    await page.getByTestId('save-pdf').waitFor();
    await page.unroute('**/api/blanks/pdf');
    expect(pdf.getPageCount()).toBe(6);
  });

  test('a list of several sizes, sawn: a sheet each, and the bound beside it', async () => {
    await page.goto('/tools/blanks');
    await page.getByTestId('method-saw').click();
    await type(page, 'sheets', '1');
    await type(page, 'pieces.0.count', '5');
    await page.getByTestId('pieces-add').click();
    await type(page, 'pieces.1.width', '235');
    await type(page, 'pieces.1.depth', '9 1/4 in');
    await says(page, 'blanks-sentence', /^6 pieces from 2 sheets$/);
    await page.getByTestId('layout-1').click();
    await page.getByTestId('blanks-drawing').waitFor();
    await type(page, 'pieces.1.width', '460');
    await says(page, 'no-answer', /larger than what the sheet gives/);
  });
});
