import fs from 'node:fs';
import type { Job, JobEntry, ProcedureEntry, Surface } from '@even-bed/contract';
import { PROCEDURES } from '@even-bed/core/care/procedures';
import type { Page } from 'playwright-core';
import { v7 as uuid } from 'uuid';
import { phonePhoto } from './pictures';
import { choose, eventually, PHONE, TestShop, WIDE, unfold } from './shop';

const HOUR = 3_600_000;
let shop: TestShop;
let page: Page;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
  page = await shop.page(PHONE, { as: 'technician' });
});
afterAll(() => shop.close());

/** A tap, and the pause that a hand in a glove makes before the next. */
const tap = async (where: Page, testId: string) => {
  await where.getByTestId(testId).click();
  await where.waitForTimeout(400);
};
const at = (where: Page, step: string) => where.getByTestId(`step-${step}`).waitFor();
const tick = async (where: Page, count: number) => {
  for (let i = 0; i < count; i++) await where.getByTestId(`check-${i}`).click();
};
const read = async (where: Page, values: Record<string, string>) => {
  for (const [id, text] of Object.entries(values)) await where.getByTestId(`reading-${id}`).fill(text);
};
const openJobs = async (machineId: string) =>
  (await shop.get<{ items: JobEntry[] }>(`/jobs?open=true&machineId=${machineId}`)).items;
const job = (id: string) => shop.get<Job>(`/jobs/${id}`);
const surfaceBy = async (tag: string) =>
  (await shop.get<{ items: Surface[] }>(`/surfaces?search=${tag}`)).items.find((one) => one.tag === tag)!;

/** A base that was bought just now and lies in the rack. */
async function spareBase(): Promise<Surface> {
  const { items: kinds } = await shop.get<{ items: { id: string; group: string }[] }>('/surface-kinds');
  const id = uuid();
  const kindId = kinds.find(({ group }) => group === 'base')!.id;
  const facts = { tag: '', kindId, width: 235, depth: 235, thickness: null, boughtAt: null, price: null, note: '' };
  await shop.put(`/surfaces/${id}`, { ...facts, place: 'Rack 1', version: 0, at: Date.now() });
  return shop.get<Surface>(`/surfaces/${id}`);
}

async function begin(where: Page, procedure: string, machine: string): Promise<string> {
  const machineId = await shop.machineId(machine);
  await where.goto(`/floor/${machineId}`);
  await unfold(where, 'machine-jobs');
  await where.getByTestId('begin-a-job').click();
  await where.getByTestId(`procedure-${procedure}`).click();
  await where.getByTestId('start-job').waitFor();
  return machineId;
}

/** Takes the straight way from the step in hand to another, as the hands would. */
async function workTo(where: Page, procedureId: string, stop: string): Promise<void> {
  const { steps } = PROCEDURES.find(({ id }) => id === procedureId)!;
  for (;;) {
    const shown = await where
      .locator('[data-testid^="step-"]')
      .evaluateAll((all) => all.map((one) => one.getAttribute('data-testid')!.slice(5)));
    const step = steps.find(({ id }) => shown.includes(id))!;
    if (step.id === stop) return;
    for (const { id, least, most, min, max } of step.readings ?? [])
      await where.getByTestId(`reading-${id}`).fill(String(Math.max(least ?? min, Math.min(most ?? max, 1))));
    await tick(where, step.gate?.checks.length ?? 0);
    await tap(where, step.ask ? `answer-${step.ask.answers[0]!.id}` : 'step-done');
    await where.getByTestId(`step-${step.id}`).waitFor({ state: 'detached' });
  }
}

