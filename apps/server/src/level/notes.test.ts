import type { Job, LevelNote, MachineLevels, MachineZero, ShopGauge } from '@even-bed/contract';
import { PROCEDURES, replayRun, type RunEvent } from '@even-bed/core';
import { doneWell, usualChoices } from '@even-bed/core/care/workWell.fixture';
import { CORNERS } from '@even-bed/core/level/tugs';
import { facts, newId, NOW, openShop, round, sheet, type Shop } from '../app/shop.fixture';

const MINUTE = 60_000;
const DAY = 1440 * MINUTE;

let shop: Shop;
let resin: string;
beforeEach(async () => {
  shop = await openShop();
  resin = newId();
  await shop.api
    .put(`/api/machines/${resin}`)
    .send({ ...facts(shop.areaId, { name: 'Stilt', family: 'resin', adjusters: [] }), version: 0, at: NOW })
    .expect(200);
});
afterEach(() => shop.close());

const alike = Object.fromEntries(CORNERS.map((corner) => [corner, 'comes with effort']));
const quarters = { way: 'quarters', tugs: alike, drag: 'firm', ten: '1,02' };
const keep = (id: string, raw: object, more = {}) =>
  shop.api.put(`/api/level-notes/${id}`).send({ machineId: resin, at: NOW, raw, ...more });
const notes = async () =>
  (await shop.api.get('/api/level-notes').query({ machineId: resin }).expect(200)).body.items as LevelNote[];
const zero = async () => (await shop.api.get(`/api/machines/${resin}/zero`).expect(200)).body as MachineZero;
const levels = async (id = resin) =>
  (await shop.api.get(`/api/machines/${id}/levels`).expect(200)).body as MachineLevels;
const mark = (kind: string, at: number, id = newId()) =>
  shop.api.put(`/api/z-marks/${id}`).send({ machineId: resin, kind, at }).expect(200);
const book = async () =>
  ((await shop.api.get('/api/book').expect(200)).body.items as { text: string }[]).map(({ text }) => text);

describe('a level by hand', () => {
  test('is kept raw, worked out anew, written once, and taken back', async () => {
    const id = newId();
    await keep(id, quarters).expect(200);
    await keep(id, quarters).expect(200);
    expect(await notes()).toMatchObject([
      {
        id,
        way: 'quarters',
        raw: { ...quarters, ten: 1.02 },
        result: { verdict: 'even', range: { least: 0, most: 0.03 } },
      },
    ]);
    expect((await book())[0]).toBe('Stilt: levelled by four quarter sheets, even, apart by 0.03 mm at most.');
    await keep(id, { way: 'film' }).expect(409);
    const back = () => shop.api.post(`/api/level-notes/${id}/withdraw`).send({ at: NOW + 1 });
    await back().expect(200);
    await back().expect(200);
    expect(await notes()).toEqual([]);
    expect((await book()).filter((text) => text.includes('taken back'))).toHaveLength(1);
    await shop.api.post(`/api/level-notes/${newId()}/withdraw`).send({ at: NOW }).expect(404);
  });

  test('a skirt is worked out from every look; what can’t be is refused at its field', async () => {
    const looks = { front: 'gaps', right: 'touching', rear: 'touching', left: 'touching' };
    const raw = {
      way: 'skirt',
      adjusters: facts('').adjusters.map(({ id, x, y, pitch, clockwise }) => ({ id, x, y, pitch, clockwise })),
      print: { x: 5, y: 5, width: 225, depth: 225 },
      rounds: [{ looks, made: null }],
    };
    const id = newId();
    await keep(id, raw, { machineId: shop.machineId }).expect(200);
    const [note] = (await shop.api.get('/api/level-notes').expect(200)).body.items as LevelNote[];
    expect(note).toMatchObject({ way: 'skirt', result: { verdict: 'uneven', next: { skirt: { do: 'turn' } } } });
    const inLine = raw.adjusters.map((one) => ({ ...one, y: 10 }));
    const refused = await keep(newId(), { ...raw, adjusters: inLine }, { machineId: shop.machineId }).expect(422);
    expect(refused.body.error.fields.raw).toMatch(/one spot/);
  });

  test.each([
    ['nothing', {}],
    ['another way', { way: 'by-eye' }],
    ['a tug that is none', { ...quarters, tugs: { ...alike, 'rear-left': 'soft' } }],
    ['a corner less', { ...quarters, tugs: { 'rear-left': 'tears' } }],
    ['a field of another way', { way: 'film', tugs: alike }],
    ['a caliper of nothing', { ...quarters, ten: 0 }],
    ['hostile text', { ...quarters, drag: '<script>' }],
  ])('refuses %s and writes nothing', async (_, raw) => {
    const { body } = await keep(newId(), raw).expect(422);
    expect(Object.keys(body.error.fields)[0]).toMatch(/^raw/);
    expect(await notes()).toEqual([]);
  });

  test('refuses a machine that is not here', async () => {
    await keep(newId(), quarters, { machineId: newId() }).expect(422);
    await shop.api.put(`/api/z-marks/${newId()}`).send({ machineId: newId(), kind: 'zero', at: NOW }).expect(422);
    await shop.api.get(`/api/machines/${newId()}/zero`).expect(404);
    await shop.api.get(`/api/machines/${newId()}/levels`).expect(404);
  });
});

