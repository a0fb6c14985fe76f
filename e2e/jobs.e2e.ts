import fs from 'node:fs';
import type { Job, JobEntry, MachineOverview, ProcedureEntry, Surface } from '@even-bed/contract';
import { PROCEDURES } from '@even-bed/core/care/procedures';
import type { Page } from 'playwright-core';
import { v7 as uuid } from 'uuid';
import { phonePhoto } from './pictures';
import { choose, eventually, listen, PHONE, rested, TestShop, WIDE, tap } from './shop';

const HOUR = 3_600_000;
let shop: TestShop;
let page: Page;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
  page = await shop.page(PHONE, { as: 'technician' });
});
afterAll(() => shop.close());

/** A card begins with a step. */
const at = (where: Page, step: string) => where.getByTestId(`card-${step}`).waitFor();
const read = async (where: Page, values: Record<string, string>) => {
  for (const [id, text] of Object.entries(values)) await where.getByTestId(`reading-${id}`).fill(text);
};
const openJobs = async (machineId: string) =>
  (await shop.get<{ items: JobEntry[] }>(`/jobs?open=true&machineId=${machineId}`)).items;
const job = (id: string) => shop.get<Job>(`/jobs/${id}`);
const surfaceBy = async (tag: string) =>
  (await shop.get<{ items: Surface[] }>(`/surfaces?search=${tag}`)).items.find((one) => one.tag === tag)!;
const jobIn = (where: Page) => new URL(where.url()).pathname.split('/').at(-1)!;

/** A surface of the size of a machine's plate that was bought just now and lies in the rack. */
async function spare(group: string, machine: string): Promise<Surface> {
  const { items: machines } = await shop.get<{ items: MachineOverview[] }>('/machines');
  const { plateWidth, plateDepth } = machines.find(({ name }) => name === machine)!;
  const { items: kinds } = await shop.get<{ items: { id: string; group: string }[] }>('/surface-kinds');
  const id = uuid();
  const kindId = kinds.find((kind) => kind.group === group)!.id;
  const facts = {
    tag: '',
    kindId,
    width: plateWidth,
    depth: plateDepth,
    thickness: null,
    boughtAt: null,
    price: null,
    note: '',
  };
  await shop.put(`/surfaces/${id}`, { ...facts, place: 'Rack 1', version: 0, at: Date.now() });
  return shop.get<Surface>(`/surfaces/${id}`);
}

async function open(where: Page, procedure: string, machine: string): Promise<string> {
  const machineId = await shop.machineId(machine);
  await where.goto(`/jobs?machine=${machineId}`);
  await where.getByTestId(`procedure-${procedure}`).click();
  await where.getByTestId('start-job').waitFor();
  return machineId;
}

/** Begins: what nobody has named is said to be not followed. */
async function begin(where: Page): Promise<void> {
  await where.getByTestId('ready-at').waitFor();
  await where.waitForTimeout(300);
  await where.getByTestId('begin-job').click();
  for (;;) {
    const asked = where.getByText('Choose one that fits, add it, or say that it is not followed.');
    if ((await asked.count()) === 0) break;
    const [part] = await where
      .locator('[data-testid^="part-"]:not([data-testid*="-add"])')
      .evaluateAll((all) =>
        all
          .filter((one) => /: (Choose|None)/.test(one.getAttribute('aria-label') ?? ''))
          .map((one) => one.getAttribute('data-testid')!),
      );
    await choose(where, part!, '');
  }
  if (await where.getByTestId('start-job').isVisible()) await where.getByTestId('begin-job').click();
  await where.getByTestId('job').waitFor();
}

/** Steps of the card in hand. */
const stepsShown = async (where: Page, procedureId: string) => {
  const { steps } = PROCEDURES.find(({ id }) => id === procedureId)!;
  const shown = await where
    .locator('[data-testid^="step-"]')
    .evaluateAll((all) => all.map((one) => one.getAttribute('data-testid')!.slice(5)));
  return shown.filter((id) => steps.some((step) => step.id === id));
};

/** Fills in and ticks all of the card in hand. */
async function fillIn(where: Page, procedureId: string): Promise<void> {
  const { steps } = PROCEDURES.find(({ id }) => id === procedureId)!;
  for (const id of await stepsShown(where, procedureId)) {
    const step = steps.find((one) => one.id === id)!;
    for (const { id: name, least, most, min, max, options } of step.readings ?? []) {
      const field = where.getByTestId(`reading-${id}-${name}`);
      if ((await field.count()) === 0) continue;
      if (options) await where.getByTestId(`reading-${id}-${name}-${options[0]!.value}`).click();
      else if ((await field.inputValue()) === '')
        await field.fill(String(Math.max(least ?? min, Math.min(most ?? max, id === 'warm' ? 65 : 1))));
    }
    for (const i of step.gate?.checks.keys() ?? []) await where.getByTestId(`check-${id}-${i}`).click();
  }
}

