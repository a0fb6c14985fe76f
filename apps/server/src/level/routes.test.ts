import { endHeavy } from '../kernel/heavy';
import { plainAdjuster } from '@even-bed/core/level/plainAdjuster';
import { facts, newId, NOW, openShop, round, TILTED, type Shop } from '../app/shop.fixture';

let shop: Shop;
let check: string;
beforeEach(async () => {
  shop = await openShop();
  check = `/api/level-checks/${newId()}`;
});
afterEach(() => shop.close());
afterAll(endHeavy);

const begin = () => shop.api.put(check).send(shop.start());
const read = (id: string, seq: number, more = {}) => shop.api.put(`${check}/rounds/${id}`).send(round(seq, more));
const DAY = 86_400_000;
const end = (outcome: string, at = NOW + 9 * 60_000) =>
  shop.api.put(`${check}/end`).send({ endedAt: at, outcome, note: '' });

describe('a level check', () => {
  test('keeps raw readings, plans the turns, notes what was made, and moves the next date', async () => {
    const rule = newId();
    await shop.api
      .put(`/api/rules/${rule}`)
      .send({ machineId: shop.machineId, kind: 'level', everyDays: 14, version: 0, at: NOW })
      .expect(200);
    await begin().expect(200);
    const roundId = newId();
    const { body: planned } = await read(roundId, 1).expect(200);
    expect(planned).toMatchObject({ machineName: 'Dunlin', rounds: 1, outcome: null });
    expect(planned.roundList[0]).toMatchObject({ raw: TILTED, points: 5, coreVersion: '1', madeAt: null });
    expect(planned.roundList[0].plan.before.range).toBeCloseTo(0.3, 9);
    expect(planned.roundList[0].plan.verdict).toBe('reaches');

    const turns = planned.roundList[0].plan.turns.map(({ id, said }: { id: string; said: number }) => ({
      adjusterId: id,
      turns: said,
    }));
    await shop.api
      .put(`${check}/rounds/${roundId}/turns`)
      .send({ madeAt: NOW + 120_000, turns })
      .expect(200);
    await read(newId(), 2, { raw: 'x,y,z\n15,15,0.01\n210,15,0\n15,210,0.02\n210,210,0' }).expect(200);
    const { body: done } = await end('finished').expect(200);
    expect(done).toMatchObject({ outcome: 'finished', rounds: 2, after: 0.02 });
    expect(done.before).toBeCloseTo(0.3, 9);

    const { body: machine } = await shop.api.get(`/api/machines/${shop.machineId}`).expect(200);
    expect(machine.lastCheck).toMatchObject({ after: 0.02, withinAim: true });
    expect(machine.rule.nextDueAt).toBe(NOW + 9 * 60_000 + 14 * DAY);
    const { body: book } = await shop.api.get('/api/book').expect(200);
    expect(book.items.map(({ kind }: { kind: string }) => kind)).toEqual([
      'check-finished',
      'heights-read',
      'turns-made',
      'heights-read',
      'check-started',
      'rule-set',
      'machine-added',
      'area-added',
      'person-added',
    ]);
    expect(book.items[0].text).toBe(
      'Dunlin: level check finished, range 0.30 mm to 0.02 mm over 2 readings, within the aim of 0.10 mm.',
    );
    expect(book.items[2].text).toMatch(
      /^Dunlin: turned front-right .* clockwise, rear-left .* anticlockwise, looking down\.$/,
    );
  });

  test('every step sent twice changes nothing', async () => {
    const roundId = newId();
    const turns = () =>
      shop.api
        .put(`${check}/rounds/${roundId}/turns`)
        .send({ madeAt: NOW, turns: [{ adjusterId: 'fl', turns: 0.25 }] });
    for (const send of [begin, () => read(roundId, 1), turns, () => end('finished')]) {
      const first = await send().expect(200);
      expect((await send().expect(200)).body).toEqual(first.body);
    }
    expect(await shop.db('book').where('kind', 'like', 'check-%')).toHaveLength(2);
    expect(await shop.db('made_turns')).toHaveLength(1);
  });

  test('the same ids with other content are refused', async () => {
    const roundId = newId();
    await begin().expect(200);
    await shop.api
      .put(check)
      .send({ ...shop.start(), startedAt: NOW + 5 })
      .expect(409);
    await read(roundId, 1).expect(200);
    await read(roundId, 1, { raw: `${TILTED}\n5,5,1` }).expect(409);
    await shop.api.put(`${check}/rounds/${roundId}/turns`).send({ madeAt: NOW, turns: [] }).expect(200);
    await shop.api
      .put(`${check}/rounds/${roundId}/turns`)
      .send({ madeAt: NOW, turns: [{ adjusterId: 'fl', turns: 1 }] })
      .expect(409);
    await end('dropped').expect(200);
    await end('finished').expect(409);
  });

  test.each<[string, object, number, string]>([
    ['text without heights', { raw: 'ok' }, 422, 'no-heights'],
    ['a map without its place', { raw: '1 2 3\n4 5 6\n7 8 8' }, 422, 'not-valid'],
    ['readings in one line', { raw: 'x,y,z\n0,0,1\n100,0,2\n200,0,1' }, 422, 'degenerate-input'],
    ['a round out of order', { seq: 3 }, 409, 'out-of-order'],
    ['no text', { raw: '' }, 422, 'not-valid'],
  ])('%s is refused and leaves nothing', async (_, more, status, code) => {
    await begin().expect(200);
    const answer = await read(newId(), 1, more).expect(status);
    expect(answer.body.error.code).toBe(code);
    expect(await shop.db('level_rounds')).toEqual([]);
    expect(await shop.db('book').where({ kind: 'heights-read' })).toEqual([]);
  });

  test('no reading, no finish; a strange adjuster, no turns; nothing after the end', async () => {
    await begin().expect(200);
    expect((await end('finished').expect(422)).body.error.code).toBe('no-reading');
    const roundId = newId();
    await read(roundId, 1).expect(200);
    const strange = await shop.api
      .put(`${check}/rounds/${roundId}/turns`)
      .send({ madeAt: NOW, turns: [{ adjusterId: 'x', turns: 1 }] })
      .expect(422);
    expect(strange.body.error.fields).toEqual({ 'turns.0.adjusterId': 'This machine has no such adjuster.' });
    await shop.api.put(`${check}/rounds/${newId()}/turns`).send({ madeAt: NOW, turns: [] }).expect(404);
    await end('dropped').expect(200);
    await read(newId(), 2).expect(409);
  });

  test('is full after so many readings, or so much text; what it holds stays, and looking back leaves long texts alone', async () => {
    await begin().expect(200);
    const long = `${TILTED}${'\n'.repeat(990_000)}`;
    for (let seq = 1; seq <= 4; seq++) await read(newId(), seq, { raw: long }).expect(200);
    const full = await read(newId(), 5, { raw: long }).expect(422);
    expect(full.body.error.fields.raw).toContain('This check is full');
    await end('finished').expect(200);
    check = `/api/level-checks/${newId()}`;
    await begin().expect(200);
    for (let seq = 1; seq <= 60; seq++) await read(newId(), seq).expect(200);
    await read(newId(), 61).expect(422);
    await end('finished').expect(200);
    for (const what of ['adjusters', 'maps', 'levels'])
      await shop.api.get(`/api/machines/${shop.machineId}/${what}`).expect(200);
    expect((await shop.api.get(`/api/machines/${shop.machineId}/maps`)).body.items).toHaveLength(24);
  }, 60_000);

  test('unknown machines and checks', async () => {
    await shop.api
      .put(check)
      .send({ ...shop.start(), machineId: newId() })
      .expect(404);
    await shop.api.get(check).expect(404);
    await read(newId(), 1).expect(404);
    await end('dropped').expect(404);
  });

  test('lists by machine and state, page by page', async () => {
    for (let i = 0; i < 5; i++) {
      check = `/api/level-checks/${newId()}`;
      await shop.api
        .put(check)
        .send({ ...shop.start(), startedAt: NOW + i })
        .expect(200);
      if (i < 3) await end('dropped').expect(200);
    }
    const list = (query: string) => shop.api.get(`/api/level-checks?${query}`).expect(200);
    expect((await list('state=open')).body.items).toHaveLength(2);
    expect((await list('state=ended')).body.items).toHaveLength(3);
    const first = (await list(`machineId=${shop.machineId}&limit=3`)).body;
    expect(first.items.map(({ startedAt }: { startedAt: number }) => startedAt - NOW)).toEqual([4, 3, 2]);
    expect((await list(`limit=3&after=${first.next}`)).body).toMatchObject({
      items: [{ startedAt: NOW + 1 }, { startedAt: NOW }],
      next: null,
    });
  });
});