describe('home and zero are two facts', () => {
  const film = async (tag: string) => {
    const kinds = (await shop.api.get('/api/surface-kinds').expect(200)).body.items as { id: string; group: string }[];
    const id = newId();
    const kindId = kinds.find(({ group }) => group === 'film')!.id;
    await shop.api.put(`/api/surfaces/${id}`).send(sheet({ tag, kindId })).expect(200);
    return id;
  };
  const layOn = async (surfaceId: string, at: number, replaces: string | null = null) => {
    shop.clock.now = Math.max(shop.clock.now, at);
    await shop.api
      .post(`/api/machines/${resin}/mount`)
      .send({
        ...{ surfaceId, sideUp: 'A', turned: 0, answers: ['clean-dry', 'size', 'heat', 'front-mark'], from: null, at },
        replaces: replaces && { surfaceId: replaces, place: '' },
      })
      .expect(200);
  };

  test('zero stands until the film changes, and again once it is set', async () => {
    expect(await zero()).toEqual({ home: null, zero: null, stands: { state: 'never', since: [] } });
    const old = await film('F-001');
    await layOn(old, NOW);
    await mark('zero', NOW + MINUTE);
    expect((await zero()).stands.state).toBe('stands');
    await layOn(await film('F-002'), NOW + 2 * MINUTE, old);
    const after = await zero();
    expect(after.stands).toEqual({ state: 'expired', since: [{ why: 'film', at: NOW + 2 * MINUTE }] });
    await mark('zero', NOW + 3 * MINUTE);
    expect((await zero()).stands.state).toBe('stands');
  });

  test('levelled again, home moved or the stack changed: expired, each by its name; undone it stands', async () => {
    await mark('zero', NOW);
    const id = newId();
    await keep(id, quarters, { at: NOW + MINUTE }).expect(200);
    const home = newId();
    await mark('home', NOW + 2 * MINUTE, home);
    await shop.api
      .put(`/api/machines/${resin}/stack`)
      .send({
        layers: [{ name: 'pad', under: 'base', thickness: 1, measured: true, limit: null }],
        version: 0,
        at: NOW + 3 * MINUTE,
      })
      .expect(200);
    expect((await zero()).stands.since.map(({ why }) => why)).toEqual(['screws', 'home', 'stack']);
    await shop.api
      .post(`/api/level-notes/${id}/withdraw`)
      .send({ at: NOW + 4 * MINUTE })
      .expect(200);
    await shop.api
      .post(`/api/z-marks/${home}/withdraw`)
      .send({ at: NOW + 4 * MINUTE })
      .expect(200);
    const left = await zero();
    expect(left.home).toBeNull();
    expect(left.stands.since.map(({ why }) => why)).toEqual(['stack']);
  });

  test('the same mark twice is one; another of the same id is refused', async () => {
    const id = newId();
    await mark('zero', NOW, id);
    await mark('zero', NOW, id);
    await shop.api.put(`/api/z-marks/${id}`).send({ machineId: resin, kind: 'home', at: NOW }).expect(409);
    expect((await book()).filter((text) => text === 'Stilt: zero was set.')).toHaveLength(1);
  });
});

