import type { Job, MachineMaps, ShapeRecord } from '@even-bed/contract';
import { PROCEDURES, replayRun, type RunEvent } from '@even-bed/core';
import { doneWell, usualChoices } from '@even-bed/core/care/workWell.fixture';
import { facts, newId, NOW, openShop, round, sheet, type Shop } from '../app/shop.fixture';

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const clear = [{ from: 0.05, to: 0.95, light: 'clear', feeler: '0,1' }];
const lines = ['along-left', 'along-right', 'across-front', 'across-rear', 'diagonal-1', 'diagonal-2'].map((id) => ({
  id,
  stretches: id.startsWith('across') ? [] : clear,
}));
const light = { kind: 'light', plate: { width: 235, depth: 235 }, lines, aim: null };
const keep = (id: string, raw: object, more = {}) =>
  shop.api.put(`/api/shapes/${id}`).send({ machineId: shop.machineId, surfaceId: null, at: NOW, raw, ...more });
const shapes = async (query: object = { machineId: shop.machineId }) =>
  (await shop.api.get('/api/shapes').query(query).expect(200)).body.items as ShapeRecord[];
const book = async () =>
  ((await shop.api.get('/api/book').expect(200)).body.items as { text: string }[]).map(({ text }) => text);

test('a survey is kept raw, worked out anew, written once, and taken back', async () => {
  const id = newId();
  await keep(id, light).expect(200);
  await keep(id, light).expect(200);
  const [first] = await shapes();
  expect(first).toMatchObject({ id, kind: 'light', result: { verdict: 'dish', trust: 'closes', suspects: [] } });
  // A comma is a point.
  expect(first!.raw).toMatchObject({ lines: [{ stretches: [{ feeler: 0.1 }] }, {}, {}, {}, {}, {}] });
  expect((await book())[0]).toMatch(/looked at by light: Lower in the middle, 0\.1\d mm in all\.$/);
  await keep(id, { ...light, aim: 0.5 }).expect(409);
  const back = () => shop.api.post(`/api/shapes/${id}/withdraw`).send({ at: NOW + 1 });
  await back().expect(200);
  await back().expect(200);
  expect(await shapes()).toEqual([]);
  expect((await book()).filter((text) => text.includes('light survey taken back'))).toHaveLength(1);
  await shop.api.post(`/api/shapes/${newId()}/withdraw`).send({ at: NOW }).expect(404);
});

test.each([
  ['no kind', { ...light, kind: 'guess' }],
  ['three lines', { ...light, lines: lines.slice(0, 3) }],
  ['a line twice', { ...light, lines: [...lines.slice(0, 5), lines[0]] }],
  [
    'light beyond the line',
    { ...light, lines: [{ ...lines[0]!, stretches: [{ ...clear[0], to: 1.5 }] }, ...lines.slice(1)] },
  ],
  [
    'light that ends before it begins',
    { ...light, lines: [{ ...lines[0]!, stretches: [{ ...clear[0], from: 0.9, to: 0.1 }] }, ...lines.slice(1)] },
  ],
  ['no rounds', { kind: 'lap', rounds: [], school: 'dry', grit: 120 }],
  ['a grit that is none', { kind: 'lap', rounds: [{ strokes: 20, touched: {} }], school: 'dry', grit: 121 }],
  [
    'a layer without readings',
    {
      kind: 'layer',
      readings: [{ x: 0, y: 0, thickness: [], look: null }],
      map: [],
      nominal: null,
      sign: 'higher',
      compensation: 'on',
    },
  ],
])('what can’t be is refused: %s', async (_, raw) => {
  const { body } = await keep(newId(), raw).expect(({ status }) => [400, 422].includes(status));
  expect(body.error.fields).toBeDefined();
  expect(await shapes()).toEqual([]);
});

test('it is of a machine or of a surface that is there', async () => {
  await keep(newId(), light, { machineId: null }).expect(422);
  await keep(newId(), light, { machineId: newId() }).expect(422);
  await keep(newId(), light, { surfaceId: newId() }).expect(422);
});

test('maps stand with the sheet that lay on the bed then', async () => {
  const surfaceId = newId();
  await shop.api
    .put(`/api/surfaces/${surfaceId}`)
    .send(sheet({ tag: 'S-001' }))
    .expect(200);
  await shop.api
    .post(`/api/machines/${shop.machineId}/mount`)
    .send({ surfaceId, sideUp: 'A', turned: 90, answers: ['clean-dry'], from: null, replaces: null, at: NOW })
    .expect(200);
  const check = newId();
  await shop.api.put(`/api/level-checks/${check}`).send(shop.start()).expect(200);
  await shop.api.put(`/api/level-checks/${check}/rounds/${newId()}`).send(round(1)).expect(200);
  const { body } = await shop.api.get(`/api/machines/${shop.machineId}/maps`).expect(200);
  const { items, noise } = body as MachineMaps;
  expect(items).toHaveLength(1);
  expect(items[0]!.points.length).toBeGreaterThan(3);
  expect(items[0]!.sheet).toEqual({ id: surfaceId, tag: 'S-001', turned: 90, side: 'A' });
  expect(noise).toBeNull();
  await shop.api.get(`/api/machines/${newId()}/maps`).expect(404);
});

test('rounds of lapping in a job are one record; the last step undone, it is taken back', async () => {
  const resin = newId();
  await shop.api
    .put(`/api/machines/${resin}`)
    .send({ ...facts(shop.areaId, { name: 'Stilt', family: 'resin', adjusters: [] }), version: 0, at: NOW })
    .expect(200);
  const procedure = PROCEDURES.find(({ id }) => id === 'lap-platform')!;
  const id = newId();
  const choices = usualChoices(procedure);
  await shop.api
    .put(`/api/jobs/${id}`)
    .send({
      procedureId: procedure.id,
      version: 0,
      machineId: resin,
      choices,
      parts: {},
      sides: {},
      together: null,
      at: NOW,
    })
    .expect(200);
  const tell = async (make: (state: ReturnType<typeof replayRun>) => RunEvent) => {
    const { body } = await shop.api.get(`/api/jobs/${id}`).expect(200);
    const job = body as Job;
    const setup = { procedure: job.procedure, choices, startedAt: NOW };
    const event = make(replayRun(setup, job.events));
    shop.clock.now = Math.max(shop.clock.now, event.at);
    const answer = await shop.api.put(`/api/jobs/${id}/events/${newId()}`).send({ event });
    expect([event, answer.body]).toEqual([event, expect.not.objectContaining({ error: expect.anything() })]);
  };
  const setupOf = { procedure, choices, startedAt: NOW };
  const shares = [50, 75, 100];
  for (let steps = 0; steps < 40; steps++) {
    const { body } = await shop.api.get(`/api/jobs/${id}`).expect(200);
    if ((body as Job).ended) break;
    await tell((state) => {
      const event = doneWell(setupOf, state);
      if (state.at !== 'look') return event;
      const share = shares.shift()!;
      const readings = Object.fromEntries(Object.keys(event.readings).map((place) => [place, share]));
      return { ...event, readings, answer: share === 100 ? 'done' : 'on' };
    });
  }
  const [first] = await shapes({ machineId: resin });
  expect(first).toMatchObject({ kind: 'lap', jobId: id, result: { verdict: 'done', rounds: 3, touched: 100 } });
  await tell((state) => ({ kind: 'undone', at: shop.clock.now + 1000, stepId: state.trail.at(-1)!.stepId }));
  expect(await shapes({ machineId: resin })).toEqual([]);
});
