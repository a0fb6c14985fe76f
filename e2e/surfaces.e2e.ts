import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Inspection, Page as ListPage, Photo, Print, Surface } from '@even-bed/contract';
import type { Page } from 'playwright-core';
import { filmOfCode, phonePhoto, pictureOfCode } from './pictures';
import { choose, eventually, hand, rested, TestShop, unfold } from './shop';

let shop: TestShop;
let page: Page;
const film = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-film-')), 'code.y4m');
beforeAll(async () => {
  await filmOfCode('http://192.168.1.20:4242/t/S-009', film);
  shop = await TestShop.open({ demo: true, camera: film });
  page = await shop.page();
});
afterAll(async () => {
  await shop.close();
  fs.rmSync(path.dirname(film), { recursive: true });
});

const idOf = async (tag: string) => (await shop.get<{ id: string }>(`/tags/${tag}`)).id;
const surface = async (tag: string) => shop.get<Surface>(`/surfaces/${await idOf(tag)}`);
const title = () => page.getByTestId('page-title').innerText();
const answerAll = async () => {
  for (const ask of await page.locator('[data-testid^="ask-"]').all()) await ask.click();
};

describe('a tag', () => {
  test('opens its page from a picture, by the camera, and typed', async () => {
    await page.goto('/scan');
    const picture = await pictureOfCode(`${shop.url}/t/S-014`);
    await hand(page, 'scan-picture', { name: 'label.png', mimeType: 'image/png', buffer: picture });
    await eventually(async () => expect(await title()).toBe('S-014'));

    await page.goto('/scan');
    await page.getByTestId('scan-camera').click();
    await eventually(async () => expect(await title()).toBe('S-009'));

    await page.goto('/scan');
    await page.getByTestId('scan-typed').fill('m-001');
    await page.getByTestId('scan-open').click();
    await page.getByTestId('machine').waitFor();
  });

  test('a picture without a code, and a tag that nobody holds, say so', async () => {
    await page.goto('/scan');
    await hand(page, 'scan-picture', { name: 'photo.jpg', mimeType: 'image/jpeg', buffer: await phonePhoto() });
    await page.getByTestId('scan-problem').waitFor();
    expect(await page.getByTestId('scan-problem').innerText()).toContain('No code was found');
    await page.goto('/t/S-999');
    await eventually(async () => expect(await page.locator('body').innerText()).toContain('S-999'));
  });
});

