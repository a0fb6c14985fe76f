import type { ListPreview, ListTaken, Page, Print, PrintFacts, PrintList, Surface } from '@even-bed/contract';
import request from 'supertest';
import { newId, NOW, openShop, type Shop, sheet } from '../app/shop.fixture';

const HOUR = 3_600_000;

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

async function sheetOn(at = NOW, sideUp: 'A' | 'B' = 'A'): Promise<string> {
  const id = newId();
  await shop.api.put(`/api/surfaces/${id}`).send(sheet({ at })).expect(200);
  const answers = ['clean-dry', 'front-mark'];
  await shop.api
    .post(`/api/machines/${shop.machineId}/mount`)
    .send({ surfaceId: id, sideUp, turned: 0, answers, from: null, replaces: null, at })
    .expect(200);
  return id;
}
const print = (more: Partial<PrintFacts> = {}): PrintFacts => ({
  machineId: shop.machineId,
  material: 'PETG',
  endedAt: NOW,
  duration: 3600,
  grams: 20,
  held: true,
  failure: null,
  release: null,
  note: '',
  ...more,
});
const log = (id: string, more: Partial<PrintFacts> = {}) => shop.api.put(`/api/prints/${id}`).send(print(more));
const surface = async (id: string) => (await shop.api.get(`/api/surfaces/${id}`).expect(200)).body as Surface;
const prints = async (query = '') => (await shop.api.get(`/api/prints?${query}`).expect(200)).body as Page<Print>;

