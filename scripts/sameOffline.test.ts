// Whatever may wait without a signal gives the same records as if it had been done with one.
import type { Operation } from '@even-bed/contract';
import * as care from '@even-bed/contract/care/operations';
import * as jobs from '@even-bed/contract/care/jobOperations';
import * as fit from '@even-bed/contract/fit/operations';
import * as fleet from '@even-bed/contract/fleet/operations';
import * as notes from '@even-bed/contract/level/noteOperations';
import * as shapes from '@even-bed/contract/level/shapeOperations';
import * as level from '@even-bed/contract/level/operations';
import * as surfaces from '@even-bed/contract/surfaces/operations';
import * as wear from '@even-bed/contract/wear/operations';
import { PROCEDURES, beginRun, type RunSetup } from '@even-bed/core';
import { doneWell } from '@even-bed/core/care/workWell.fixture';
import { sendOne } from '../apps/client/src/offline/sender';
import { waitingFor, type Said, type Waiting } from '../apps/client/src/offline/waiting';
import { newId, NOW, openShop, round, sheet, type Shop } from '../apps/server/src/app/shop.fixture';
import { routes } from '../apps/server/src/app/routes';

const HOUR = 3_600_000;
const TABLES = [care, jobs, fit, fleet, level, notes, shapes, surfaces, wear].flatMap((module) =>
  Object.values(module),
);
const OPERATIONS = Object.fromEntries(
  TABLES.flatMap((table) => Object.values(table as unknown as Record<string, Operation>)).map((one) => [one.id, one]),
);
const mayWait = routes.filter(({ waits }) => waits !== undefined).map(({ id }) => id);

const ids = Object.fromEntries(
  [
    'check',
    'reading',
    'print',
    'offset',
    'inspection',
    'job',
    'step',
    'plan',
    'surface',
    'note',
    'back',
    'zero',
    'home',
    'gauge',
    'card',
    'practice',
    'strips',
    'lap',
  ].map((name) => [name, newId()]),
) as Record<string, string>;
const doc = PROCEDURES.find(({ id }) => id === 'under-bed-check')!;
const choices = Object.fromEntries(doc.choices.map(({ id, usual }) => [id, usual]));
const setup: RunSetup = { procedure: doc, choices, startedAt: NOW };
const stepDone = doneWell(setup, beginRun(setup));
const size = {
  ...{ plate: { width: 235, depth: 235 }, print: { x: 5, y: 5, width: 225, depth: 225 } },
  ...{ piece: { width: 230, depth: 230 }, notches: [], keepOuts: [], pad: null },
};

const corners = [0, 1, 2].flatMap((row) =>
  [0, 1, 2].map((column) => ({ x: 100 * column, y: 100 * row, z: row === 1 ? -0.15 : 0 })),
);
const strips = {
  kind: 'strips',
  map: corners,
  tape: { thickness: 0.075, width: 50 },
  strips: [{ along: 'x', at: 100, from: 0, to: 200, layer: 1 }],
};
const touched = { 'front-left': 40, 'front-right': 30, 'rear-left': 20, 'rear-right': 30, middle: 60 };
const lap = { kind: 'lap', rounds: [{ strokes: 20, touched }], school: 'dry', grit: 120 };
const gauge = { kind: 'card', caliper: { pieces: 10, reading: 2.1 }, layers: 1 };

/** What a round through the shop does that may wait, in its order. */
function done({ machineId, start }: Shop): [id: string, params: Record<string, string>, body: object][] {
  const { check, reading, print, offset, inspection, job, step, plan, surface } = ids as Record<string, string>;
  const id = (value: string | undefined) => ({ id: value! });
  const logged = { machineId, material: 'PLA', endedAt: NOW, duration: 60, grams: 5, held: false, failure: 'let-go' };
  return [
    ['startCheck', id(check), start()],
    ['saveRound', { id: check!, roundId: reading! }, round(1)],
    [
      'saveTurns',
      { id: check!, roundId: reading! },
      { madeAt: NOW + 90_000, turns: [{ adjusterId: 'fl', turns: 0.25 }] },
    ],
    ['endCheck', id(check), { endedAt: NOW + 120_000, outcome: 'finished', note: 'Warm.' }],
    ['logPrint', id(print), { ...logged, release: null, note: '' }],
    ['describePrint', id(print), { places: ['front-left'], note: 'Draught', at: NOW + 3 }],
    ['keepOffset', id(offset), { machineId, surfaceId: surface, offset: -1.2, weight: 1, note: '', at: NOW }],
    [
      'inspect',
      id(inspection),
      { surfaceId: surface, machineId: null, card: 'coat', code: 'faded', numbers: {}, note: '', at: NOW },
    ],
    [
      'startJob',
      id(job),
      { procedureId: doc.id, version: 0, machineId, choices, parts: {}, sides: {}, together: null, at: NOW },
    ],
    ['takeJobOn', { id: job!, eventId: step! }, { event: stepDone }],
    ['keepPlan', id(plan), { machineId, tool: 'size', title: 'A pane', input: size, at: NOW }],
    ['keepLevelNote', id(ids['note']), { machineId, at: NOW, raw: { way: 'film' } }],
    ['keepLevelNote', id(ids['back']), { machineId, at: NOW + 1, raw: { way: 'lock' } }],
    ['withdrawLevelNote', id(ids['back']), { at: NOW + 2 }],
    ['keepZMark', id(ids['zero']), { machineId, kind: 'zero', at: NOW }],
    ['keepZMark', id(ids['home']), { machineId, kind: 'home', at: NOW + 1 }],
    ['withdrawZMark', id(ids['home']), { at: NOW + 2 }],
    ['keepGauge', id(ids['gauge']), { ...gauge, name: 'Blue card', at: NOW }],
    ['keepGauge', id(ids['card']), { ...gauge, name: 'Old card', at: NOW }],
    ['withdrawGauge', id(ids['card']), { at: NOW + 2 }],
    ['keepShape', id(ids['strips']), { machineId, surfaceId: null, at: NOW, raw: strips }],
    ['keepShape', id(ids['lap']), { machineId: null, surfaceId: surface, at: NOW, raw: lap }],
    ['withdrawShape', id(ids['lap']), { at: NOW + 2 }],
    ['keepPractice', id(ids['practice']), { at: NOW, lesson: 'tilt', seed: 2, acts: [{ do: 'map' }], said: 'nothing' }],
  ];
}