/** Takes the straight way, card by card, to the one that begins with a step. */
async function workTo(where: Page, procedureId: string, stop: string): Promise<void> {
  const { steps } = PROCEDURES.find(({ id }) => id === procedureId)!;
  for (;;) {
    await where.locator('[data-testid^="card-"]').waitFor();
    const first = (await where.locator('[data-testid^="card-"]').getAttribute('data-testid'))!.slice(5);
    if (first === stop) return;
    await fillIn(where, procedureId);
    const answers = await where
      .locator('[data-testid^="answer-"]')
      .evaluateAll((all) =>
        all.map((one) => one.getAttribute('data-testid')!).filter((id) => !/-(container|text)$/.test(id)),
      );
    const shown = (await stepsShown(where, procedureId)).at(-1)!;
    const ask = steps.find(({ id }) => id === shown)!.ask;
    await tap(where, answers.length > 0 ? `answer-${ask!.answers[0]!.id}` : 'step-done');
    await where.getByTestId(`card-${first}`).waitFor({ state: 'detached' });
  }
}

test('base and sheet, practised, on a machine that the shop knows: ten taps and two numbers to "within aim"', async () => {
  const [base, sheet] = [await spare('base', 'Avocet'), await spare('sheet', 'Avocet')];
  const machineId = await shop.machineId('Avocet');
  const hands = await shop.page(PHONE, { as: 'technician' });
  let [taps, numbers] = [0, 0];
  const press = async (testId: string) => {
    taps++;
    await tap(hands, testId);
  };
  const type = async (testId: string, text: string) => {
    numbers++;
    await hands.getByTestId(testId).fill(text);
  };
  await hands.goto(`/floor/${machineId}`);
  await hands.getByTestId('usual-fit-base-and-sheet').waitFor();
  await press('usual-fit-base-and-sheet');
  await hands.getByTestId('start-job').waitFor();
  // Which of several is the shop's own affair, and not of the job's length.
  await choose(hands, 'part-base', base.id);
  await choose(hands, 'part-sheet', sheet.id);
  await hands.getByTestId('carry').getByText(`${base.tag}, from Rack 1`).waitFor();
  await press('begin-job');
  await at(hands, 'room');
  await tap(hands, 'manner');
  await hands.getByTestId('step-size').waitFor({ state: 'detached' });
  // A card that is printed carries its cautions whole, also where they are folded on the screen.
  expect(await hands.getByTestId('caution-hot').count()).toBe(0);
  await hands.emulateMedia({ media: 'print' });
  await hands.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  await hands.getByTestId('caution-hot').getByText('Nozzle and bed burn', { exact: false }).waitFor();
  await hands.emulateMedia({ media: 'screen' });
  // Measure, sum and dry fit are one card; nothing has to move, since a probe follows, and nobody is asked.
  await type('reading-measure-base', '1,4');
  await type('reading-measure-sheet', '0.5');
  expect(await hands.getByTestId('stack-sum').innerText()).toMatch(/Nothing has to move/);
  await hands.getByTestId('step-size').waitFor();
  await rested(hands);
  await press('step-done');
  // The gate on it is not passed over.
  expect(await hands.getByTestId('refusal').innerText()).toMatch(/^Not yet/);
  taps--;
  await press('check-size-0');
  await press('step-done');
  await at(hands, 'degrease');
  await press('answer-so');
  // Hands are full: four lines, and a tap anywhere.
  await at(hands, 'strip');
  expect(await stepsShown(hands, 'fit-base-and-sheet')).toEqual(['strip', 'align', 'press', 'roll']);
  await press('tap-anywhere');
  await at(hands, 'trim');
  await press('check-sheet-on-0');
  await press('answer-quiet');
  await at(hands, 'level');
  await press('sum-level');
  // The level check has taps of its own.
  await hands.getByTestId('way').waitFor();
  for (let round = 0; round < 4; round++) {
    await hands.getByTestId('scan').click();
    await hands.getByTestId('plan-turns').waitFor();
    if ((await hands.getByTestId('finish').count()) > 0) break;
    await hands.getByTestId('turns-made').click();
    await hands.getByTestId('get-heights').waitFor();
  }
  await hands.getByTestId('finish').click();
  await tap(hands, 'back-to-job');
  await at(hands, 'level');
  expect(await hands.getByTestId('level-sum').innerText()).toMatch(/within the aim/);
  await press('step-done');
  await hands.getByTestId('job-ended').waitFor();
  expect([taps, numbers]).toEqual([10, 2]);
  await hands.getByTestId('then-first-print').waitFor();
  await eventually(async () => expect(await openJobs(machineId)).toEqual([]));
  expect((await surfaceBy(base.tag)).thickness).toBe(1.4);
  expect((await surfaceBy(sheet.tag)).state.where).toMatchObject({ kind: 'machine', machineId, slot: 'top' });
  await hands.context().close();
});

