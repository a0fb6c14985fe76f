import net from 'node:net';
import type { Scan } from '@even-bed/contract';
import { CORE_VERSION, spreadOf } from '@even-bed/core';
import { facts, newId, NOW, openShop, round, type Shop } from '../app/shop.fixture';
import { HiddenBed, type BedNature } from './simulated/hiddenBed';
import { SimulatedMachine, type SimulatedMachineParts } from './simulated/SimulatedMachine';
import type { MapLayout } from './simulated/printMap';

const nature: BedNature = {
  seed: 'test',
  tilt: { right: 0.2, rear: -0.1 },
  dome: 0.03,
  twist: 0.01,
  bump: null,
  noise: 0.003,
  warmUp: 0.03,
};
const { adjusters } = facts('');
const frame = { adjusters, seenFrom: 'above' as const, width: 225, depth: 225 };
const parts = (more: Partial<SimulatedMachineParts> = {}): SimulatedMachineParts => ({
  name: 'Dunlin',
  nature,
  frame,
  layout: 'labelled',
  plus: 'higher',
  columns: 5,
  rows: 5,
  paceMs: 0,
  ...more,
});

let machine: SimulatedMachine | null = null;
let shop: Shop;
afterEach(async () => {
  await machine?.close();
  machine = null;
  await shop?.close();
});

async function shopWith(simulated: SimulatedMachine): Promise<Shop> {
  machine = simulated;
  const port = await simulated.listen(0);
  return openShop({ console: consoleAt(port) });
}
const consoleAt = (port: number) => ({
  host: '127.0.0.1',
  port,
  simulated: true,
  scanCommand: 'G29',
  bedTemperature: 60,
});

async function scan(): Promise<Scan> {
  const id = newId();
  await shop.api.put(`/api/machines/${shop.machineId}/scans/${id}`).send({}).expect(202);
  return ended(id);
}