/** All that the shop then says, without what tells when the server heard of it. */
async function told(shop: Shop): Promise<unknown> {
  const { machineId } = shop;
  const answers = await Promise.all(
    [
      `/level-checks/${ids['check']}`,
      `/prints/${ids['print']}`,
      `/offsets?machineId=${machineId}`,
      `/inspections?surfaceId=${ids['surface']}`,
      `/jobs/${ids['job']}`,
      `/plans/${ids['plan']}`,
      `/level-notes?machineId=${machineId}`,
      `/machines/${machineId}/zero`,
      `/machines/${machineId}/levels`,
      '/gauges',
      `/surfaces/${ids['surface']}`,
      `/machines/${machineId}`,
      '/book?limit=100',
    ].map(async (path) => [path, (await shop.api.get(`/api${path}`).expect(200)).body as unknown]),
  );
  const text = JSON.stringify(answers, (key, value: unknown) =>
    // A line's id follows from what stands in it, the machine's own id with it.
    ['writtenAt', 'hash', 'beforeHash'].includes(key) ||
    (key === 'id' && typeof value === 'string' && value[14] === '5')
      ? undefined
      : value,
  );
  const named = text
    .replaceAll(machineId, 'the machine')
    .replaceAll(shop.areaId, 'the area')
    .replaceAll(shop.lead.id, 'the lead');
  return JSON.parse(named);
}

async function withSurface(): Promise<Shop> {
  const shop = await openShop();
  await shop.api
    .put(`/api/surfaces/${ids['surface']}`)
    .send(sheet({ tag: 'S-001' }))
    .expect(200);
  return shop;
}

test('every operation that may wait is tried here', async () => {
  const shop = await openShop();
  expect([...new Set(done(shop).map(([id]) => id))].sort()).toEqual([...mayWait].sort());
  await shop.close();
});

test('done without a signal, sent an hour later and twice, it is as if it had been done at once', async () => {
  const [online, offline] = [await withSurface(), await withSurface()];
  for (const shop of [online, offline]) shop.clock.now = stepDone.at;
  for (const [id, params, body] of done(online)) {
    const { method, path } = OPERATIONS[id]!;
    const address = path.replace(/:(\w+)/g, (_, name: string) => params[name]!);
    const answer = await online.api[method](`/api${address}`).send(body);
    expect([id, answer.status, answer.body.error]).toEqual([id, expect.any(Number), undefined]);
  }
  const waiting = done(offline).map(([id, params, body], i): Waiting =>
    waitingFor(OPERATIONS[id] as Operation & { waits: { of: string } }, {
      ...({ params, body } as unknown as Said<Operation & { waits: { of: string } }>),
      key: `${id}-${i}`,
      what: id,
    }),
  );
  // The page is gone in between: what waits comes back as the device kept it.
  const kept = JSON.parse(JSON.stringify(waiting)) as Waiting[];
  offline.clock.now += HOUR;
  const send: typeof fetch = async (address, init) => {
    const { method, headers, body } = init!;
    const answer = await offline.api[method === 'PUT' ? 'put' : 'post'](String(address))
      .set('Idempotency-Key', (headers as Record<string, string>)['Idempotency-Key']!)
      .send(JSON.parse(String(body)) as object);
    return new Response(JSON.stringify(answer.body), { status: answer.status });
  };
  for (const one of kept)
    for (let times = 0; times < 2; times++)
      expect([one.operation, await sendOne(one, send)]).toEqual([one.operation, { kind: 'sent' }]);
  online.clock.now += HOUR;
  expect(await told(offline)).toEqual(await told(online));
  await Promise.all([online.close(), offline.close()]);
});