test('step by step: schools with their hours, a gate, a crooked strip, a bubble, a hold cut short, a knock, a loose plug', async () => {
  const base = await spare('base', 'Knot');
  const machineId = await open(page, 'fit-base-and-sheet', 'Knot');
  // Each wait says when the machine would be free.
  for (const wait of ['none', '24', '72'])
    expect(await page.getByTestId(`school-wait-${wait}`).innerText()).toMatch(/free \w+day \d\d:\d\d/);
  await page.getByTestId('school-wait-24').click();
  // What it costs not to follow a part is said, and is no silent default.
  await page.getByTestId('begin-job').click();
  await page.getByText('Choose one that fits, add it, or say that it is not followed.').first().waitFor();
  await choose(page, 'part-base', '');
  expect(await page.getByTestId('part-base-cost').innerText()).toMatch(
    /nobody is stopped from using it while it cures/,
  );
  await choose(page, 'part-base', base.id);
  // A new sheet is added right there.
  await page.getByTestId('part-sheet-add').click();
  await page.getByTestId('new-part-kind').click();
  await page.locator('[data-testid^="new-part-kind-"]').first().click();
  await page.getByTestId('new-part-width').fill('18 cm wide');
  await page.getByTestId('new-part-add').click();
  await page.getByTestId('new-part-width-error').waitFor();
  await page.getByTestId('new-part-width').fill('180');
  await page.getByTestId('new-part-add').click();
  await page.getByTestId('new-part').waitFor({ state: 'detached' });
  await begin(page);
  await workTo(page, 'fit-base-and-sheet', 'size');
  await tap(page, 'step-done');
  expect(await page.getByTestId('refusal').innerText()).toMatch(/^Not yet/);
  await fillIn(page, 'fit-base-and-sheet');
  await tap(page, 'step-done');
  await workTo(page, 'fit-base-and-sheet', 'strip');
  // The strip lies crooked, and is put right; its gate is passed anew.
  await tap(page, 'cant');
  await page.getByTestId('cant-dialog').getByText('The strip lies crooked').click();
  await at(page, 'crooked');
  await tap(page, 'answer-good');
  await at(page, 'ready');
  await workTo(page, 'fit-base-and-sheet', 'strip');
  await tap(page, 'cant');
  await page.getByTestId('exit-bubble').click();
  await at(page, 'bubble');
  await tap(page, 'answer-yes');
  await at(page, 'trim-early');
  await tap(page, 'step-done');
  await at(page, 'weight');
  // The hold began with the bond, and the machine says so.
  await eventually(async () => {
    const { state } = await surfaceBy(base.tag);
    expect(state.where).toMatchObject({ kind: 'machine', machineId });
    expect(state.hold!.until - state.hold!.since).toBe(24 * HOUR);
  });
  // It is needed sooner: said, and written down.
  await tap(page, 'cant');
  await page.getByTestId('cant-dialog').getByText('It is needed sooner').click();
  await at(page, 'sooner');
  await tap(page, 'step-done');
  await workTo(page, 'fit-base-and-sheet', 'home');
  // A knock while homing stops it at once; a loose plug is among its causes.
  await tap(page, 'answer-knock');
  await at(page, 'knock');
  expect(await page.getByTestId('doing').innerText()).toMatch(/^Power off/);
  await tap(page, 'answer-plug');
  await at(page, 'plug');
  await tap(page, 'step-done');
  await at(page, 'home');
  // Undone, the card comes back as it was.
  await tap(page, 'undo-step');
  await at(page, 'plug');
  await tap(page, 'step-done');
  await tap(page, 'answer-quiet');
  await at(page, 'level');
  await tap(page, 'answer-within');
  await at(page, 'zero');
  await tap(page, 'step-done');
  await page.getByTestId('job-ended').waitFor();
  await eventually(async () => expect(await openJobs(machineId)).toEqual([]));
  const { items } = await shop.get<{ items: { text: string }[] }>(`/book?machineId=${machineId}&limit=40`);
  expect(items.map(({ text }) => text)).toEqual(
    expect.arrayContaining([
      'Knot: Fit a magnetic base and sheet, done.',
      'Knot: A knock while homing: stopped at once.',
      'Knot: The plug of the switch was loose.',
      'Knot: The strip was down crooked.',
      'Knot: The cure was ended early.',
    ]),
  );
});

test('six new parts for three machines of one size: a kind and one tap more for each part', async () => {
  const machines = (await shop.get<{ items: MachineOverview[] }>('/machines')).items;
  const alike = machines
    .filter(({ family, plateWidth, plateDepth }) => family === 'filament' && plateWidth === 235 && plateDepth === 235)
    .slice(0, 3);
  expect(alike).toHaveLength(3);
  const known = (await shop.get<{ items: Surface[] }>('/surfaces?limit=500')).items.length;
  await page.goto(`/jobs/new?procedure=fit-base-and-sheet&machine=${alike[0]!.id}`);
  await page.getByTestId('many-machines').click();
  for (const { name } of alike.slice(1)) await page.getByTestId(`take-${name}`).click();
  let taps = 0;
  for (const part of ['base', 'sheet']) {
    await page.getByTestId(`part-${alike[0]!.name}-${part}-add`).click();
    taps++;
    if ((await page.getByTestId('new-part-add').getAttribute('aria-disabled')) === 'true') {
      await page.getByTestId('new-part-kind').click();
      await page.locator('[data-testid^="new-part-kind-"]').first().click();
      taps += 2;
    }
    expect(await page.getByTestId('new-part-add').innerText()).toBe('Add 3');
    await page.getByTestId('new-part-add').click();
    taps++;
    await page.getByTestId('new-part').waitFor({ state: 'detached' });
  }
  expect(taps).toBeLessThanOrEqual(8);
  const now = (await shop.get<{ items: Surface[] }>('/surfaces?limit=500')).items.length;
  expect(now - known).toBe(6);
  // Each machine has parts of its own, and all of them are named.
  const texts = await Promise.all(
    alike.flatMap(({ name }) => ['base', 'sheet'].map((part) => page.getByTestId(`part-${name}-${part}`).innerText())),
  );
  expect(new Set(texts).size).toBe(6);
});

