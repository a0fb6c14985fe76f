import fs from 'node:fs';
import path from 'node:path';
import type { MachineMaps, MachineOverview, ShapeRecord } from '@even-bed/contract';
import { FEELERS, surveyLines } from '@even-bed/core/level/lightSurvey';
import { layerPlaces } from '@even-bed/core/level/compareFirstLayer';
import type { Page } from 'playwright-core';
import { phonePhoto } from './pictures';
import { choose, eventually, PHONE, tap, TestShop, unfold, WIDE } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

const machineBy = async (name: string) =>
  (await shop.get<{ items: MachineOverview[] }>('/machines')).items.find((machine) => machine.name === name)!;
const shapesOf = async (machineId: string) =>
  (await shop.get<{ items: ShapeRecord[] }>(`/shapes?machineId=${machineId}`)).items;
const look = async (page: Page, name: string) => {
  if (process.env['LOOK']) await page.screenshot({ path: path.join(process.env['LOOK'], `${name}.png`) });
};

/** Slides along the line meant, from one share of it to another, as a thumb does. */
async function slide(
  page: Page,
  id: string,
  plate: { width: number; depth: number },
  from: number,
  to: number,
): Promise<void> {
  await page.getByTestId('light-touch').scrollIntoViewIfNeeded();
  const box = (await page.getByTestId('light-touch').boundingBox())!;
  const [margin, notch] = [14, 20];
  const scale = Math.min((box.width - 2 * margin) / plate.width, (box.height - margin - notch) / plate.depth);
  const line = surveyLines(plate).find((one) => one.id === id)!;
  const at = (t: number) => ({
    x: box.x + margin + (line.from.x + (line.to.x - line.from.x) * t) * scale,
    y: box.y + margin + (plate.depth - line.from.y - (line.to.y - line.from.y) * t) * scale,
  });
  await page.mouse.move(at(from).x, at(from).y);
  await page.mouse.down();
  for (let k = 1; k <= 6; k++)
    await page.mouse.move(at(from + ((to - from) * k) / 6).x, at(from + ((to - from) * k) / 6).y);
  await page.mouse.up();
  await page.waitForTimeout(120);
}