describe('on a machine', () => {
  test('a sheet is swapped for what lies there, after looking', async () => {
    const dunlin = await shop.machineId('Dunlin');
    await page.goto(`/floor/${dunlin}`);
    await page.getByTestId('mount-here').click();
    await page.getByTestId('found-S-001').click();
    await page.getByTestId('ask-clean-dry').waitFor();
    expect(await page.getByTestId('mount-go').isDisabled()).toBe(true);
    await choose(page, 'mount-old-to', 'Rack 1');
    await answerAll();
    await page.getByTestId('mount-go').click();
    await page.getByTestId('mounted-S-001').waitFor();
    expect((await surface('S-002')).state.where).toEqual({ kind: 'rack', place: 'Rack 1' });
    await unfold(page, 'stack');
    expect(await page.getByTestId('stack-section').innerText()).toContain('S-001');
  });

  test('a sheet that lies on another machine is said to come off there first', async () => {
    const knot = await shop.machineId('Knot');
    const plover = await shop.machineId('Plover');
    await page.goto(`/mount?machine=${knot}&surface=${await idOf('S-005')}`);
    expect(await page.getByTestId('mount-from').innerText()).toContain('Plover');
    await choose(page, 'mount-old-to', 'Rack 1');
    await answerAll();
    // What lay there is on hold: drying. It stays where it is, and nothing else moves.
    await page.getByTestId('mount-go').click();
    await page.getByTestId('mount-failure').waitFor();
    expect((await surface('S-005')).state.where).toMatchObject({ machineId: plover });

    await page.goto(`/mount?machine=${plover}&surface=${await idOf('S-003')}`);
    expect(await page.getByTestId('mount-from').innerText()).toContain('Avocet');
    await choose(page, 'mount-old-to', 'Rack 1');
    await answerAll();
    await page.getByTestId('mount-go').click();
    await page.getByTestId('mounted-S-003').waitFor();
    expect((await surface('S-003')).state.where).toMatchObject({ machineId: plover });
    const { layers } = await shop.get<{ layers: { tag: string | null }[] }>(
      `/machines/${await shop.machineId('Avocet')}/stack`,
    );
    expect(layers.map(({ tag }) => tag)).not.toContain('S-003');
  });

  test('it is turned over and half round from the machine\u2019s page', async () => {
    await page.goto(`/floor/${await shop.machineId('Dunlin')}`);
    const before = await surface('S-001');
    await page.getByTestId('turn-over').click();
    await eventually(async () => {
      const { state } = await surface('S-001');
      expect(state.where).not.toEqual(before.state.where);
    });
    await page.getByTestId('half-turn').click();
    await eventually(async () =>
      expect((await surface('S-001')).state.where).toMatchObject({ sideUp: 'B', turned: 180 }),
    );
  });

  test.each([
    ['a magnetised cover a quarter turn round', 'Dunlin', 'S-025', 90, 'refused-poles', /ridges/],
    ['a hold', 'Sandpiper', 'S-033', 0, 'refused-on-hold', /on hold/],
    ['a retired one', 'Curlew', 'S-020', 0, 'refused-retired', /torn/],
    ['a film on a filament printer', 'Dunlin', 'F-002', 0, 'refused-family', /filament printer/],
  ] as const)('is refused with the reason: %s', async (_, machine, tag, turned, refusal, words) => {
    await page.goto(`/mount?machine=${await shop.machineId(machine)}&surface=${await idOf(tag)}`);
    if (turned === 90) await page.getByTestId('mount-turned-90').click();
    await page.getByTestId(refusal).waitFor();
    expect(await page.getByTestId(refusal).innerText()).toMatch(words);
    expect(await page.getByTestId('mount-go').isDisabled()).toBe(true);
  });

  test('the offset to try first stands where it is mounted, with what it rests on', async () => {
    await page.goto(`/mount?machine=${await shop.machineId('Knot')}&surface=${await idOf('S-002')}`);
    expect(await page.getByTestId('predicted-offset').innerText()).toMatch(
      /mm[\s\S]*from \d+ offsets, \d with this sheet/,
    );
  });
});

describe('a hold', () => {
  test('counts on the bench and is cut short only with a reason', async () => {
    await page.goto('/');
    await page.getByTestId('holds').getByText('B-013').waitFor();
    await page.goto(`/rack/${await idOf('B-013')}`);
    await page.getByTestId('cut-hold').click();
    expect(await page.getByTestId('reason-go').isDisabled()).toBe(true);
    await page.getByTestId('reason').fill('The harbour fair again');
    await page.getByTestId('reason-go').click();
    await eventually(async () => expect((await surface('B-013')).state.hold).toBeNull());
    await page.getByTestId('surface-history').getByText('The harbour fair again').waitFor();
  });
});

test('a print is written down in two taps, and taken back', async () => {
  const stint = await shop.machineId('Stint');
  await page.goto(`/floor/${stint}`);
  // A glove bounces: the second tap of a double one lands where the reasons stand now, and counts for nothing.
  const box = (await page.getByTestId('print-failed').boundingBox())!;
  await page.mouse.dblclick(box.x + 20, box.y + box.height - 8);
  await rested(page);
  await page.getByTestId('failed-lifted-corner').click();
  await rested(page);
  const last = await eventually(async () => {
    const { items } = await shop.get<ListPage<Print>>(`/prints?machineId=${stint}&limit=1`);
    expect(items[0]).toMatchObject({
      held: false,
      failure: 'lifted-corner',
      surfaceTag: 'S-023',
      side: 'A',
      source: 'tap',
    });
    return items[0]!;
  });
  await page.getByTestId('print-undo').click();
  await eventually(async () => expect((await shop.get<Print>(`/prints/${last.id}`)).withdrawnAt).not.toBeNull());
  await rested(page);
  await page.getByTestId('print-held').click();
  await eventually(async () => {
    const { items } = await shop.get<ListPage<Print>>(`/prints?machineId=${stint}&limit=1`);
    expect(items[0]).toMatchObject({ held: true, surfaceTag: 'S-023' });
  });
});