test('three machines refitted alike: a list to carry, card by card in turn, one stopped by its gate while the others end', async () => {
  const names = ['Dunlin', 'Ruff', 'Snipe'];
  const bases = [await spare('base', names[0]!), await spare('base', names[1]!), await spare('base', names[2]!)];
  await open(page, 'fit-base-and-sheet', names[0]!);
  await page.getByTestId('many-machines').click();
  for (const name of names.slice(1)) await page.getByTestId(`take-${name}`).click();
  // Nothing is taken twice: what one machine takes is not offered to the next.
  for (const [i, name] of names.entries()) await choose(page, `part-${name}-base`, bases[i]!.id);
  await page.getByTestId('part-Ruff-base').click();
  expect(await page.getByTestId(`part-Ruff-base-${bases[0]!.id}`).count()).toBe(0);
  await page.getByTestId(`part-Ruff-base-${bases[1]!.id}`).click();
  const carry = await page.getByTestId('carry').innerText();
  expect(carry).toContain('3 × base with its liner');
  expect(carry).toContain(`${bases[2]!.tag}, from Rack 1`);
  expect(await page.getByTestId('begin-job').innerText()).toBe('Begin on 3 machines');
  await begin(page);
  await at(page, 'room');
  if ((await page.getByTestId('manner').innerText()) === 'step by step') await tap(page, 'manner');
  for (const name of names) await page.getByTestId(`together-${name}`).waitFor();
  /** The machines' own first card, with what differs typed for each. */
  for (const [i, name] of names.entries()) {
    await tap(page, `together-${name}`);
    await at(page, 'room');
    await read(page, { 'measure-base': `1.${i + 2}`, 'measure-sheet': '0.5' });
    await page.waitForTimeout(200);
    // What has to move is asked where a probe does not follow.
    if ((await page.getByTestId('answer-ready').count()) > 0) {
      await tap(page, 'answer-ready');
      await at(page, 'size');
    }
    if (name === 'Ruff') {
      // A screw stands proud: its gate is not ticked, and it stays where it is.
      await tap(page, 'step-done');
      expect(await page.getByTestId('refusal').innerText()).toMatch(/^Not yet/);
      continue;
    }
    await fillIn(page, 'fit-base-and-sheet');
    await tap(page, 'step-done');
    await at(page, 'degrease');
  }
  for (const name of ['Dunlin', 'Snipe']) {
    await tap(page, `together-${name}`);
    await at(page, 'degrease');
    await workTo(page, 'fit-base-and-sheet', 'level');
    await tap(page, 'answer-within');
    await at(page, 'zero');
    await tap(page, 'step-done');
    await page.getByTestId('job-ended').waitFor();
  }
  // The one that waits for hands is offered.
  expect(await page.getByTestId('to-next').innerText()).toBe('On with Ruff');
  await page.getByTestId('to-next').click();
  await page.locator('[data-testid^="card-"]').waitFor();
  await eventually(async () => {
    const [left] = await openJobs(await shop.machineId('Ruff'));
    expect(left!.together).not.toBeNull();
    const { items } = await shop.get<{ items: JobEntry[] }>(`/jobs?together=${left!.together}`);
    expect(items.map(({ machineName, ended }) => [machineName, ended]).sort()).toEqual([
      ['Dunlin', 'done'],
      ['Ruff', null],
      ['Snipe', 'done'],
    ]);
  });
  expect((await surfaceBy(bases[0]!.tag)).thickness).toBe(1.2);
  expect((await surfaceBy(bases[2]!.tag)).thickness).toBe(1.4);
  expect((await surfaceBy(bases[1]!.tag)).state.where.kind).toBe('rack');
});