test('a plate is slid along by light, its strips planned and laid one by one, and it goes back to be levelled', async () => {
  const machine = await machineBy('Turnstone');
  const plate = { width: machine.plateWidth, depth: machine.plateDepth };
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto(`/floor/${machine.id}`);
  await unfold(page, 'shape-glance');
  await tap(page, 'to-light');
  await page.getByTestId('light-plan').waitFor();
  // Hollow from front to rear by 0.15: lines along it show light from end to end, lines across none but by where they lie.
  const lines = ['along-left', 'along-right', 'across-front', 'across-rear', 'diagonal-1', 'diagonal-2'];
  for (const [i, id] of lines.entries()) {
    expect(await page.getByTestId('light-line').innerText()).toMatch(/straightedge on edge/i);
    if (id.startsWith('across')) {
      await tap(page, 'no-light');
      continue;
    }
    await tap(page, 'light-feeler');
    await choose(page, 'feeler-pick', String(FEELERS.find((one) => one === 0.15)));
    await slide(page, id, plate, 0.02, 0.98);
    if (i === 4) await look(page, 'light-line');
    await tap(page, 'next-line');
  }
  await page.getByTestId('light-verdict').waitFor();
  expect(await page.getByTestId('light-verdict').innerText()).toMatch(/^Lower in the middle, 0\.1\d mm in all\./);
  expect(await page.getByTestId('light-trust').innerText()).toMatch(/^Lines meet within 0\.\d\d mm/);
  await page.getByTestId('cure-shim').waitFor();
  await look(page, 'light-found');
  await tap(page, 'light-keep');
  await page.getByTestId('light-kept').waitFor();
  await eventually(async () =>
    expect((await shapesOf(machine.id))[0]!.result).toMatchObject({ kind: 'light', verdict: 'dish', trust: 'closes' }),
  );
  await tap(page, 'do-shim');
  await page.getByTestId('strips').waitFor();
  // Nothing is planned by a tape that nobody measured; a comma is a point.
  expect(await page.getByTestId('strip-plan').count()).toBe(0);
  await page.getByTestId('tape-pieces').fill('4');
  await page.getByTestId('tape-thickness').fill('0,30');
  await page.getByTestId('strip-words').waitFor({ timeout: 30_000 });
  await eventually(async () =>
    expect(await page.getByTestId('strip-words').innerText()).toMatch(/^\d+ strips? leaves? 0\.\d\d mm/),
  );
  await look(page, 'strips');
  await page.getByTestId('strips-after').scrollIntoViewIfNeeded();
  await look(page, 'strips-plan');
  const count = await page.getByTestId('strip-list').getByRole('checkbox').count();
  expect(count).toBeGreaterThan(1);
  // One at a time: the last can't be ticked before the first.
  await tap(page, `strip-${count}`);
  expect(await page.getByTestId(`strip-${count}`).getAttribute('aria-checked')).toBe('false');
  for (let i = 1; i <= count; i++) {
    await tap(page, `strip-${i}`);
    expect(await page.getByTestId('strip-check').innerText()).toMatch(/Look again by light: .*(along|front)/);
  }
  await page.reload();
  // What lies there lies there after a reload too.
  await page.getByTestId('strips-done').waitFor({ timeout: 30_000 });
  await tap(page, 'strips-keep');
  await page.getByTestId('strips-kept').waitFor();
  await eventually(async () => {
    const [first] = await shapesOf(machine.id);
    if (first!.result.kind !== 'strips') throw new Error('not there yet');
    expect(first!.result.before).toBeGreaterThan(0.1);
    // The step at the edges of the strips counts too.
    expect(first!.result.after).toBeLessThan(0.8 * first!.result.before);
  });
  await tap(page, 'strips-level');
  await page.getByTestId('machine').waitFor();
  await unfold(page, 'shape-glance');
  expect(await page.getByTestId('shape-strips').count()).toBe(1);
  await page.getByTestId('shape-glance').scrollIntoViewIfNeeded();
  await look(page, 'machine-shape');
  // Taken back it is gone, and the book says so.
  await tap(page, 'shape-back-strips');
  await eventually(async () => expect((await shapesOf(machine.id))[0]!.result.kind).toBe('light'));
});

test('lines that contradict each other are looked at again, and no cure is offered before', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto('/tools/light');
  for (const id of ['along-left', 'along-right', 'across-front', 'across-rear', 'diagonal-1', 'diagonal-2']) {
    await page.getByTestId('light-plan').waitFor();
    if (id === 'across-front') {
      await tap(page, 'light-feeler');
      await choose(page, 'feeler-pick', '0.3');
      await tap(page, 'lit-middle');
      await tap(page, 'next-line');
    } else await tap(page, 'no-light');
  }
  await page.getByTestId('light-verdict').waitFor();
  expect(await page.getByTestId('light-verdict').innerText()).toBe('The lines contradict each other.');
  expect(await page.getByTestId('cures').count()).toBe(0);
  await look(page, 'light-again');
  await tap(page, 'again-across-front');
  await tap(page, 'no-light');
  expect(await page.getByTestId('light-verdict').innerText()).toMatch(/^Flat/);
});

