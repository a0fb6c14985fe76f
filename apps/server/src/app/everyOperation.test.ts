import { DEFAULT_SETTINGS } from '@even-bed/contract';
import { PROCEDURES, beginRun, type RunSetup } from '@even-bed/core';
import { doneWell } from '@even-bed/core/care/workWell.fixture';
import sharp from 'sharp';
import type { Response } from 'supertest';
import { SimulatedMachine } from '../machines/simulated/SimulatedMachine';
import { answered } from './describedAnswers.fixture';
import { routes } from './routes';
import { facts, newId, NOW, openShop, round, sheet, TEXTURED, type Shop } from './shop.fixture';

/** A machine whose console answers, so that scans run. */
const machine = new SimulatedMachine({
  name: 'Dunlin',
  nature: {
    seed: 'all',
    tilt: { right: 0.2, rear: -0.1 },
    dome: 0.03,
    twist: 0,
    bump: null,
    noise: 0.003,
    warmUp: 0,
  },
  frame: { adjusters: facts('').adjusters, seenFrom: 'above', width: 225, depth: 225 },
  layout: 'labelled',
  plus: 'higher',
  columns: 3,
  rows: 3,
  paceMs: 0,
});

let shop: Shop;
beforeAll(async () => {
  const port = await machine.listen(0);
  const console = { host: '127.0.0.1', port, simulated: true, scanCommand: 'G29', bedTemperature: 0 };
  shop = await openShop({ console });
});
afterAll(async () => {
  await shop.close();
  await machine.close();
});

type Params = Record<string, string>;

/** Does an operation by its id, and expects what its definition says of success. */
async function does(
  id: string,
  params: Params = {},
  {
    query = {},
    body = {},
    file,
  }: { query?: object; body?: object; file?: { type: string; bytes: Buffer | string } } = {},
): Promise<Response['body']> {
  const route = routes.find((one) => one.id === id)!;
  const address = route.path.replace(/:(\w+)/g, (_, name: string) => params[name]!);
  const request = shop.api[route.method](`/api${address}`).query(query);
  if (file) void request.set('Content-Type', file.type).set('Idempotency-Key', newId());
  if (id === 'followBook' || id === 'followScan')
    void request.buffer(true).parse((response, done) => {
      (response as unknown as { destroy: () => void }).destroy();
      done(null, {});
    });
  const answer = await (route.method === 'get' ? request : request.send(file ? file.bytes : body));
  if (answer.status !== (route.status ?? 200))
    throw new Error(`${id} answered ${answer.status}: ${JSON.stringify(answer.body)}`);
  // A device keeps what everybody who is signed in may see, and nothing else.
  const forAll = route.access === 'looker' || route.access === 'anyone';
  const kept = route.method === 'get' && forAll && !route.personal && !route.fresh;
  expect([id, answer.headers['x-keep']]).toEqual([id, kept ? 'yes' : undefined]);
  return answer.body as Response['body'];
}