test('read aloud, and gone on with by a double knock or a pedal, never past a gate', async () => {
  const hands = await shop.page(PHONE, { as: 'technician' });
  const said = await listen(hands);
  /** Readings of a device that lies still, with two knocks on it, by a clock of their own. */
  let knockedAt = 0;
  const knock = async () => {
    await rested(hands);
    knockedAt += 60_000;
    await hands.evaluate((start) => {
      let at = start;
      const felt = (z: number, next: number) => {
        const event = new DeviceMotionEvent('devicemotion', {
          accelerationIncludingGravity: { x: 0, y: 0, z },
          interval: 16,
        });
        Object.defineProperty(event, 'timeStamp', { value: at });
        window.dispatchEvent(event);
        at += next;
      };
      for (let i = 0; i < 30; i++) felt(9.8, 20);
      for (let i = 0; i < 2; i++) {
        felt(28, 20);
        felt(9.8, 230);
      }
      for (let i = 0; i < 5; i++) felt(9.8, 20);
    }, knockedAt);
  };
  await open(hands, 'fit-base-and-sheet', 'Plover');
  await begin(hands);
  await at(hands, 'room');
  // A glove bounces: one card further, not two, and whoever tapped is told.
  const done = (await hands.getByTestId('step-done').boundingBox())!;
  await hands.mouse.dblclick(done.x + done.width / 2, done.y + done.height / 2);
  await hands.getByTestId('left-out').waitFor();
  await at(hands, 'off-old');
  await tap(hands, 'undo-step');
  await at(hands, 'room');
  expect(await said()).toEqual([]);
  await tap(hands, 'read-aloud');
  // Cautions first, then the doing.
  const first = await said();
  expect(first[0]).toBe(
    'en Careful. Hot. Nozzle and bed burn. Let them cool below 43 degrees before bare hands touch them.',
  );
  expect(first.at(-1)).toMatch(/^en Bed off and cool/);
  await tap(hands, 'listen-knock');
  await knock();
  await at(hands, 'off-old');
  expect((await said()).at(-1)).toMatch(/^en Take off what lies there/);
  // A pedal that types a key.
  await rested(hands);
  await hands.keyboard.press('PageDown');
  await at(hands, 'measure');
  // What has to be typed is not knocked past, nor a gate, ticked or not.
  await knock();
  await hands.getByTestId('wants-eyes').waitFor();
  await at(hands, 'measure');
  await workTo(hands, 'fit-base-and-sheet', 'size');
  await hands.getByTestId('check-size-0').click();
  await knock();
  await rested(hands);
  await hands.keyboard.press('PageDown');
  await hands.getByTestId('wants-eyes').waitFor();
  await at(hands, 'size');
  await tap(hands, 'step-done');
  await workTo(hands, 'fit-base-and-sheet', 'ready');
  await knock();
  await hands.getByTestId('wants-eyes').waitFor();
  await at(hands, 'ready');
  await tap(hands, 'answer-so');
  await at(hands, 'strip');
  expect((await said()).join('\n')).toMatch(/One chance[\s\S]*Fold 40 millimetres of liner back/);
  // Hands are full: two knocks say that it lies.
  await knock();
  await at(hands, 'trim');
  await tap(hands, 'read-aloud');
  await hands.context().close();
});

test('base on glass: the sum contains the pad, and what comes to lie there is in the machine’s stack', async () => {
  const [glass, base, sheet] = [
    await spare('glass', 'Sanderling'),
    await spare('base', 'Sanderling'),
    await spare('sheet', 'Sanderling'),
  ];
  const machineId = await open(page, 'base-on-glass', 'Sanderling');
  await page.getByTestId('school-pane-pad').click();
  for (const [part, { id }] of Object.entries({ glass, base, sheet })) await choose(page, `part-${part}`, id);
  await begin(page);
  if ((await page.getByTestId('manner').innerText()) === 'step by step') await tap(page, 'manner');
  await at(page, 'off');
  const before = (await job(await eventually(async () => (await openJobs(machineId))[0]!.id))).stackBefore;
  await read(page, { 'measure-pane': '3.9', 'measure-base': '1.4', 'measure-sheet': '0.5' });
  // Without the pad there is no sum.
  await page.getByTestId('sum-gap').waitFor();
  await read(page, { 'measure-pad-pad': '0,8' });
  const had = before
    .filter(({ slot }) => slot === 'base' || slot === 'top')
    .reduce((sum, { thickness }) => sum + thickness, 0);
  const change = 3.9 + 1.4 + 0.5 + 0.8 - had;
  expect(Number(/([+\u2212-]?[\d.]+) mm/.exec(await page.getByTestId('stack-sum').innerText())![1])).toBeCloseTo(
    change,
    2,
  );
  // What has to move is asked on this machine, and the step before homing shows the sum once more.
  const asked = (await page.getByTestId('answer-ready').count()) > 0;
  await tap(page, asked ? 'answer-ready' : 'step-done');
  await workTo(page, 'base-on-glass', 'level');
  const { layers } = await shop.get<{ layers: { name: string; thickness: number; slot: string | null }[] }>(
    `/machines/${machineId}/stack`,
  );
  expect(layers.filter(({ name }) => /pad|glass/.test(name)).map(({ name, thickness }) => [name, thickness])).toEqual([
    ['conductive pad', 0.8],
  ]);
  // The pane is stuck to the base and goes where it goes: the base is as thick as both.
  expect(layers.find(({ slot }) => slot === 'base')!.thickness).toBeCloseTo(3.9 + 1.4, 6);
});