test('a platform is lapped in a job: a round with its photo, then nothing untouched', async () => {
  const machine = await machineBy('Redshank').catch(() => null);
  const resin =
    machine?.family === 'resin'
      ? machine
      : (await shop.get<{ items: MachineOverview[] }>('/machines')).items.find(({ family }) => family === 'resin')!;
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto(`/jobs?machine=${resin.id}`);
  await page.getByTestId('procedure-lap-platform').click();
  await page.getByTestId('start-job').waitFor();
  await page.waitForTimeout(300);
  await page.getByTestId('begin-job').click();
  if (await page.getByTestId('start-job').isVisible()) await page.getByTestId('begin-job').click();
  await page.getByTestId('job').waitFor();
  if ((await page.getByTestId('manner').innerText()) === 'practised') await tap(page, 'manner');
  const at = (step: string) => page.getByTestId(`card-${step}`).waitFor();
  await at('clean');
  await tap(page, 'step-done');
  await at('prove');
  await tap(page, 'answer-flat');
  await at('sheet');
  await tap(page, 'step-done');
  const round = async (values: Record<string, number>) => {
    await at('gate');
    await tap(page, 'step-done').catch(() => undefined);
    if (await page.getByTestId('check-gate-0').isVisible()) {
      await tap(page, 'check-gate-0');
      await tap(page, 'step-done');
    }
    await at('strokes');
    await tap(page, 'step-done');
    await at('look');
    for (const [place, value] of Object.entries(values)) {
      await tap(page, `scratch-${place}`);
      await tap(page, `scratch-key-${value}`);
    }
  };
  await round({ 'front-left': 25, 'front-right': 25, 'rear-left': 50, 'rear-right': 25, middle: 75 });
  await page.getByTestId('scratch-map').scrollIntoViewIfNeeded();
  await look(page, 'lap-map');
  expect(await page.getByTestId('lap-sum').innerText()).toMatch(/touched/);
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByTestId('step-photo').click()]);
  await chooser.setFiles({ name: 'scratches.jpg', mimeType: 'image/jpeg', buffer: await phonePhoto() });
  await eventually(async () => {
    const { items } = await shop.get<{ items: { note: string }[] }>(`/photos?machineId=${resin.id}`);
    expect(items[0]!.note).toMatch(/Look at the scratches/);
  });
  await look(page, 'lap');
  await tap(page, 'step-done');
  await round({ 'front-left': 100, 'front-right': 100, 'rear-left': 100, 'rear-right': 100, middle: 100 });
  expect(await page.getByTestId('lap-sum').innerText()).toBe('Nothing is untouched: stop.');
  await tap(page, 'step-done');
  for (const step of ['tooth', 'burrs', 'wash']) {
    await at(step);
    await tap(page, 'step-done');
  }
  await at('proof');
  await tap(page, 'answer-flat');
  await at('restart');
  await tap(page, 'step-done');
  await page.getByTestId('job-ended').waitFor();
  await eventually(async () => {
    const [first] = await shapesOf(resin.id);
    expect(first!.result).toMatchObject({ kind: 'lap', verdict: 'done', rounds: 2 });
  });
});

test('a first layer printed with compensation off proves the map, by calipers; its print is a file', async () => {
  const machine = await machineBy('Dunlin');
  const { items } = await shop.get<MachineMaps>(`/machines/${machine.id}/maps`);
  const [map] = items;
  const places = layerPlaces(map!.points, 9);
  const mean = map!.points.reduce((sum, { z }) => sum + z, 0) / map!.points.length;
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto(`/floor/${machine.id}`);
  await unfold(page, 'shape-glance');
  await tap(page, 'to-layer');
  await page.getByTestId('pad-plan').waitFor();
  await unfold(page, 'layer-print');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId('layer-gcode').click()]);
  const gcode = fs.readFileSync(await download.path(), 'utf8');
  expect(gcode).toMatch(/^G28$/m);
  expect(gcode).toContain('; switch compensation off');
  await page.getByTestId('layer-bed').fill('400');
  expect(await page.getByTestId('layer-print-fault').innerText()).toMatch(/bed/);
  await page.getByTestId('layer-bed').fill('');
  await page.getByTestId('layer-nominal').fill('0,30');
  await page.getByTestId('layer-sign-higher').click();
  // Compensation off: thin where the bed is high. Five readings a pad, to a hundredth.
  for (const [i, { z }] of places.entries()) {
    const thickness = 0.3 - (z - mean);
    const reads = [-0.01, 0, 0.01, 0, 0].map((off) => Math.max(0.02, thickness + off).toFixed(2));
    const typed = reads.join(' ').replaceAll('.', ',');
    // Key by key, with Enter to the next pad: none of it lands in another.
    await page.getByTestId('layer-read').pressSequentially(typed);
    expect(await page.getByTestId('layer-read').inputValue()).toBe(typed);
    expect(await page.getByText(`Pad ${i + 1}:`).count()).toBe(1);
    await page.keyboard.press('Enter');
  }
  await eventually(async () =>
    expect(await page.getByTestId('layer-verdict').innerText()).toMatch(/The map is true|can’t tell/),
  );
  await look(page, 'layer');
  await page.getByTestId('layer-verdict').scrollIntoViewIfNeeded();
  await look(page, 'layer-verdict');
  const verdict = await page.getByTestId('layer-verdict').innerText();
  await tap(page, 'layer-keep');
  await eventually(async () => {
    const [first] = await shapesOf(machine.id);
    expect(first!.result).toMatchObject({
      kind: 'layer',
      verdict: verdict.startsWith('The map') ? 'not-applied' : 'untold',
    });
  });
});

