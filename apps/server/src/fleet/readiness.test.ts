import type { MachineOverview } from '@even-bed/contract';
import { facts, newId, NOW, openShop, sheet, type Shop } from '../app/shop.fixture';

const HOUR = 3_600_000;
let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const machine = async (id = shop.machineId) =>
  (await shop.api.get(`/api/machines/${id}`).expect(200)).body as MachineOverview;
const codes = async (id = shop.machineId) => (await machine(id)).readiness.against.map(({ code }) => code);
const kindOf = async (group: string) => {
  const { body } = await shop.api.get('/api/surface-kinds').expect(200);
  return (body.items as { id: string; group: string }[]).find((kind) => kind.group === group)!.id;
};
async function laid(group: string, tag: string, machineId = shop.machineId): Promise<string> {
  const id = newId();
  await shop.api
    .put(`/api/surfaces/${id}`)
    .send(sheet({ tag, kindId: await kindOf(group) }))
    .expect(200);
  await shop.api
    .post(`/api/machines/${machineId}/mount`)
    .send({
      ...{ surfaceId: id, sideUp: 'A', turned: 0, answers: ['clean-dry', 'size', 'heat', 'front-mark'] },
      ...{ from: null, replaces: null, at: ++shop.clock.now },
    })
    .expect(200);
  return id;
}
const happens = (surfaceId: string, event: object) =>
  shop.api.post(`/api/surfaces/${surfaceId}/events`).send({ ...event, at: ++shop.clock.now });
const print = (held: boolean, endedAt: number, id = newId()) =>
  shop.api.put(`/api/prints/${id}`).send({
    ...{ machineId: shop.machineId, material: 'PLA', endedAt, duration: null, grams: null, held },
    ...{ failure: held ? null : 'let-go', release: null, note: '' },
  });

test('what the records hold stands against printing, the same in the list and on the page', async () => {
  expect(await machine()).toMatchObject({ readiness: { state: 'ready', against: [] } });
  const top = await laid('sheet', 'S-001');
  expect(await codes()).toEqual([]);
  await happens(top, { kind: 'work-asked', what: 'sand, both sides' }).expect(200);
  expect((await machine()).readiness).toEqual({
    state: 'look',
    against: [{ code: 'asked', tag: 'S-001', what: 'sand, both sides' }],
  });
  await happens(top, { kind: 'held', hold: 'dry', until: shop.clock.now + HOUR, reason: 'washed' }).expect(200);
  expect(await codes()).toEqual(['held', 'asked']);
  const { body } = await shop.api.get('/api/machines').expect(200);
  expect((body.items as MachineOverview[])[0]!.readiness).toEqual((await machine()).readiness);
  shop.clock.now += 2 * HOUR;
  expect(await codes()).toEqual(['asked']);
  await happens(top, { kind: 'work-done', work: 'scrubbed', side: null, note: '' }).expect(200);
  await happens(top, { kind: 'taken-off', place: 'Rack 1' }).expect(200);
  expect((await machine()).readiness.state).toBe('not');
  expect(await codes()).toEqual(['bare']);
});

test('five of the last twenty, or three in a row; a print that is withdrawn no longer counts', async () => {
  for (let i = 0; i < 20; i++) await print(i % 5 !== 0, NOW - (40 - i) * HOUR).expect(200);
  expect(await codes()).toEqual([]);
  const [last, before] = [newId(), newId()];
  await print(false, NOW - 2 * HOUR, before).expect(200);
  await print(false, NOW - HOUR, last).expect(200);
  expect((await machine()).readiness.against).toEqual([{ code: 'failing', failed: 5, of: 20 }]);
  for (const id of [last, before]) await shop.api.post(`/api/prints/${id}/withdraw`).send({}).expect(200);
  expect(await codes()).toEqual([]);
  for (const hours of [3, 2, 1]) await print(false, NOW - hours * HOUR).expect(200);
  expect(await codes()).toEqual(['failing']);
});

test('on a resin machine a bare platform is printed on; its zero stands until something between home and film changes', async () => {
  const id = newId();
  const area = (await shop.api.get('/api/areas').expect(200)).body.items[0].id as string;
  const resin = facts(area, { name: 'Stilt', family: 'resin', adjusters: [] });
  await shop.api
    .put(`/api/machines/${id}`)
    .send({ ...resin, version: 0, at: NOW })
    .expect(200);
  expect((await machine(id)).readiness).toEqual({ state: 'look', against: [{ code: 'zero', state: 'never' }] });
  await laid('platform', 'P-001', id);
  await shop.api.put(`/api/z-marks/${newId()}`).send({ machineId: id, kind: 'zero', at: ++shop.clock.now }).expect(200);
  expect((await machine(id)).readiness.state).toBe('ready');
  await shop.api.put(`/api/z-marks/${newId()}`).send({ machineId: id, kind: 'home', at: ++shop.clock.now }).expect(200);
  expect((await machine(id)).readiness).toEqual({ state: 'not', against: [{ code: 'zero', state: 'expired' }] });
});

test('work on a platform that left a machine before its zero was set is nothing to that zero, whatever other machines did', async () => {
  const area = (await shop.api.get('/api/areas').expect(200)).body.items[0].id as string;
  const [one, other] = [newId(), newId()];
  for (const [id, name] of [
    [one, 'Stilt'],
    [other, 'Knot'],
  ] as const)
    await shop.api
      .put(`/api/machines/${id}`)
      .send({ ...facts(area, { name, family: 'resin', adjusters: [] }), version: 0, at: NOW })
      .expect(200);
  const zero = (machineId: string) =>
    shop.api.put(`/api/z-marks/${newId()}`).send({ machineId, kind: 'zero', at: ++shop.clock.now }).expect(200);
  // The other machine's zero is older: all that came since then is looked through.
  await zero(other);
  const platform = await laid('platform', 'P-001', one);
  await happens(platform, { kind: 'taken-off', place: 'Rack 1' }).expect(200);
  await laid('platform', 'P-002', one);
  await zero(one);
  await happens(platform, { kind: 'work-done', work: 'other', side: null, note: 'lapped' }).expect(200);
  const { body } = await shop.api.get('/api/machines').expect(200);
  const listed = (body.items as MachineOverview[]).find(({ id }) => id === one)!;
  expect(listed.readiness).toEqual({ state: 'ready', against: [] });
  expect((await shop.api.get(`/api/machines/${one}/zero`).expect(200)).body.stands.state).toBe('stands');
});