describe('the job that levels a platform', () => {
  const doc = PROCEDURES.find(({ id }) => id === 'level-resin')!;
  const setup = { procedure: doc, choices: usualChoices(doc), startedAt: NOW };
  async function work(jobId: string): Promise<Job> {
    for (;;) {
      const job = (await shop.api.get(`/api/jobs/${jobId}`).expect(200)).body as Job;
      const state = replayRun(setup, job.events);
      if (state.at === null) return job;
      const event: RunEvent = doneWell(setup, state);
      shop.clock.now = Math.max(shop.clock.now, event.at);
      await shop.api.put(`/api/jobs/${jobId}/events/${newId()}`).send({ event }).expect(200);
    }
  }

  test('keeps its tugs raw as a level and sets zero; its last step undone takes both back', async () => {
    const jobId = newId();
    const begun = {
      procedureId: 'level-resin',
      version: 0,
      machineId: resin,
      choices: setup.choices,
      parts: {},
      at: NOW,
    };
    await shop.api.put(`/api/jobs/${jobId}`).send(begun).expect(200);
    const job = await work(jobId);
    expect(await notes()).toMatchObject([
      { way: 'quarters', jobId, raw: { tugs: alike }, result: { verdict: 'even' } },
    ]);
    expect((await zero()).stands.state).toBe('stands');
    // The key that its screws took stays with the machine.
    const key = async () =>
      (await shop.api.get(`/api/machines/${resin}`).expect(200)).body.platformKey as number | null;
    expect(await key()).toBe(15.25);
    const last = job.events.at(-1)!;
    const undone = { kind: 'undone', stepId: 'asked', at: last.at + MINUTE };
    await shop.api.put(`/api/jobs/${jobId}/events/${newId()}`).send({ event: undone }).expect(200);
    expect(await notes()).toEqual([]);
    expect(await zero()).toMatchObject({ zero: null, stands: { state: 'never' } });
    // Somebody has put the key right meanwhile: undone to before it was read, theirs stays.
    const { body: now } = await shop.api.get(`/api/machines/${resin}`).expect(200);
    await shop.api
      .put(`/api/machines/${resin}`)
      .send({
        ...facts(shop.areaId, { name: 'Stilt', family: 'resin', adjusters: [], platformKey: 5 }),
        ...{ version: now.version, at: NOW, tag: now.tag },
      })
      .expect(200);
    for (let at = last.at + 2 * MINUTE; ; at += MINUTE) {
      const one = (await shop.api.get(`/api/jobs/${jobId}`).expect(200)).body as Job;
      const state = replayRun(setup, one.events);
      if (state.at === 'loosen') break;
      const event = { kind: 'undone', stepId: state.at!, at };
      await shop.api.put(`/api/jobs/${jobId}/events/${newId()}`).send({ event }).expect(200);
    }
    expect(await key()).toBe(5);
  });
});