describe('a print', () => {
  test('counts on what lay there when it ended, on the side that was up', async () => {
    shop.clock.now = NOW + 10 * HOUR;
    const sheet = await sheetOn(NOW, 'A');
    await shop.api
      .post(`/api/surfaces/${sheet}/events`)
      .send({ kind: 'turned', sideUp: 'B', turned: 0, at: NOW + 2 * HOUR })
      .expect(200);
    await log(newId(), { endedAt: NOW - HOUR }).expect(200);
    await log(newId(), { endedAt: NOW + HOUR }).expect(200);
    await log(newId(), { endedAt: NOW + 3 * HOUR, held: false, failure: 'lifted-corner' }).expect(200);
    const { items } = await prints();
    expect(items.map(({ surfaceId, side }) => [surfaceId, side])).toEqual([
      [sheet, 'B'],
      [sheet, 'A'],
      [null, null],
    ]);
    expect(await surface(sheet)).toMatchObject({
      use: { A: { prints: 1, grams: 20 }, B: { prints: 1, grams: 20 } },
      prints: 2,
      failures: 1,
    });
  });

  test('is there once however often it is sent, and says so in the book', async () => {
    const sheet = await sheetOn();
    const id = newId();
    for (let i = 0; i < 3; i++) await log(id, { held: false, failure: 'let-go' }).expect(200);
    expect((await surface(sheet)).prints).toBe(1);
    const { body } = await shop.api.get('/api/book?kind=print-logged').expect(200);
    expect(body.items.map(({ text }: { text: string }) => text)).toEqual([
      'Dunlin: print failed, let go on S-001, PETG.',
    ]);
  });

  test('is told more of later on: only what is named changes, and the book tells both', async () => {
    await sheetOn();
    const id = newId();
    await log(id, { held: false, failure: 'let-go', note: 'Draught' }).expect(200);
    const say = (words: object) => shop.api.put(`/api/prints/${id}/words`).send({ ...words, at: NOW });
    const { body } = await say({ places: ['front-left', 'front'] }).expect(200);
    expect(body).toMatchObject({ places: ['front-left', 'front'], note: 'Draught', failure: 'let-go' });
    // Another device, which knew nothing of the places, adds a word: they stay.
    await say({ note: 'Door was open' }).expect(200);
    await say({ note: 'Door was open' }).expect(200);
    const now = (await shop.api.get(`/api/prints/${id}`).expect(200)).body as Print;
    expect(now).toMatchObject({ places: ['front-left', 'front'], note: 'Door was open' });
    const lines = (await shop.api.get('/api/book?kind=print-described').expect(200)).body.items as { text: string }[];
    expect(lines.map(({ text }) => text)).toEqual([
      'Dunlin: the print that failed, let go on S-001: front left, front; Door was open.',
      'Dunlin: the print that failed, let go on S-001: front left, front; Draught.',
    ]);
    const csv = await shop.api.get('/api/csv/prints').expect(200);
    expect(csv.text).toContain('"front left, front"');
  });

  test.each<[what: string, words: object, status: number, field: string]>([
    ['nothing', {}, 422, ''],
    ['a place that no plate has', { places: ['below'] }, 422, 'places.0'],
    ['a place twice', { places: ['front', 'front'] }, 422, 'places.1'],
    ['a failure nobody knows', { failure: 'magic' }, 422, 'failure'],
    ['a note without an end', { note: 'x'.repeat(201) }, 422, 'note'],
    ['whether it held', { held: true, note: 'x' }, 422, 'held'],
  ])('no more is told of it by %s', async (_what, words, status, field) => {
    const id = newId();
    await log(id, { held: false }).expect(200);
    const { body } = await shop.api
      .put(`/api/prints/${id}/words`)
      .send({ ...words, at: NOW })
      .expect(status);
    if (field) expect(Object.keys(body.error.fields)).toEqual([field]);
  });

  test('that held has no failure; one that is withdrawn or not here is told nothing of', async () => {
    const id = newId();
    await log(id).expect(200);
    const say = (of: string, words: object) => shop.api.put(`/api/prints/${of}/words`).send({ ...words, at: NOW });
    expect((await say(id, { failure: 'foot' }).expect(422)).body.error.fields).toHaveProperty('failure');
    await say(id, { release: 'flexed' }).expect(200);
    await shop.api.post(`/api/prints/${id}/withdraw`).send({}).expect(200);
    await say(id, { note: 'x' }).expect(409);
    await say(newId(), { note: 'x' }).expect(404);
  });

  test('can be withdrawn, which uncounts it once; renewing a side begins anew', async () => {
    const sheet = await sheetOn();
    const ids = [newId(), newId(), newId()];
    for (const id of ids) await log(id, { held: id !== ids[0] }).expect(200);
    for (let i = 0; i < 2; i++) await shop.api.post(`/api/prints/${ids[0]}/withdraw`).send({}).expect(200);
    expect(await surface(sheet)).toMatchObject({ prints: 2, failures: 0, use: { A: { prints: 2, grams: 40 } } });
    expect((await prints()).items).toHaveLength(2);
    const renewed = { kind: 'work-done', work: 'renewed', side: 'A', note: '2000 grit', at: NOW };
    await shop.api.post(`/api/surfaces/${sheet}/events`).send(renewed).expect(200);
    await log(newId()).expect(200);
    expect(await surface(sheet)).toMatchObject({ prints: 3, use: { A: { prints: 1, grams: 20 } }, renewedAt: NOW });
    await shop.api.post(`/api/prints/${newId()}/withdraw`).send({}).expect(404);
    // The other side renewed, this one goes on counting.
    await shop.api
      .post(`/api/surfaces/${sheet}/events`)
      .send({ ...renewed, side: 'B' })
      .expect(200);
    expect(await surface(sheet)).toMatchObject({ use: { A: { prints: 1, grams: 20 } } });
  });

  test.each([
    [{ held: true, failure: 'foot' }, ''],
    [{ failure: 'bored', held: false }, 'failure'],
    [{ grams: -1 }, 'grams'],
    [{ machineId: newId() }, 'machineId'],
  ])('%j is refused', async (more, field) => {
    const { body } = await log(newId(), more as Partial<PrintFacts>).expect(422);
    expect(Object.keys(body.error.fields)).toEqual([field]);
  });

  test('is posted by its machine with a token, and by no other', async () => {
    await sheetOn();
    const { body } = await shop.api
      .put(`/api/machines/${shop.machineId}/tokens/${newId()}`)
      .send({ name: 'Controller', at: NOW })
      .expect(201);
    const machine = request.agent(shop.app.callback()).set('Authorization', `Bearer ${body.token}`);
    const made = await machine.put(`/api/prints/${newId()}`).send(print()).expect(200);
    expect(made.body).toMatchObject({ source: 'machine', surfaceTag: 'S-001', personName: null });
    await machine
      .put(`/api/prints/${newId()}`)
      .send(print({ machineId: newId() }))
      .expect(403);
    await machine.post('/api/prints').send({ prints: [] }).expect(403);
  });

  test('a grid of them is taken whole or not at all', async () => {
    const grid = [1, 2, 3].map((hour) => ({ ...print({ endedAt: NOW - hour * HOUR }), id: newId() }));
    const bad = [...grid.slice(0, 2), { ...grid[2]!, machineId: newId() }];
    const { body } = await shop.api.post('/api/prints').send({ prints: bad }).expect(422);
    expect(body.error.fields).toHaveProperty(['prints.2.machineId']);
    expect((await prints()).items).toEqual([]);
    expect((await shop.api.post('/api/prints').send({ prints: grid }).expect(200)).body.added).toBe(3);
    expect((await shop.api.post('/api/prints').send({ prints: grid }).expect(200)).body.added).toBe(0);
    const book = (await shop.api.get('/api/book?kind=prints-added').expect(200)).body.items;
    expect(book[0].text).toBe('3 prints added from the grid: Dunlin; all held.');
  });

  test('lists go by machine, surface, result, words and time, page by page', async () => {
    for (let i = 0; i < 5; i++)
      await log(newId(), { endedAt: NOW - i * HOUR, held: i % 2 === 0, material: i === 4 ? 'ASA 100%' : 'PLA' }).expect(
        200,
      );
    expect((await prints('held=false')).items).toHaveLength(2);
    expect((await prints('search=100%25')).items).toHaveLength(1);
    expect((await prints(`from=${NOW - HOUR}`)).items).toHaveLength(2);
    const first = await prints('limit=2');
    const second = await prints(`limit=2&after=${first.next}`);
    const third = await prints(`limit=2&after=${second.next}`);
    expect([...first.items, ...second.items, ...third.items].map(({ endedAt }) => (NOW - endedAt) / HOUR)).toEqual([
      0, 1, 2, 3, 4,
    ]);
    expect(third.next).toBeNull();
    await shop.api.get('/api/prints?after=1;drop').expect(400);
  });
});