test('a base and a sheet on a filament machine: schools with their hours, a gate, a bubble, a hold, a knock, within aim', async () => {
  const spare = await spareBase();
  const machineId = await begin(page, 'fit-base-and-sheet', 'Avocet');
  // Each wait says when the machine would be free.
  for (const wait of ['none', '24', '72'])
    expect(await page.getByTestId(`school-wait-${wait}`).innerText()).toMatch(/free \w+day \d\d:\d\d/);
  await page.getByTestId('school-wait-24').click();
  await choose(page, 'part-base', spare.id);
  await page.getByTestId('begin-job').click();
  await at(page, 'off-old');
  await workTo(page, 'fit-base-and-sheet', 'align');
  // The gate refuses what is out, at its fields, and nothing typed is lost.
  await read(page, { left: '9', right: '0,2' });
  await page.getByTestId('check-0').click();
  await tap(page, 'step-done');
  expect(await page.getByTestId('reading-left-error').innerText()).toMatch(/at most 2 mm/);
  expect(await page.getByTestId('reading-right').inputValue()).toBe('0,2');
  await read(page, { left: '0.4' });
  await page.getByTestId('check-1').click();
  await tap(page, 'step-done');
  await at(page, 'press');
  // The liner runs crooked, and is put right.
  await tap(page, 'answer-crooked');
  await at(page, 'crooked');
  expect(await page.getByTestId('progress').innerText()).toBe('aside');
  await tap(page, 'answer-good');
  await at(page, 'align');
  await workTo(page, 'fit-base-and-sheet', 'roll');
  await tap(page, 'cant');
  await tap(page, 'cant-0');
  await at(page, 'bubble');
  await tap(page, 'answer-yes');
  await at(page, 'trim');
  await workTo(page, 'fit-base-and-sheet', 'weight');
  // The hold began with the bond, and the machine says so.
  await eventually(async () => {
    const { state } = await surfaceBy(spare.tag);
    expect(state.where).toMatchObject({ kind: 'machine', machineId });
    expect(state.hold!.until - state.hold!.since).toBe(24 * HOUR);
  });
  await page.goto('/floor');
  await page
    .getByTestId('machine-Avocet')
    .getByText(/^Held, (1 day|23 h)/)
    .waitFor();
  await page.goBack();
  // It is needed sooner: said, and written down.
  await tap(page, 'cant');
  await tap(page, 'cant-0');
  await at(page, 'sooner');
  await tap(page, 'step-done');
  await at(page, 'move');
  await workTo(page, 'fit-base-and-sheet', 'home');
  // A knock while homing stops it at once, and leads back to the trip point.
  await tap(page, 'answer-knock');
  await at(page, 'knock');
  expect(await page.getByTestId('doing').innerText()).toMatch(/^Power off/);
  await tap(page, 'answer-trip');
  await at(page, 'move');
  await workTo(page, 'fit-base-and-sheet', 'level');
  await read(page, { range: '0,08' });
  await tap(page, 'step-done');
  await at(page, 'zero');
  await tap(page, 'step-done');
  await page.getByTestId('job-ended').waitFor();
  await eventually(async () => expect(await openJobs(machineId)).toEqual([]));
  const { items } = await shop.get<{ items: { text: string }[] }>(`/book?machineId=${machineId}&limit=30`);
  expect(items.map(({ text }) => text)).toEqual(
    expect.arrayContaining([
      'Avocet: Fit a magnetic base and sheet, done.',
      'Avocet: A knock while homing: stopped at once.',
      'Avocet: The strip was down crooked and lifted again.',
      'Avocet: The cure was ended early.',
    ]),
  );
});

test('a flexible system on a resin machine, through a cure of 72 h, on two devices and past a power cut', async () => {
  const spare = await spareBase();
  await begin(page, 'fit-flex-on-resin', 'Stilt');
  await page.getByTestId('school-wait-72').click();
  await choose(page, 'part-magnet', spare.id);
  await page.getByTestId('begin-job').click();
  await at(page, 'empty');
  await workTo(page, 'fit-flex-on-resin', 'cure');
  expect(await page.getByTestId('timer-left').innerText()).toMatch(/^7[12]:\d\d:\d\d$/);
  // Not a moment earlier.
  await tap(page, 'step-done');
  expect(await page.getByTestId('refusal').innerText()).toMatch(/not before its time is up/);
  const id = new URL(page.url()).pathname.split('/').at(-1)!;
  await eventually(async () => expect((await job(id)).stepTitle).toBe('Cure'));
  const held = await surfaceBy(spare.tag);
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
  await at(page, 'clean-both');
  await workTo(page, 'fit-flex-on-resin', 'empty-vat');
  await tick(page, 2);
  await tap(page, 'answer-touch');
  await at(page, 'knock-after');
  await tap(page, 'step-done');
  await at(page, 'empty-vat');
  await workTo(page, 'fit-flex-on-resin', 'zero');
  await tick(page, 1);
  await tap(page, 'step-done');
  await page.getByTestId('job-ended').waitFor();
  await eventually(async () => expect((await job(id)).ended).toBe('done'));
  await shop.killServer();
  await shop.startServer();
  await page.clock.setSystemTime(Date.now());
});