test('a flexible system whose rehearsal needs a printed spacer, through a cure of 72 h, on two devices and past a power cut', async () => {
  const [magnet, flex] = [await spare('base', 'Stilt'), await spare('flex-plate', 'Stilt')];
  await open(page, 'fit-flex-on-resin', 'Stilt');
  await page.getByTestId('school-wait-72').click();
  await page.getByTestId('school-rehearsal-spacer').click();
  await choose(page, 'part-magnet', magnet.id);
  await choose(page, 'part-flex', flex.id);
  await begin(page);
  if ((await page.getByTestId('manner').innerText()) === 'practised') await tap(page, 'manner');
  await at(page, 'empty');
  await workTo(page, 'fit-flex-on-resin', 'measure');
  await read(page, { 'measure-magnet': '1.53', 'measure-flex': '0.5' });
  await tap(page, 'step-done');
  await at(page, 'add-up');
  await tap(page, 'answer-nothing');
  // As thick as both together, in whole layers, never thinner.
  await at(page, 'print-dummy');
  expect(await page.getByTestId('spacer-sum').innerText()).toMatch(/2\.2 mm, 11 layers/);
  await workTo(page, 'fit-flex-on-resin', 'cure');
  expect(await page.getByTestId('timer-left').innerText()).toMatch(/^7[12]:\d\d:\d\d$/);
  // Not a moment earlier.
  await tap(page, 'step-done');
  expect(await page.getByTestId('refusal').innerText()).toMatch(/not before its time is up/);
  const id = jobIn(page);
  await eventually(async () => expect((await job(id)).stepTitle).toBe('Cure'));
  const held = await surfaceBy(magnet.tag);
  expect(held.state.hold!.until - held.state.hold!.since).toBe(72 * HOUR);
  // Another device shows the same timer; the bench says until when.
  const other = await shop.page(PHONE, { as: 'lead' });
  await other.goto('/bench');
  await other.getByTestId('in-hand-Stilt-Fit a flexible system on a resin platform').click();
  expect(await other.getByTestId('timer-left').innerText()).toMatch(/^7[12]:/);
  await other.context().close();
  await shop.killServer();
  const ahead = 73 * HOUR;
  await shop.startServer(ahead);
  await page.clock.setSystemTime(Date.now() + ahead);
  await page.reload();
  await at(page, 'cure');
  await eventually(async () => expect(await page.getByTestId('timer-left').innerText()).toBe('Time is up'));
  await tap(page, 'step-done');
  await workTo(page, 'fit-flex-on-resin', 'home');
  await fillIn(page, 'fit-flex-on-resin');
  await tap(page, 'answer-touch');
  await at(page, 'knock-after');
  expect(await page.getByTestId('doing').innerText()).toMatch(/Relieve the platform’s screws first/);
  await tap(page, 'step-done');
  await workTo(page, 'fit-flex-on-resin', 'home');
  await fillIn(page, 'fit-flex-on-resin');
  await tap(page, 'answer-quiet');
  await page.getByTestId('job-ended').waitFor();
  // What was put under the platform has ended its zero: the job that comes next is levelling.
  await page.getByTestId('then-level-resin').waitFor();
  await eventually(async () => expect((await job(id)).ended).toBe('done'));
  await shop.killServer();
  await shop.startServer();
  await page.clock.setSystemTime(Date.now());
});

test('six lines of light, practised: one tap for those without any; the shape is worked out, and only changed lines are looked at again', async () => {
  await open(page, 'check-plate', 'Turnstone');
  await begin(page);
  if ((await page.getByTestId('manner').innerText()) === 'step by step') await tap(page, 'manner');
  await at(page, 'clean');
  await tap(page, 'step-done');
  await at(page, 'along-left');
  expect((await stepsShown(page, 'check-plate')).slice(0, 6)).toHaveLength(6);
  const hollow = ['across-front', 'across-rear', 'diagonal-1', 'diagonal-2'];
  // How much is asked only where light shows.
  expect(await page.getByTestId('reading-diagonal-2-light').count()).toBe(0);
  for (const line of hollow) {
    await page.getByTestId(`reading-${line}-where-1`).click();
    await page.getByTestId(`reading-${line}-light-2`).click();
    await page.getByTestId(`reading-${line}-feeler`).fill('0.15');
  }
  await page.getByTestId('rest-usual').click();
  expect(await page.getByTestId('light-sum').innerText()).toMatch(/^Lower in the middle/);
  expect(await page.getByTestId('light-sum-trust').innerText()).toMatch(/can be trusted/);
  await tap(page, 'step-done');
  await at(page, 'cure-shape');
  await tap(page, 'answer-shim');
  // A strip is one shot: its gate stands on the same card.
  await at(page, 'shim-gate');
  await fillIn(page, 'check-plate');
  await tap(page, 'step-done');
  // The lines stand as they were; the one over the strip is looked at again.
  await at(page, 'along-left');
  expect(await page.getByTestId('reading-diagonal-1-where-1').getAttribute('aria-checked')).toBe('true');
  for (const line of hollow) await page.getByTestId(`reading-${line}-where-0`).click();
  expect(await page.getByTestId('light-sum').innerText()).toMatch(/^Flat/);
  await page.reload();
  // What was chosen survives a reload.
  await at(page, 'along-left');
  expect(await page.getByTestId('reading-diagonal-1-where-0').getAttribute('aria-checked')).toBe('true');
  await tap(page, 'step-done');
  await page.getByTestId('job-ended').waitFor();
});