describe('a list', () => {
  const HEAD = 'Printer;Finished;Result;Material;Weight (g)';
  const FILE = [
    HEAD,
    'Dunlin;24.11.2026 10:00;ok;PLA;12,5',
    'dunlin;24.11.2026 12:00;failed;PLA;',
    'M-001;24.11.2026 14:00;ok;PETG;7',
    'Nobody;24.11.2026 14:00;ok;PETG;7',
    'Dunlin;soon;ok;PETG;heavy',
  ].join('\n');
  const send = (id: string, file: string | Buffer, name = 'november.csv') =>
    shop.api
      .put(`/api/print-lists/${id}?name=${name}`)
      .set('Content-Type', 'text/csv')
      .set('Idempotency-Key', newId())
      .send(file);
  const take = async (id: string, match: PrintList['match'], from = 0) =>
    (await shop.api.post(`/api/print-lists/${id}/take`).send({ match, from }).expect(200)).body as ListTaken;
  const preview = async (id: string, match: PrintList['match']) =>
    (await shop.api.post(`/api/print-lists/${id}/preview`).send({ match }).expect(200)).body as ListPreview;

  test('dates that can be read either way are asked about, and nothing is made of them before', async () => {
    const id = newId();
    const file = `${HEAD}\nDunlin;03/04/2026 10:00;ok;PLA;1\nDunlin;04/04/2026 11:00;late;PLA;1`;
    const { match } = (await send(id, file).expect(200)).body as PrintList;
    expect(match).toMatchObject({ dayFirst: null, weightUnit: 'g' });
    const refused = await shop.api.post(`/api/print-lists/${id}/preview`).send({ match }).expect(422);
    expect(refused.body.error.fields).toHaveProperty(['match.dayFirst']);
    await shop.api.get(`/api/print-lists/${id}/bad`).expect(422);
    const seen = await preview(id, { ...match, dayFirst: false });
    expect(new Date(seen.first[0]!.endedAt).getUTCMonth()).toBe(2);
    expect((await shop.api.get(`/api/print-lists/${id}/bad`).expect(200)).text).toContain('late');
  });

  test('is matched, shown before it is taken, taken once, its bad lines kept and put right', async () => {
    const id = newId();
    const list = (await send(id, FILE).expect(200)).body as PrintList;
    expect(list).toMatchObject({
      lines: 5,
      waiting: 5,
      match: { columns: { machine: 0, ended: 1, held: 2, material: 3, grams: 4 } },
    });
    const seen = await preview(id, list.match);
    expect(seen).toMatchObject({ good: 3, known: 0, badCount: 2, strangers: [{ name: 'Nobody', lines: 1 }] });
    expect(seen.bad[1]).toMatchObject({
      line: 6,
      faults: { ended: expect.stringContaining('soon'), grams: expect.stringContaining('heavy') },
    });
    expect((await prints()).items).toEqual([]);
    expect(await take(id, list.match)).toEqual({ taken: 3, known: 0, bad: 2, next: null });
    expect((await prints()).items).toHaveLength(3);

    // The same file again, by the same id or as another list: nothing doubles.
    await send(id, FILE).expect(200);
    const again = newId();
    await send(again, FILE).expect(200);
    expect(await preview(again, list.match)).toMatchObject({ good: 0, known: 3, badCount: 2 });
    expect(await take(again, list.match)).toMatchObject({ taken: 0, known: 3 });

    await shop.api
      .put(`/api/print-lists/${id}/lines/6`)
      .send({ cells: ['Dunlin', '24.11.2026 16:00', 'ok', 'PETG', '3'] })
      .expect(200);
    expect(await take(id, list.match)).toMatchObject({ taken: 1, bad: 1 });
    const bad = await shop.api
      .get(`/api/print-lists/${id}/bad`)
      .expect(200)
      .expect('Content-Type', /text\/csv/);
    expect(bad.text).toContain('“Nobody” is no machine of this shop.');
    expect((await shop.api.get('/api/print-lists').expect(200)).body.items).toHaveLength(2);
    await shop.api.post(`/api/print-lists/${id}/drop`).send({}).expect(200);
    expect((await shop.api.get('/api/print-lists').expect(200)).body.items).toHaveLength(1);
    expect((await prints()).items).toHaveLength(4);
  });

  test('prints that were tapped or posted before are known by machine and time; alike lines are two prints', async () => {
    await log(newId(), { endedAt: Date.UTC(2026, 10, 24, 10) }).expect(200);
    const id = newId();
    const twice = 'Dunlin;24.11.2026 12:00;ok;PLA;5';
    const list = (await send(id, [HEAD, 'Dunlin;24.11.2026 10:00;ok;PLA;5', twice, twice].join('\n')).expect(200)).body;
    expect(await take(id, list.match)).toEqual({ taken: 2, known: 1, bad: 0, next: null });
  });

  test('columns that are needed must be named', async () => {
    const id = newId();
    const list = (await send(id, FILE).expect(200)).body as PrintList;
    const { machine, ...columns } = list.match.columns;
    const { body } = await shop.api
      .post(`/api/print-lists/${id}/preview`)
      .send({ match: { ...list.match, columns } })
      .expect(422);
    expect(body.error.fields).toHaveProperty(['match.columns.machine']);
  });

  test.each([
    ['', 'no line under the heads'],
    ['a,b', 'no line under the heads'],
    ['a,b\0\n1,2', 'no text file'],
    ['a,b\n"1,2\n', 'quotation mark'],
  ])('%j is no list', async (file, message) => {
    const { body } = await send(newId(), Buffer.from(file || ' ')).expect(422);
    expect(body.error.message).toContain(message);
  });

  test('200,000 lines are read, shown and taken part by part', async () => {
    const lines = Array.from({ length: 200_000 }, (_, i) => {
      const at = new Date(Date.UTC(2020, 0, 1) + i * 60_000).toISOString();
      return i % 1000 === 7 ? `Dunlin,${at},perhaps` : `Dunlin,${at},ok`;
    });
    const id = newId();
    const list = (await send(id, `printer,finished,result\n${lines.join('\n')}`).expect(200)).body as PrintList;
    expect(list.lines).toBe(200_000);
    const seen = await preview(id, list.match);
    expect(seen).toMatchObject({ good: 199_800, known: 0, badCount: 200 });
    let sum = 0;
    let parts = 0;
    for (let from: number | null = 0; from !== null && parts < 15; parts++) {
      const part: ListTaken = await take(id, list.match, from);
      sum += part.taken;
      from = part.next;
    }
    // 15 parts of 400 lines, in which every 1,000th was refused.
    expect(sum).toBe(15 * 400 - 6);
  });

  test('one line too many is refused in words', async () => {
    const { body } = await send(newId(), `a,b\n${'1,2\n'.repeat(250_001)}`).expect(422);
    expect(body.error.message).toContain('250,000 lines');
  });
});