test('a print that failed: where, how it came off, a note, a photo, and what was different', async () => {
  const ruff = await shop.machineId('Ruff');
  await page.goto(`/floor/${ruff}`);
  await page.getByTestId('print-failed').click();
  await rested(page);
  await page.getByTestId('failed-let-go').click();
  await page.getByTestId('place-back-left').click();
  await page.getByTestId('place-back').click();
  await rested(page);
  await page.getByTestId('more-save').click();
  await page.getByTestId('more-kept').getByText('Saved.').waitFor();
  const last = await eventually(async () => {
    const { items } = await shop.get<ListPage<Print>>(`/prints?machineId=${ruff}&limit=1`);
    expect(items[0]).toMatchObject({ held: false, failure: 'let-go', places: ['back-left', 'back'] });
    return items[0]!;
  });
  await page.getByTestId('print-open').click();
  await page.getByTestId('print').waitFor();
  // What the records show beside it: the last that held, and what was done since.
  await page.getByTestId('since-held').getByText('The last print that held on this machine').waitFor();
  await page.getByTestId('more-note').fill('Draught from the door');
  await page.getByTestId('more-save').click();
  await page.getByTestId('more-kept').getByText('Saved.').waitFor();
  await unfold(page, 'photos');
  await hand(page, 'add-photo', { name: 'let-go.jpg', mimeType: 'image/jpeg', buffer: await phonePhoto() });
  await eventually(async () => {
    const photos = await shop.get<{ items: Photo[] }>(`/photos?printId=${last.id}`);
    expect(photos.items).toMatchObject([{ machineId: ruff, printId: last.id }]);
  });
  await page.goto(`/floor/${ruff}`);
  await unfold(page, 'prints');
  const line = page.getByTestId('prints').getByTestId(`print-${last.id}`);
  expect(await line.textContent()).toContain('rear left, rear');
  expect(await line.textContent()).toContain('Draught from the door');
});

test('an inspection by taps, with a number and a photo that stands upright', async () => {
  const id = await idOf('P-001');
  await page.goto(`/inspect?surface=${id}&card=light-line`);
  await page.getByTestId('code-faint').click();
  await page.getByTestId('number-feeler').fill('0,05');
  await hand(page, 'photo-file', { name: 'light.jpg', mimeType: 'image/jpeg', buffer: await phonePhoto() });
  await page.getByTestId('photos-chosen').waitFor();
  await page.getByTestId('inspect-save').click();
  await page.getByTestId('surface').waitFor();
  const { items } = await shop.get<{ items: Inspection[] }>(`/inspections?surfaceId=${id}&limit=1`);
  expect(items[0]).toMatchObject({ card: 'light-line', code: 'faint', numbers: { feeler: 0.05 } });
  const photos = await shop.get<{ items: Photo[] }>(`/photos?surfaceId=${id}`);
  expect(photos.items[0]!.height).toBeGreaterThan(photos.items[0]!.width);
  await unfold(page, 'photos');
  await page.getByTestId(`photo-${photos.items[0]!.id}`).waitFor();
});

test('a list of prints: columns matched, good lines in once, bad ones put right here', async () => {
  const csv = [
    'Printer;End;Result;Material;Weight',
    'Snipe;2026-03-02 14:00;ok;PLA;12,5',
    'Snipe;2026-03-02 16:30;failed, corner;PETG;40',
    'Snipe;when I came back;ok;PLA;3',
    'Snipo;2026-03-03 15:00;ok;PLA;4',
  ].join('\n');
  const file = { name: 'march.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) };
  const march = async () =>
    (
      await shop.get<ListPage<Print>>(
        `/prints?machineId=${await shop.machineId('Snipe')}&from=${Date.UTC(2026, 2, 2)}&to=${Date.UTC(2026, 2, 4)}&limit=100`,
      )
    ).items.filter(({ source }) => source === 'list');
  await page.goto('/prints/list');
  await hand(page, 'choose-list', file);
  await page.getByTestId('list-columns').waitFor();
  expect(await page.getByTestId('column-grams').innerText()).toContain('Weight');
  await page.getByTestId('list-look').click();
  expect(await page.getByTestId('list-report').innerText()).toMatch(/2 good lines[\s\S]*2 to put right[\s\S]*Snipo/);
  await page.getByTestId('list-take').click();
  await eventually(async () => expect(await march()).toHaveLength(2));
  await page.getByTestId('fix-4-ended').fill('2026-03-02 18:00');
  await page.getByTestId('fix-4').click();
  await eventually(async () => expect(await page.getByTestId('list-report').innerText()).toMatch(/1 good line/));
  await page.getByTestId('list-take').click();
  await eventually(async () => expect(await march()).toHaveLength(3));

  // Dates that can be read either way are asked about first.
  const either = {
    name: 'either.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Printer;End;Result\nSnipe;03/02/2026;ok'),
  };
  await page.goto('/prints/list');
  await hand(page, 'choose-list', either);
  await page.getByTestId('list-columns').waitFor();
  expect(await page.getByTestId('list-look').getAttribute('aria-disabled')).toBe('true');
  await page.getByTestId('day-first-month').click();
  await page.getByTestId('list-look').click();
  await eventually(async () => expect(await page.getByTestId('list-report').innerText()).toMatch(/Snipe · Mon 2 Mar/));

  // The same file again brings nothing in twice.
  await page.goto('/prints/list');
  await hand(page, 'choose-list', file);
  await page.getByTestId('list-look').click();
  await eventually(async () => expect(await page.getByTestId('list-report').innerText()).toMatch(/2 here already/));
  expect(await march()).toHaveLength(3);
});