test('every operation answers well, and as its description says', async () => {
  const { machineId, areaId } = shop;
  await does('session');
  await does('areas');
  await does('saveArea', { id: areaId }, { body: { name: 'Long Room', position: 1, version: 1, at: NOW } });
  await does('machines');
  const known = (await does('machine', { id: machineId })) as Record<string, unknown>;
  expect(known['name']).toBe('Dunlin');
  await does('saveMachine', { id: newId() }, { body: { ...facts(areaId, { name: 'Knot' }), version: 0, at: NOW } });
  await does('learned', { id: machineId });
  const rule = { machineId, kind: 'level', everyDays: 14, version: 0, at: NOW };
  await does('saveRule', { id: newId() }, { body: rule });

  const check = newId();
  const reading = newId();
  await does('startCheck', { id: check }, { body: shop.start() });
  await does('saveRound', { id: check, roundId: reading }, { body: round(1) });
  const turned = { madeAt: NOW + 90_000, turns: [{ adjusterId: 'fl', turns: 0.25 }] };
  await does('saveTurns', { id: check, roundId: reading }, { body: turned });
  await does('check', { id: check });
  await does('endCheck', { id: check }, { body: { endedAt: NOW + 120_000, outcome: 'finished', note: '' } });
  await does('checks', {}, { query: { machineId, state: 'ended' } });

  const note = newId();
  await does('keepLevelNote', { id: note }, { body: { machineId, at: NOW, raw: { way: 'film' } } });
  await does('levelNotes', {}, { query: { machineId } });
  const shape = newId();
  const stretches = [{ from: 0.1, to: 0.9, light: 'clear', feeler: 0.1 }];
  const lines = ['across-front', 'across-rear', 'diagonal-1', 'diagonal-2', 'along-left', 'along-right'].map(
    (line, i) => ({
      id: line,
      stretches: i < 4 ? stretches : [],
    }),
  );
  const light = { kind: 'light', plate: { width: 235, depth: 235 }, lines, aim: null };
  await does('keepShape', { id: shape }, { body: { machineId, surfaceId: null, at: NOW, raw: light } });
  await does('shapes', {}, { query: { machineId } });
  await does('withdrawShape', { id: shape }, { body: { at: NOW } });
  await does('maps', { id: machineId });
  const gauge = newId();
  const blue = { name: 'Blue card', kind: 'card', caliper: { pieces: 10, reading: 2.1 }, layers: 1, at: NOW };
  await does('keepGauge', { id: gauge }, { body: blue });
  await does('gauges');
  await does('withdrawGauge', { id: gauge }, { body: { at: NOW } });
  const practice = { at: NOW, lesson: 'tilt', seed: 2, acts: [{ do: 'map' }, { do: 'caliper' }], said: 'nothing' };
  await does('keepPractice', { id: newId() }, { body: practice });
  const mark = newId();
  await does('keepZMark', { id: mark }, { body: { machineId, kind: 'zero', at: NOW } });
  await does('zero', { id: machineId });
  await does('levels', { id: machineId });
  await does('withdrawLevelNote', { id: note }, { body: { at: NOW } });
  await does('withdrawZMark', { id: mark }, { body: { at: NOW } });

  const scan = newId();
  await does('startScan', { machineId, id: scan });
  await does('scan', { id: scan });
  await does('followScan', { id: scan });
  await does('stopScan', { id: scan });

  await does('kinds');
  const kind = {
    ...{ name: 'Satin', group: 'sheet', thickness: 0.5, limit: 110, directional: false, material: null },
    ...{ sides: ['satin'], faces: [null], life: null, care: {}, note: '', version: 0, at: NOW },
  };
  await does('saveKind', { id: newId() }, { body: kind });
  const id = newId();
  await does('saveSurface', { id }, { body: sheet({ tag: 'S-001', place: 'Rack 1' }) });
  await does('surface', { id });
  await does('surfaces', {}, { query: { search: 's-0', kindId: TEXTURED } });
  await does('places');
  await does('tag', { tag: 'S-001' });
  await does('moveMany', {}, { body: { ids: [id], place: 'Rack 2', at: NOW } });
  await does('mountCheck', { id: machineId }, { query: { surfaceId: id } });
  const mounting = {
    surfaceId: id,
    sideUp: 'A',
    turned: 0,
    answers: ['clean-dry', 'front-mark'],
    from: null,
    replaces: null,
  };
  await does('mount', { id: machineId }, { body: { ...mounting, at: NOW } });
  await does('stack', { id: machineId });
  await does('saveStack', { id: machineId }, { body: { layers: [], version: 0, at: NOW } });
  await does(
    'keepOffset',
    { id: newId() },
    { body: { machineId, surfaceId: id, offset: -1.2, weight: 1, note: '', at: NOW } },
  );
  const offsets = (await does('offsets', {}, { query: { machineId } })) as { items: { id: string }[] };
  await does('offsetPrediction', {}, { query: { machineId, surfaceId: id } });
  await does('withdrawOffset', { id: offsets.items[0]!.id });
  await does('labels', {}, { query: { sheet: 'a4-70x37', tags: 'S-001' } });
  await does('surfaceEvent', { id }, { body: { kind: 'taken-off', at: NOW, place: 'Rack 1' } });
  await does('retireSurface', { id }, { body: { kind: 'retired', at: NOW, why: 'bent' } });
  await does('bringSurfaceBack', { id }, { body: { kind: 'brought-back', at: NOW, why: 'straight', place: '' } });

  const print = newId();
  const logged = { machineId, material: 'PLA', endedAt: NOW, held: false, failure: 'let-go' };
  await does('logPrint', { id: print }, { body: logged });
  await does('addPrints', {}, { body: { prints: [{ ...logged, id: newId(), held: true, failure: null }] } });
  await does('describePrint', { id: print }, { body: { places: ['front-left'], note: 'Draught', at: NOW } });
  await does('print', { id: print });
  await does('prints', {}, { query: { search: 'pla' } });
  await does('withdrawPrint', { id: print });
  const list = newId();
  const csv = 'machine,ended,held\nDunlin,2026-11-20 10:00,yes\nDunlin,never,yes\n';
  await does('sendList', { id: list }, { query: { name: 'March.csv' }, file: { type: 'text/csv', bytes: csv } });
  const { match } = (await does('printList', { id: list })) as { match: object };
  await does('printLists');
  await does('previewList', { id: list }, { body: { match } });
  await does('takeList', { id: list }, { body: { match, from: 0 } });
  await does('badLines', { id: list });
  await does('fixLine', { id: list, line: '3' }, { body: { cells: ['Dunlin', '2026-11-21 10:00', 'yes'] } });
  await does('dropList', { id: list });

  const seen = { surfaceId: id, machineId: null, card: 'coat', code: 'faded', numbers: {}, note: '', at: NOW };
  await does('inspect', { id: newId() }, { body: seen });
  await does('inspections', {}, { query: { surfaceId: id } });
  const photo = newId();
  const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888888' } })
    .png()
    .toBuffer();
  await does('sendPhoto', { id: photo }, { query: { surfaceId: id, at: NOW }, file: { type: 'image/png', bytes } });
  await does('photos', {}, { query: { surfaceId: id } });
  await does('photoFile', { id: photo }, { query: { size: 'small' } });

  const doc = PROCEDURES.find((one) => one.id === 'under-bed-check')!;
  const choices = Object.fromEntries(doc.choices.map(({ id: choice, usual }) => [choice, usual]));
  await does('procedures');
  await does('procedure', { procedure: doc.id });
  const ours = newId();
  const own = { ...doc, id: ours };
  await does('saveProcedure', { procedure: ours }, { body: { doc: own, basedOn: doc.id, version: 0, at: NOW } });
  const job = newId();
  const begun = { procedureId: doc.id, version: 0, machineId, choices, parts: {}, at: NOW };
  await does('startJob', { id: job }, { body: begun });
  const setup: RunSetup = { procedure: doc, choices, startedAt: NOW };
  const event = doneWell(setup, beginRun(setup));
  shop.clock.now = Math.max(shop.clock.now, event.at);
  await does('takeJobOn', { id: job, eventId: newId() }, { body: { event } });
  await does('job', { id: job });
  await does('jobs', {}, { query: { open: true } });
  await does('taught', { id: machineId });

  const plan = newId();
  const size = {
    ...{ plate: { width: 235, depth: 235 }, print: { x: 5, y: 5, width: 225, depth: 225 } },
    ...{ piece: { width: 230, depth: 230 }, notches: [], keepOuts: [] },
  };
  await does('keepPlan', { id: plan }, { body: { machineId, tool: 'size', title: 'A pane', input: size, at: NOW } });
  await does('plan', { id: plan });
  await does('plans', {}, { query: { machineId } });
  await does('withdrawPlan', { id: plan }, { body: { at: NOW } });
  const blanks = {
    ...{ sheet: { width: 600, depth: 400 }, pieces: [{ name: '', width: 230, depth: 230, count: 2, corners: 0 }] },
    ...{ kerf: 2, trim: 5, method: 'saw', mayRotate: true, sheets: 1 },
  };
  await does('blanksPdf', {}, { body: { input: blanks, paper: 'a4' } });

  const book = (await does('book', {}, { query: { limit: 200 } })) as { items: { id: string }[] };
  await does('entry', { id: book.items[0]!.id });
  await does('correct', {}, { body: { corrects: book.items[0]!.id, text: 'Otherwise.', at: NOW } });
  await does('checkBook');
  await does('followBook');

  await does('settings');
  await does('saveSettings', {}, { body: { ...DEFAULT_SETTINGS, units: 'in', at: NOW } });
  await does('book', {}, { query: { limit: 200 } });
  await does('reach');
  await does('lastBackup');
  await does('exportShop');
  await does('listAsCsv', { list: 'surfaces' });

  await does('people');
  const person = newId();
  const write = {
    name: 'Wren Hollis',
    role: 'technician',
    active: true,
    secret: 'a quiet morning',
    version: 0,
    at: NOW,
  };
  await does('savePerson', { id: person }, { body: write });
  await does('unlockPerson', { id: person });
  const token = newId();
  await does('makeMachineToken', { machineId, id: token }, { body: { name: 'console', at: NOW } });
  await does('machineTokens', { machineId });
  await does('revokeToken', { id: token });
  await does('makeProgramToken', { id: newId() }, { body: { name: 'display', at: NOW } });
  await does('programTokens');
  const { items } = (await does('sessions')) as { items: { id: string; current: boolean }[] };
  await does('changeSecret', {}, { body: { current: shop.lead.secret, secret: 'another evening' } });
  await does('lock');
  await does('signIn', {}, { body: { name: shop.lead.name, secret: 'another evening', shared: false } });
  await does('endSession', { id: items[0]!.id });
  await does('signOut');

  // Only an empty shop takes its first account, which the fixture has made, or an import, which has tests of its own.
  const elsewhere = ['importShop'];
  expect(routes.map(({ id: one }) => one).filter((one) => !answered.has(one) && !elsewhere.includes(one))).toEqual([]);
});