async function ended(id: string): Promise<Scan> {
  for (let i = 0; i < 400; i++) {
    const { body } = await shop.api.get(`/api/scans/${id}`).expect(200);
    if (body.state !== 'running') return body as Scan;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('the scan never ended');
}

describe('levelling a simulated machine', () => {
  test.each<[MapLayout, 'higher' | 'lower']>([
    ['labelled', 'higher'],
    ['positions', 'lower'],
    ['indexed', 'higher'],
    ['bare', 'higher'],
  ])('over several rounds the range falls (%s, + %s)', async (layout, plus) => {
    shop = await shopWith(new SimulatedMachine(parts({ layout, plus })));
    const check = `/api/level-checks/${newId()}`;
    await shop.api.put(check).send(shop.start()).expect(200);
    const ranges: number[] = [];
    for (let seq = 1; seq <= 3; seq++) {
      const result = await scan();
      expect(result).toMatchObject({ state: 'done', taken: 25, expected: 25, message: null });
      const place =
        layout === 'labelled' || layout === 'positions'
          ? {}
          : {
              extent: { x0: 15, y0: 15, x1: 210, y1: 210 },
              firstRow: layout === 'indexed' ? ('rear' as const) : ('front' as const),
            };
      const roundId = newId();
      const { body } = await shop.api
        .put(`${check}/rounds/${roundId}`)
        .send(round(seq, { source: 'machine', raw: result.text, reading: { plus, ...place } }))
        .expect(200);
      const { plan, coreVersion, points } = body.roundList[seq - 1];
      expect([coreVersion, points]).toEqual([CORE_VERSION, 25]);
      ranges.push(plan.before.range);
      const turns = plan.turns.map(({ id, said }: { id: string; said: number }) => ({ adjusterId: id, turns: said }));
      await shop.api.put(`${check}/rounds/${roundId}/turns`).send({ madeAt: NOW, turns }).expect(200);
    }
    expect(ranges[0]).toBeGreaterThan(0.4);
    expect(ranges[1]).toBeLessThan(0.12);
    expect(ranges[2]).toBeLessThan(0.1);
  });

  test('turns are told once, however often they are told', () => {
    const bed = new HiddenBed({ ...nature, noise: 0 }, frame);
    const before = bed.trueHeight(200, 200);
    expect(bed.turn('rr', 1, 'token')).toBe(true);
    const after = bed.trueHeight(200, 200);
    expect(bed.turn('rr', 1, 'token')).toBe(true);
    expect(bed.trueHeight(200, 200)).toBe(after);
    expect(after).toBeLessThan(before - 0.3);
    expect(bed.turn('nobody', 1, 'other')).toBe(false);
  });

  test('a cold bed domes more than a warm one, and a probe has noise', () => {
    const bed = new HiddenBed(nature, frame);
    const cold = bed.trueHeight(112.5, 112.5);
    bed.heat(600);
    expect(cold - bed.trueHeight(112.5, 112.5)).toBeCloseTo(0.03, 2);
    const readings = Array.from({ length: 200 }, () => bed.read(50, 50));
    expect(spreadOf(readings).rms).toBeGreaterThan(0.002);
    expect(spreadOf(readings).rms).toBeLessThan(0.004);
  });
});

describe('a machine that makes trouble', () => {
  test('takes the call and says nothing', async () => {
    shop = await shopWith(new SimulatedMachine(parts({ mute: true })));
    expect(await scan()).toMatchObject({
      state: 'failed',
      message: "Dunlin doesn't answer; check its power and cable.",
    });
  });

  test('is not there at all', async () => {
    shop = await openShop({ console: consoleAt(1) });
    expect(await scan()).toMatchObject({
      state: 'failed',
      message: "Dunlin doesn't answer; check its power and cable.",
    });
  });

  test.each([
    [
      'answers with an error',
      'error: probe failed\n',
      'Dunlin says: “error: probe failed”. Look at the machine, then scan again.',
    ],
    ['answers without end', 'x'.repeat(30_000), 'Dunlin answers, but not like a console. Check its address and port.'],
    ['hangs up', null, "Dunlin doesn't answer; check its power and cable."],
  ])('%s', async (_, answer, message) => {
    const server = net.createServer((socket) => {
      socket.on('error', () => undefined);
      socket.on('data', () => (answer === null ? socket.destroy() : socket.write(answer)));
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    shop = await openShop({ console: { ...consoleAt((server.address() as net.AddressInfo).port), simulated: false } });
    expect(await scan()).toMatchObject({ state: 'failed', message });
    await new Promise((resolve) => server.close(resolve));
  });

  test('outside of the shop’s networks is never called', async () => {
    shop = await openShop({ console: { ...consoleAt(7), host: '203.0.113.9', simulated: false } });
    expect(await scan()).toMatchObject({
      state: 'failed',
      message: expect.stringContaining('203.0.113.9 is not in the shop’s networks'),
    });
  });

  test('is a lead’s to set: a technician changes all else of a machine', async () => {
    shop = await openShop({ console: consoleAt(7) });
    const technician = await shop.signedIn('technician', 'Otto');
    const address = `/api/machines/${shop.machineId}`;
    const { version } = (await shop.api.get(address).expect(200)).body as { version: number };
    const write = (console: unknown) => ({
      ...facts(shop.areaId, { console: console as never, note: 'belt is new' }),
      ...{ version, at: NOW },
    });
    for (const console of [null, { ...consoleAt(7), port: 22 }, { ...consoleAt(7), scanCommand: 'M112' }]) {
      const { body } = await technician.put(address).send(write(console)).expect(403);
      expect(body.error.fields.console).toMatch(/^Only a lead/);
    }
    await technician
      .put(address)
      .send(write(consoleAt(7)))
      .expect(200);
    const fresh = facts(shop.areaId, { name: 'Knot' });
    await technician
      .put(`/api/machines/${newId()}`)
      .send({ ...fresh, console: consoleAt(7), version: 0, at: NOW })
      .expect(403);
    await technician
      .put(`/api/machines/${newId()}`)
      .send({ ...fresh, version: 0, at: NOW })
      .expect(200);
  });

  test('may print a large map in one go', async () => {
    const line = (i: number) => `bed at X:${10 + 5 * (i % 40)} Y:${10 + 5 * Math.floor(i / 40)} Z:+0.012`;
    const map = Array.from({ length: 1600 }, (_, i) => line(i)).join('\n');
    const server = net.createServer((socket) => {
      socket.on('error', () => undefined);
      // Nothing of the test may keep the process, also when it fails.
      socket.unref();
      socket.on('data', (command) => socket.write(command.toString().startsWith('G29') ? `${map}\nok\n` : 'ok\n'));
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    shop = await openShop({
      console: { ...consoleAt((server.address() as net.AddressInfo).port), simulated: false },
    });
    const result = await scan();
    expect(result.state).toBe('done');
    expect(result.text.split('\n')).toHaveLength(1600);
    server.close();
  });

  test('can be stopped, one scan at a time, and the same id starts nothing new', async () => {
    shop = await shopWith(new SimulatedMachine(parts({ paceMs: 20 })));
    const id = newId();
    const start = (which: string) => shop.api.put(`/api/machines/${shop.machineId}/scans/${which}`).send({});
    await start(id).expect(202);
    await start(id).expect(202);
    expect((await start(newId()).expect(409)).body.error.code).toBe('scan-running');
    await shop.api.post(`/api/scans/${id}/stop`).send({}).expect(200);
    expect(await ended(id)).toMatchObject({ state: 'stopped', message: expect.stringContaining('Stopped') });
    await shop.api.post(`/api/scans/${newId()}/stop`).send({}).expect(404);
    await shop.api.get(`/api/scans/${newId()}/events`).expect(404);
  });

  test('streams its progress until the end', async () => {
    shop = await shopWith(new SimulatedMachine(parts({ paceMs: 2 })));
    const id = newId();
    await shop.api.put(`/api/machines/${shop.machineId}/scans/${id}`).send({}).expect(202);
    const { text } = await shop.api
      .get(`/api/scans/${id}/events`)
      .buffer(true)
      .parse((response, done) => {
        let all = '';
        response.on('data', (chunk: Buffer) => (all += chunk.toString()));
        response.on('end', () => done(null, all));
      })
      .then((response) => ({ text: response.body as string }));
    const scans = text
      .split('\n\n')
      .filter((block) => block.startsWith('data: '))
      .map((block) => JSON.parse(block.slice(6)) as Scan);
    expect(scans.at(-1)).toMatchObject({ state: 'done', taken: 25 });
    expect(scans.some(({ state, taken }) => state === 'running' && taken > 0 && taken < 25)).toBe(true);
  });

  test('without a console address says so', async () => {
    shop = await openShop();
    const answer = await shop.api.put(`/api/machines/${shop.machineId}/scans/${newId()}`).send({}).expect(422);
    expect(answer.body.error.code).toBe('no-console');
  });
});