test('two jobs at once on one phone; one goes on without a signal and catches up, undone once, handed over', async () => {
  const plate = await open(page, 'check-plate', 'Dunlin');
  await begin(page);
  if ((await page.getByTestId('manner').innerText()) === 'practised') await tap(page, 'manner');
  await at(page, 'clean');
  const plateJob = page.url();
  const { plate: plateId } = (await eventually(() => job(jobIn(page)))).parts;
  const about = plateId ? `surfaceId=${plateId}` : `machineId=${plate}`;
  await tap(page, 'step-done');
  await at(page, 'measure');
  await open(page, 'under-bed-check', 'Plover');
  await begin(page);
  await at(page, 'off');
  // Nobody puts hands under it before it is unplugged and cool.
  await tap(page, 'check-off-0');
  await tap(page, 'step-done');
  await at(page, 'measure');
  // Back to the first, which is where it was left.
  await page.goto(plateJob);
  await at(page, 'measure');
  // What the machine's page says of its plate is there already.
  await eventually(async () =>
    expect(Number(await page.getByTestId('reading-measure-width').inputValue())).toBeGreaterThan(100),
  );
  await page.context().setOffline(true);
  await read(page, { 'measure-width': '235,4', 'measure-depth': 'wide' });
  await tap(page, 'step-done');
  expect(await page.getByTestId('reading-measure-depth-error').innerText()).toMatch(/missing/);
  await read(page, { 'measure-depth': '9 1/4 in' });
  await tap(page, 'step-done');
  await at(page, 'along-left');
  await page.getByTestId('reading-along-left-where-1').click();
  await page.getByTestId('reading-along-left-light-1').click();
  await tap(page, 'step-done');
  await at(page, 'along-right');
  await tap(page, 'undo-step');
  await at(page, 'along-left');
  // What was chosen is still there, and is put right.
  expect(await page.getByTestId('reading-along-left-where-1').getAttribute('aria-checked')).toBe('true');
  await page.getByTestId('reading-along-left-light-2').click();
  await read(page, { 'along-left-feeler': '0.15' });
  await tap(page, 'step-done');
  await at(page, 'along-right');
  expect((await openJobs(plate))[0]!.stepTitle).toBe('Measure the real plate');
  await page.context().setOffline(false);
  await eventually(async () => expect((await openJobs(plate))[0]!.stepTitle).toBe('Along, on the right'));
  // What was undone passes through the same step: the readings tell that all of it has arrived; where it showed is kept.
  await eventually(async () => {
    const { items } = await shop.get<{ items: { card: string; code: string; numbers: Record<string, number> }[] }>(
      `/inspections?${about}`,
    );
    expect(
      items.filter(({ card }) => card === 'light-line').map(({ code, numbers }) => [code, numbers]),
    ).toContainEqual(['clear', { feeler: 0.15, line: 1, where: 1 }]);
  });
  await tap(page, 'hand-over');
  const { items: people } = await shop.get<{ items: { id: string; role: string }[] }>('/people');
  await choose(page, 'hand-over-to', people.find(({ role }) => role === 'lead')!.id);
  await page.getByTestId('hand-over-note').fill('The lamp is on the shelf');
  await page.getByTestId('hand-over-go').click();
  await eventually(async () => expect((await openJobs(plate))[0]!.holderName).toBe('Wren Sallow'));
  const wren = await shop.page(PHONE);
  await wren.goto('/bench');
  await wren.getByTestId('in-hand-Dunlin-Prepare and check a plate').click();
  await wren.getByText('The lamp is on the shelf', { exact: false }).waitFor();
  await wren.context().close();
});

test('a job is ended with a reason only, and stands on paper', async () => {
  await open(page, 'cut-glass', 'Ruff');
  await begin(page);
  await at(page, 'plan');
  const paper = `/jobs/paper?job=${new URL(page.url()).pathname.split('/').at(-1)}`;
  await tap(page, 'cant');
  await page.getByTestId('stop-job').click();
  await page.getByText('Say why it ends here.', { exact: false }).waitFor();
  await page.getByTestId('cant-note').fill('no glass left');
  await page.getByTestId('stop-job').click();
  await page.getByTestId('job-ended').waitFor();
  await page.goto(paper);
  await page
    .getByText('☐ Eyes and hands protected; measured twice from the edge cut last; the line runs from edge to edge?')
    .waitFor();
});