describe('a level over time', () => {
  test('checks and levels by hand in one line, each with what is known of it', async () => {
    const check = newId();
    await shop.api.put(`/api/level-checks/${check}`).send(shop.start()).expect(200);
    const raw = 'x,y,z\n15,15,0.01\n15,15,0.03\n210,15,0\n15,210,0.02\n210,210,0';
    await shop.api.put(`/api/level-checks/${check}/rounds/${newId()}`).send(round(1, { raw })).expect(200);
    await shop.api
      .put(`/api/level-checks/${check}/end`)
      .send({ endedAt: NOW + MINUTE, outcome: 'finished', note: '' })
      .expect(200);
    const film = newId();
    await keep(film, { way: 'film' }, { machineId: shop.machineId, at: NOW + DAY }).expect(200);
    const { items } = await levels(shop.machineId);
    expect(items).toMatchObject([
      { id: film, kind: 'note', way: 'film', least: null, most: null, verdict: 'unproven' },
      { id: check, kind: 'check', way: 'probe', verdict: 'even' },
    ]);
    // A repeat that differs by 0.02 scatters by 0.0141.
    expect(items[1]!.most! - items[1]!.least!).toBeGreaterThan(0.04);
  });

  test('a print forced off and two failures alike ask to look again; before that nothing does', async () => {
    await keep(newId(), quarters).expect(200);
    const print = (more: object) =>
      shop.api
        .put(`/api/prints/${newId()}`)
        .send({ machineId: resin, material: 'resin', endedAt: NOW + DAY, held: true, failure: null, ...more })
        .expect(200);
    shop.clock.now = NOW + 2 * DAY;
    expect((await levels()).again).toEqual({ reasons: [], next: null, more: 3 });
    await print({ release: 'forced' });
    await print({ held: false, failure: 'let-go' });
    expect((await levels()).again.reasons.map(({ why }) => why)).toEqual(['forced-off']);
    await print({ held: false, failure: 'let-go', endedAt: NOW + DAY + MINUTE });
    expect((await levels()).again.reasons.map(({ why }) => why)).toEqual(['forced-off', 'failures']);
  });

  test('that a print was forced off is known from a tap on the piece it stood on, while that lay on the machine', async () => {
    await keep(newId(), quarters).expect(200);
    const kinds = (await shop.api.get('/api/surface-kinds').expect(200)).body.items as { id: string; group: string }[];
    const platform = newId();
    const kindId = kinds.find(({ group }) => group === 'platform')!.id;
    await shop.api
      .put(`/api/surfaces/${platform}`)
      .send(sheet({ tag: 'P-001', kindId }))
      .expect(200);
    const tap = (at: number) =>
      shop.api
        .put(`/api/inspections/${newId()}`)
        .send({ surfaceId: platform, machineId: null, card: 'release', code: 'force', numbers: {}, note: '', at })
        .expect(200);
    shop.clock.now = NOW + 2 * DAY;
    // In the rack it moves no level.
    await tap(NOW + DAY);
    const reasons = async () => (await levels()).again.reasons.map(({ why }) => why);
    expect(await reasons()).toEqual([]);
    await shop.api
      .post(`/api/machines/${resin}/mount`)
      .send({
        ...{ surfaceId: platform, sideUp: 'A', turned: 0, from: null, replaces: null },
        answers: ['clean-dry', 'size', 'heat', 'front-mark'],
        at: NOW + DAY + MINUTE,
      })
      .expect(200);
    await tap(NOW + DAY + 2 * MINUTE);
    expect(await reasons()).toContain('forced-off');
  });
});

describe('the register of gauges', () => {
  const blue = { name: 'Blue card', kind: 'card', caliper: { pieces: 10, reading: '2,1' }, layers: 2, at: NOW };
  const gauges = async () => (await shop.api.get('/api/gauges').expect(200)).body.items as ShopGauge[];
  test('keeps what calipers said, raw; the same again is one; let go of it is gone', async () => {
    const id = newId();
    const put = (body: object) => shop.api.put(`/api/gauges/${id}`).send(body);
    await put(blue).expect(200);
    await put(blue).expect(200);
    expect(await gauges()).toMatchObject([{ id, name: 'Blue card', caliper: { pieces: 10, reading: 2.1 }, layers: 2 }]);
    // Ten are 2.1: one is 0.21, folded 0.42, known to some hundredths.
    expect((await book())[0]).toMatch(/^Gauge Blue card: 0\.42 mm, give or take 0\.00\d mm\.$/);
    await put({ ...blue, layers: 3 }).expect(409);
    await shop.api.post(`/api/gauges/${id}/withdraw`).send({ at: NOW }).expect(200);
    expect(await gauges()).toEqual([]);
    await shop.api.post(`/api/gauges/${newId()}/withdraw`).send({ at: NOW }).expect(404);
  });
  test.each([
    ['no name', { ...blue, name: '' }],
    ['no piece', { ...blue, caliper: { pieces: 0, reading: 1 } }],
    ['half a layer', { ...blue, layers: 0.5 }],
    ['a kind that is none', { ...blue, kind: 'cloth' }],
    ['words for a reading', { ...blue, caliper: { pieces: 10, reading: 'thin' } }],
  ])('refuses %s', async (_, body) => {
    await shop.api.put(`/api/gauges/${newId()}`).send(body).expect(422);
  });
});