test('two jobs at once on one phone; one goes on without a signal and catches up, undone once, handed over', async () => {
  const plate = await begin(page, 'check-plate', 'Dunlin');
  await page.getByTestId('begin-job').click();
  await at(page, 'clean');
  const plateJob = page.url();
  await tap(page, 'step-done');
  await at(page, 'measure');
  await begin(page, 'under-bed-check', 'Plover');
  await page.getByTestId('begin-job').click();
  await at(page, 'off');
  await tap(page, 'step-done');
  await at(page, 'measure');
  // Back to the first, which is where it was left.
  await page.goto(plateJob);
  await at(page, 'measure');
  await page.context().setOffline(true);
  await read(page, { width: '235,4', depth: 'wide' });
  await tap(page, 'step-done');
  expect(await page.getByTestId('reading-depth-error').innerText()).toMatch(/missing/);
  await read(page, { depth: '9 1/4 in' });
  await tap(page, 'step-done');
  await at(page, 'along-left');
  await read(page, { feeler: '0.1' });
  await tap(page, 'answer-faint');
  await at(page, 'along-right');
  await tap(page, 'undo-step');
  await at(page, 'along-left');
  await read(page, { feeler: '0.15' });
  await tap(page, 'answer-clear');
  await at(page, 'along-right');
  expect((await openJobs(plate))[0]!.stepTitle).toBe('Measure the real plate');
  await page.context().setOffline(false);
  await eventually(async () => expect((await openJobs(plate))[0]!.stepTitle).toBe('Along, on the right'));
  // What was undone passes through the same step: the readings tell that all of it has arrived.
  await eventually(async () => {
    const { items } = await shop.get<{ items: { card: string; code: string; numbers: { feeler: number } }[] }>(
      `/inspections?machineId=${plate}`,
    );
    expect(
      items.filter(({ card }) => card === 'light-line').map(({ code, numbers }) => [code, numbers.feeler]),
    ).toContainEqual(['clear', 0.15]);
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
  await begin(page, 'cut-glass', 'Ruff');
  await page.getByTestId('begin-job').click();
  await at(page, 'plan');
  const paper = `/jobs/paper?job=${new URL(page.url()).pathname.split('/').at(-1)}`;
  await tap(page, 'cant');
  await page.getByTestId('stop-job').click();
  await page.getByText('Say why it ends here.', { exact: false }).waitFor();
  await page.getByTestId('cant-note').fill('no glass left');
  await page.getByTestId('stop-job').click();
  await page.getByTestId('job-ended').waitFor();
  await page.goto(paper);
  await page.getByText('☐ Is the score whole, from edge to edge?').waitFor();
});

test('on a wide screen a lead copies a job, changes it, is told what would let a gate be walked round, and shares it', async () => {
  const wide = await shop.page(WIDE);
  await wide.goto('/procedures');
  await wide.getByTestId('procedure-fit-base-and-sheet').click();
  await wide.getByTestId('edit-press').click();
  await wide.getByTestId('step-shown').waitFor();
  await wide.getByTestId('copy-procedure').click();
  await wide.getByTestId('step-form').waitFor();
  await wide.getByTestId('step-field-doing').fill('Let the strip touch, and press it with a roller.');
  await wide.getByTestId('hours-wait-24').fill('36');
  // A gate taken away, or walked round, stands against saving.
  await wide.getByTestId('edit-align').click();
  for (let i = 0; i < 2; i++) await wide.getByTestId('remove-check-0').click();
  expect(await wide.getByTestId('procedure-faults').innerText()).toMatch(
    /Press the strip down: It can’t be undone, and a way leads here past every gate/,
  );
  expect(await wide.getByTestId('save-procedure').isDisabled()).toBe(true);
  await wide.getByTestId('add-check').click();
  await wide.getByRole('textbox', { name: 'Check' }).fill('Is the stack added up?');
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
  await begin(wide, 'Read in from a friend', 'Knot');
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
  await begin(film, 'fit-film', 'Dotterel');
  await film.getByTestId('begin-job').click();
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
