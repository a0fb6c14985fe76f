import type { HeightSource, MachineLearned } from '@even-bed/contract';
import { stiffBed } from '@even-bed/core/level/stiffBed';
import { facts, newId, NOW, openShop, round, type Shop } from '../app/shop.fixture';

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const { adjusters } = facts('');
const bed = stiffBed(adjusters);
const PLACES = [0, 70, 140, 210].flatMap((y) => [0, 70, 140, 210].map((x) => ({ x, y })));
const textOf = ({ a, b }: { a: number; b: number }) =>
  ['x,y,z', ...PLACES.map(({ x, y }) => `${x},${y},${(a * x + b * y).toFixed(4)}`)].join('\n');
const learned = async () =>
  (await shop.api.get(`/api/machines/${shop.machineId}/adjusters`).expect(200)).body as MachineLearned;

/** A check in which each turn moves the bed as its screw really does; the first one by so much of what its thread says. */
async function check(share: number, source: HeightSource = 'pasted'): Promise<void> {
  const address = `/api/level-checks/${newId()}`;
  await shop.api.put(address).send(shop.start()).expect(200);
  let plane = { a: 0.0008, b: -0.0004 };
  for (let seq = 1; seq <= 4; seq++) {
    const id = newId();
    await shop.api
      .put(`${address}/rounds/${id}`)
      .send(round(seq, { raw: textOf(plane), source }))
      .expect(200);
    if (seq === 4) break;
    const { teach } = await learned();
    const turns = adjusters.map(({ id: adjusterId }, i) => ({
      adjusterId,
      turns: seq === 1 ? (i < 2 ? 0.75 : 0) : seq === 2 ? (i > 1 ? 0.75 : 0) : i === 0 ? -0.75 : 0,
    }));
    expect(teach.length).toBeGreaterThan(0);
    await shop.api
      .put(`${address}/rounds/${id}/turns`)
      .send({ madeAt: NOW, turns: turns.filter((one) => one.turns !== 0) })
      .expect(200);
    const move = bed(
      adjusters.map(
        ({ pitch, clockwise }, i) =>
          turns[i]!.turns * pitch * (clockwise === 'raises' ? 1 : -1) * (i === 0 ? share : 1),
      ),
    );
    plane = { a: plane.a + move.a, b: plane.b + move.b };
  }
  await shop.api
    .put(`${address}/end`)
    .send({ endedAt: NOW + 1, outcome: 'finished', note: '' })
    .expect(200);
}

test('nothing is known of a machine that was never turned', async () => {
  const { rounds, adjusters: all, teach } = await learned();
  expect([rounds, all.map(({ way }) => way), teach.length]).toEqual([0, adjusters.map(() => null), 2]);
  await shop.api.get(`/api/machines/${newId()}/adjusters`).expect(404);
});

test('a sense that is written down the wrong way round comes out, and is learned anew once it is put right', async () => {
  await check(-1);
  const { rounds, adjusters: all } = await learned();
  expect(rounds).toBe(3);
  expect(all.map(({ way }) => way)).toEqual(['reversed', ...adjusters.slice(1).map(() => 'as-said')]);
  const { body: machine } = await shop.api.get(`/api/machines/${shop.machineId}`).expect(200);
  const turned = machine.adjusters.map((one: { clockwise: string }, i: number) =>
    i === 0 ? { ...one, clockwise: one.clockwise === 'raises' ? 'lowers' : 'raises' } : one,
  );
  await shop.api
    .put(`/api/machines/${shop.machineId}`)
    .send({ ...facts(shop.areaId), adjusters: turned, version: machine.version, at: NOW })
    .expect(200);
  expect((await learned()).rounds).toBe(0);
});

test('another thread comes out with its share; what was felt teaches nothing of turns', async () => {
  await check(0.7, 'felt');
  expect((await learned()).rounds).toBe(0);
  await check(0.7);
  const [first] = (await learned()).adjusters;
  expect(first).toMatchObject({ way: 'other-thread' });
  expect(first!.share).toBeCloseTo(0.7, 1);
});

/** A level by paper in which the first screw was turned and turned, and its place stayed as it was. */
async function feltCheck(history: string[]): Promise<void> {
  const address = `/api/level-checks/${newId()}`;
  await shop.api.put(address).send(shop.start()).expect(200);
  const raw = [
    '# felt with 0.100 mm, uncertain by 0.003',
    ...history.map((event) => `# ${event}`),
    textOf({ a: 0, b: 0 }),
  ].join('\n');
  await shop.api
    .put(`${address}/rounds/${newId()}`)
    .send(round(1, { raw, source: 'felt' }))
    .expect(200);
  await shop.api
    .put(`${address}/end`)
    .send({ endedAt: NOW + 1, outcome: 'finished', note: '' })
    .expect(200);
}

test('a level by paper teaches too: jammed, lowered, jammed, and free when it is raised is the other way round', async () => {
  const [first] = adjusters;
  await feltCheck([
    `feel ${first!.id} jammed`,
    `turn ${first!.id} 0.75`,
    `feel ${first!.id} jammed`,
    `turn ${first!.id} 0.5`,
    `feel ${first!.id} jammed`,
    `turn ${first!.id} -1.25`,
    `feel ${first!.id} tight`,
    `turn ${first!.id} -0.5`,
    `feel ${first!.id} free`,
  ]);
  const { rounds, felt, adjusters: all } = await learned();
  expect([rounds, felt]).toEqual([0, 1]);
  expect(all[0]!.likely.reversed).toBeGreaterThan(0.8);
});

test('what was learned is set back, and taken back it stands again; a check that went by it teaches by what is written down', async () => {
  await check(0.7);
  const before = await learned();
  expect(before).toMatchObject({ rounds: 3, since: null });
  const id = newId();
  const mark = { machineId: shop.machineId, kind: 'learn-anew', at: NOW + 10 };
  await shop.api.put(`/api/z-marks/${id}`).send(mark).expect(200);
  expect(await learned()).toMatchObject({ rounds: 0, felt: 0, since: NOW + 10 });
  await shop.api
    .post(`/api/z-marks/${id}/withdraw`)
    .send({ at: NOW + 20 })
    .expect(200);
  expect(await learned()).toEqual(before);
  // Taken by what it does: its check still belongs to what is written down.
  const said = shop.start().setup.adjusters;
  const taken = said.map((one, i) => (i === 0 ? { ...one, pitch: one.pitch * 0.7 } : one));
  const address = `/api/level-checks/${newId()}`;
  await shop.api
    .put(address)
    .send({ ...shop.start(), setup: { ...shop.start().setup, adjusters: taken, said } })
    .expect(200);
  for (const seq of [1, 2]) {
    const roundId = newId();
    await shop.api
      .put(`${address}/rounds/${roundId}`)
      .send(round(seq, { raw: textOf({ a: 0.001 * seq, b: 0 }) }))
      .expect(200);
    if (seq === 1)
      await shop.api
        .put(`${address}/rounds/${roundId}/turns`)
        .send({ madeAt: NOW, turns: [{ adjusterId: said[1]!.id, turns: 0.5 }] })
        .expect(200);
  }
  await shop.api
    .put(`${address}/end`)
    .send({ endedAt: NOW + 2, outcome: 'finished', note: '' })
    .expect(200);
  expect((await learned()).rounds).toBe(4);
});