describe('the book', () => {
  test('is append-only in the database itself', async () => {
    // The driver's errors come from another realm than the test's, so they are matched by their message.
    const refusal = { message: expect.stringContaining('append-only') as string };
    await expect(shop.db('book').update({ text: 'changed' })).rejects.toMatchObject(refusal);
    await expect(shop.db('book').delete()).rejects.toMatchObject(refusal);
  });

  test('is searched by the beginnings of words, by machine, kind and time, page by page', async () => {
    await begin().expect(200);
    await read(newId(), 1).expect(200);
    const find = async (query: string) => (await shop.api.get(`/api/book?${query}`).expect(200)).body;
    expect((await find('search=dunl rea')).items).toHaveLength(1);
    expect((await find('search=DUNLIN begun')).items).toHaveLength(1);
    expect((await find('search=whimbrel')).items).toEqual([]);
    expect((await find(`search=${encodeURIComponent('"*) OR ("')}`)).items).toEqual([]);
    expect((await find('search=%22%27%2A')).items).toHaveLength(5);
    expect((await find('kind=heights-read')).items).toHaveLength(1);
    expect((await find(`from=${NOW + 1}`)).items).toHaveLength(1);
    const page = await find('limit=3');
    expect(page.items).toHaveLength(3);
    expect((await find(`limit=3&after=${page.next}`)).items).toHaveLength(2);
  });
});

test('a bed on motors: its check, its moves and its line in the book are in millimetres', async () => {
  const machine = newId();
  const motors = facts('').adjusters.map((one) => ({ ...one, thread: 'motor' }));
  await shop.api
    .put(`/api/machines/${machine}`)
    .send({ ...facts(shop.areaId, { name: 'Ruff', adjusters: motors, seenFrom: 'below' }), version: 0, at: NOW })
    .expect(200);
  const id = `/api/level-checks/${newId()}`;
  const setup = { ...shop.start().setup, adjusters: motors.map(plainAdjuster), seenFrom: 'below' };
  await shop.api
    .put(id)
    .send({ ...shop.start(), machineId: machine, setup })
    .expect(200);
  const roundId = newId();
  const { body } = await shop.api.put(`${id}/rounds/${roundId}`).send(round(1)).expect(200);
  const [first] = body.roundList[0].plan.turns as { id: string; said: number; saidRise: number }[];
  expect(first!.said).toBe(first!.saidRise);
  await shop.api
    .put(`${id}/rounds/${roundId}/turns`)
    .send({ madeAt: NOW, turns: [{ adjusterId: first!.id, turns: 0.12 }] })
    .expect(200);
  const { body: book } = await shop.api.get('/api/book').expect(200);
  expect(book.items[0].text).toBe('Ruff: moved front-left up by 0.12 mm.');
});