test('on a wide screen a lead copies a job, changes it, is told what would let a gate be walked round, and shares it', async () => {
  const wide = await shop.page(WIDE);
  await wide.goto('/procedures');
  await wide.getByTestId('procedure-fit-base-and-sheet').click();
  await wide.getByTestId('edit-press').click();
  await wide.getByTestId('step-shown').waitFor();
  await wide.getByTestId('copy-procedure').click();
  await wide.getByTestId('step-form').waitFor();
  await wide.getByTestId('step-field-doing').fill('Press the strip with a roller.');
  await wide.getByTestId('hours-wait-24').fill('36');
  // A gate taken away, or walked round, stands against saving.
  await wide.getByTestId('edit-degrease').click();
  await choose(wide, 'step-next', 'press');
  expect(await wide.getByTestId('procedure-faults').innerText()).toMatch(
    /Press the strip: It can’t be undone, and a way leads here past every gate/,
  );
  expect(await wide.getByTestId('save-procedure').isDisabled()).toBe(true);
  await choose(wide, 'step-next', 'ready');
  await eventually(async () => expect(await wide.getByTestId('procedure-faults').count()).toBe(0));
  await wide.getByTestId('procedure-title').fill('Base and sheet, Saltmarsh way');
  await wide.getByTestId('save-procedure').click();
  await wide.getByText('version 1').waitFor();
  const { items } = await shop.get<{ items: ProcedureEntry[] }>('/procedures');
  expect(items.at(-1)).toMatchObject({
    title: 'Base and sheet, Saltmarsh way',
    version: 1,
    basedOn: 'fit-base-and-sheet',
  });
  const [download] = await Promise.all([wide.waitForEvent('download'), wide.getByTestId('share-json').click()]);
  const file = (await download.path())!;
  const shared = JSON.parse(fs.readFileSync(file, 'utf8')) as {
    choices: { id: string; options: { hours?: number }[] }[];
  };
  expect(shared.choices.find(({ id }) => id === 'wait')!.options[1]!.hours).toBe(36);

  // Read in elsewhere, as a new one.
  await wide.goto('/procedures');
  const [chooser] = await Promise.all([wide.waitForEvent('filechooser'), wide.getByTestId('read-in').click()]);
  await chooser.setFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from('{"title":"x"}') });
  expect(await wide.getByTestId('read-in-fault').innerText()).toMatch(/no job that can be read/);
  const [again] = await Promise.all([wide.waitForEvent('filechooser'), wide.getByTestId('read-in').click()]);
  await again.setFiles(file);
  await wide.getByTestId('procedure-title').fill('Read in from a friend');
  await wide.getByTestId('save-procedure').click();
  await wide.getByText('version 1').waitFor();
  await open(wide, 'Read in from a friend', 'Knot');
  expect(await wide.getByTestId('school-wait-24').innerText()).toMatch(/free/);
  await wide.context().close();
});

test('the screen stays awake while a step is in hand, a photo is kept with it, and the end of a wait is sounded and told', async () => {
  const film = await shop.page(PHONE, { as: 'technician' });
  await film.addInitScript(() => {
    const seen = { awake: 0, tones: 0, told: [] as string[] };
    Object.assign(window, { seen });
    Object.defineProperty(navigator, 'wakeLock', {
      value: { request: () => Promise.resolve((seen.awake++, { release: () => Promise.resolve(void seen.awake--) })) },
    });
    class Told {
      static permission = 'granted';
      constructor(title: string, { body }: { body: string }) {
        seen.told.push(`${title}: ${body}`);
      }
    }
    const { createOscillator } = AudioContext.prototype;
    AudioContext.prototype.createOscillator = function tone() {
      seen.tones++;
      return createOscillator.call(this);
    };
    Object.assign(window, { Notification: Told });
  });
  await film.clock.install();
  const seen = () =>
    film.evaluate(() => (window as unknown as { seen: { awake: number; tones: number; told: string[] } }).seen);
  await open(film, 'fit-film', 'Dotterel');
  await begin(film);
  await at(film, 'empty');
  expect((await seen()).awake).toBe(1);
  const [chooser] = await Promise.all([film.waitForEvent('filechooser'), film.getByTestId('step-photo').click()]);
  await chooser.setFiles({ name: 'vat.jpg', mimeType: 'image/jpeg', buffer: await phonePhoto() });
  const machineId = await shop.machineId('Dotterel');
  await eventually(async () =>
    expect((await shop.get<{ items: { note: string }[] }>(`/photos?machineId=${machineId}`)).items[0]!.note).toBe(
      'Fit a film in a vat: Empty the vat',
    ),
  );
  await workTo(film, 'fit-film', 'leak');
  expect((await seen()).told).toEqual([]);
  await film.clock.fastForward('14:50');
  expect((await seen()).told).toEqual([]);
  await film.clock.fastForward('00:20');
  await eventually(async () =>
    expect((await seen()).told).toEqual(['The time is up: Dotterel: Leak test, away from the machine']),
  );
  expect((await seen()).tones).toBe(3);
  await film.goto('/bench');
  await eventually(async () => expect((await seen()).awake).toBe(0));
  await film.context().close();
});