test('a print is not lost without a signal: it waits on the phone and goes out once', async () => {
  const ruff = await shop.machineId('Ruff');
  await page.goto(`/floor/${ruff}`);
  await page.getByTestId('print-held').waitFor();
  await page.context().setOffline(true);
  await page.getByTestId('print-held').click();
  await eventually(async () => expect(await page.getByTestId('log-print').innerText()).toContain('waits to be sent'));
  const count = async () => (await shop.get<ListPage<Print>>(`/prints?machineId=${ruff}&limit=500`)).items.length;
  const before = await count();
  await page.context().setOffline(false);
  await eventually(async () => expect(await count()).toBe(before + 1));
});

test('a lead adds a kind: what is wrong is said at its field before anything is sent, and nothing typed is lost', async () => {
  const page = await shop.page();
  await page.goto('/kinds');
  await page.getByTestId('add-kind').click();
  await page.getByTestId('kind-name').fill('Satin, ours');
  await page.getByTestId('kind-thickness').fill('thin');
  await page.getByTestId('kind-side-a').fill('satin');
  await page.getByTestId('kind-expected').fill('200');
  let sent = 0;
  page.on('request', (request) => (sent += request.method() === 'PUT' ? 1 : 0));
  await page.getByTestId('kind-save').click();
  await page.getByText(/Thickness.*(number|length)/i).waitFor();
  expect(sent).toBe(0);
  await page.getByTestId('kind-thickness').fill('1/32 in');
  await page.getByTestId('kind-save').click();
  await page.getByTestId('kind-Satin, ours').waitFor();
  const { items } = await shop.get<{ items: { name: string; thickness: number }[] }>('/surface-kinds');
  expect(items.find(({ name }) => name === 'Satin, ours')!.thickness).toBeCloseTo(0.79375, 6);
  // A name that is taken is known by the server alone: it says so at the same place.
  await page.getByTestId('add-kind').click();
  await page.getByTestId('kind-name').fill('Satin, ours');
  await page.getByTestId('kind-thickness').fill('0,5');
  await page.getByTestId('kind-side-a').fill('satin');
  await page.getByTestId('kind-expected').fill('200');
  await page.getByTestId('kind-save').click();
  await page.getByText('There is already a kind with the name Satin, ours.').waitFor();
});

test('a cleaning that harms a face is not kept without a word', async () => {
  const sheet = await surface('S-002');
  expect(sheet.kind.care['steel-wool']).toBe('no');
  await page.goto(`/rack/${sheet.id}`);
  await page.getByTestId('work-done').click();
  await page.getByTestId('work-note').fill('alcohol');
  expect(await page.getByTestId('work-never').count()).toBe(0);
  await page.getByTestId('work-note').fill('scrubbed, steel wool');
  expect(await page.getByTestId('work-never').innerText()).toMatch(/^Never on .*\n.*Steel wool/s);
  expect(await page.getByTestId('work-go').innerText()).toBe('It was done anyway');
  await page.getByTestId('work-go').click();
  await page.getByTestId('work-dialog').waitFor({ state: 'detached' });
});