test('two maps compared, and whose shape it is, on a wide screen', async () => {
  const machine = await machineBy('Dunlin');
  const [map] = (await shop.get<MachineMaps>(`/machines/${machine.id}/maps`)).items as [MachineMaps['items'][number]];
  const page = await shop.page(WIDE, { as: 'technician' });
  await page.goto(`/floor/${machine.id}/maps`);
  await page.getByTestId('change-words').waitFor();
  expect(await page.getByTestId('plan-before').count()).toBe(1);
  expect(await page.getByTestId('plan-after').count()).toBe(1);
  await look(page, 'maps-wide');
  await page.getByTestId('whose').scrollIntoViewIfNeeded();
  await page.getByTestId('split').waitFor();
  await look(page, 'whose-wide');
  // Maps of one machine and one sheet tell neither by itself; a sheet that is known to be flat tells the bed.
  const tag = map.sheet!.tag;
  expect(await page.getByTestId('split-bed').count()).toBe(0);
  await tap(page, `flat-${tag}`);
  await page.getByTestId('split-bed').waitFor();
  await page.getByTestId('split-bed').scrollIntoViewIfNeeded();
  await look(page, 'split-wide');
  await page.goto(`/tools/shape?machine=${machine.id}`);
  await page.getByTestId('flatness-value').waitFor();
  expect(await page.getByTestId('flatness-value').innerText()).toMatch(/^\d\.\d\d mm between two planes$/);
  await look(page, 'shape-wide');
});

test('heights pasted in: what can be read in two ways is asked, the sign too, and a map without its place', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto('/tools/shape');
  const dome = [0, 2, 4, 6, 8].flatMap((y) =>
    [0, 2, 4, 6, 8].map((x) => ({ x, y, z: 0.008 * (1 - ((x - 4) ** 2 + (y - 4) ** 2) / 32) })),
  );
  const columns = ['x,y,z', ...dome.map(({ x, y, z }) => `${x},${y},${z.toFixed(5)}`)].join('\n');
  await page.getByTestId('shape-paste').fill(columns);
  await page.getByTestId('question-unit').waitFor();
  await page.getByTestId('question-unit').scrollIntoViewIfNeeded();
  expect(await page.getByTestId('way-in').innerText()).toMatch(/0\.2\d mm between two planes/);
  expect(await page.getByTestId('way-mm').innerText()).toMatch(/0\.01 mm between two planes/);
  await look(page, 'pasted-ways');
  await tap(page, 'way-in');
  await page.getByTestId('still-to-say').waitFor();
  expect(await page.getByTestId('flatness-value').count()).toBe(0);
  await tap(page, 'plus-higher');
  await eventually(async () => expect(await page.getByTestId('shape-words').innerText()).toMatch(/dome/i));
  await tap(page, 'plus-lower');
  await eventually(async () => expect(await page.getByTestId('shape-words').innerText()).toMatch(/dish/i));
  // A bare map: where it lies has to be said; heights that are all alike are no bed in silence.
  await page.getByTestId('shape-paste').fill('0,1 0,1 0,1\n0,1 0,1 0,1\n0,1 0,1 0,1');
  await page.getByTestId('placement').waitFor();
  expect(await page.getByTestId('flatness-value').count()).toBe(0);
  for (const [key, value] of Object.entries({ x0: '10', x1: '210', y0: '10', y1: '210' }))
    await page.getByTestId(`extent-${key}`).fill(value);
  await tap(page, 'first-row-front');
  await eventually(async () =>
    expect(await page.getByTestId('reading-warnings').innerText()).toMatch(/all .*the same/i),
  );
});
