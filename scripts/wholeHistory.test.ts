// The whole way: two devices as the app makes them (its list of what waits, its sender, its jobs), the real server, and all
// that can go wrong between them.
import type { Job, JobEventWrite } from '@even-bed/contract';
import { jobOperations } from '@even-bed/contract/care/jobOperations';
import { wearOperations } from '@even-bed/contract/wear/operations';
import { PROCEDURES, replaySurface, type RunEvent, type SurfaceEvent } from '@even-bed/core';
import { cardEvents, cardOf, undoEvents } from '@even-bed/core/care/runCard';
import type { RunSetup, RunState } from '@even-bed/core/care/runProcedure';
import { doneWell, filledWell } from '@even-bed/core/care/workWell.fixture';
import { seededRandom } from '@even-bed/core/level/seededMap.fixture';
import {
  eventsIn,
  jobBegun,
  jobEventSent,
  jobForgotten,
  jobSeen,
  jobsSlice,
  localEvents,
  setupOf,
  stateOf,
} from '../apps/client/src/care/jobsSlice';
import { KeepingDevice } from '../apps/client/src/offline/device.fixture';
import { sendOne } from '../apps/client/src/offline/sender';
import { waitingFor, type Waiting } from '../apps/client/src/offline/waiting';
import { facts, newId, NOW, openShop, sheet, type Shop } from '../apps/server/src/app/shop.fixture';
import { verifyBook } from '../apps/server/src/book/store';
import { LIMITS } from '../apps/server/src/kernel/limits';
import { stateOf as surfaceStateOf, type SurfaceRow } from '../apps/server/src/surfaces/rows';

/** `HISTORIES=2000 npx jest --selectProjects house wholeHistory` for the long run. */
const HISTORIES = Number(process.env['HISTORIES'] ?? 60);
const STEPS = 45;

let shop: Shop;
beforeAll(async () => {
  // Histories follow each other faster than any two hands.
  Object.assign(LIMITS.paceKnown, { burst: 1e9, perSecond: 1e9 });
  shop = await openShop();
});
afterAll(() => shop.close());

/** What lies between the devices and the server. */
class Line {
  signal = true;
  /** How many more answers are lost on their way, failures of the server, and sends that arrive twice. */
  lost = 0;
  failing = 0;
  doubled = 0;
  readonly acknowledged = new Set<string>();

  readonly fetch: typeof fetch = async (address, init) => {
    if (!this.signal) throw new TypeError('no signal');
    if (this.failing > 0) {
      this.failing--;
      return new Response('{}', { status: 500 });
    }
    const { method, headers, body } = init!;
    const key = (headers as Record<string, string>)['Idempotency-Key']!;
    const send = () =>
      shop.api[method === 'PUT' ? 'put' : 'post'](String(address))
        .set('Idempotency-Key', key)
        .send(JSON.parse(String(body)) as object);
    const times = this.doubled > 0 ? 2 : 1;
    if (times === 2) this.doubled--;
    let answer = await send();
    if (times === 2) answer = await send();
    if (answer.status >= 500) throw new Error(`${String(address)}: ${JSON.stringify(answer.body)}`);
    if (this.lost > 0) {
      this.lost--;
      throw new TypeError('lost');
    }
    if (answer.ok) this.acknowledged.add(key);
    return new Response(JSON.stringify(answer.body), { status: answer.status });
  };
}

/** A device with its jobs, which it keeps as well. */
class Device extends KeepingDevice {
  private readonly keptJobs = new Map<string, Job>();
  jobs = jobsSlice.reducer(undefined, { type: 'begin' });

  constructor(readonly line: Line) {
    super((one) => sendOne(one, line.fetch));
  }

  private job(action: Parameters<typeof jobsSlice.reducer>[1]): void {
    this.jobs = jobsSlice.reducer(this.jobs, action);
    for (const id of this.keptJobs.keys()) if (!this.jobs.jobs[id]) this.keptJobs.delete(id);
    for (const [id, job] of Object.entries(this.jobs.jobs)) this.keptJobs.set(id, job);
  }
  protected override onSent({ operation, params, body }: Waiting): void {
    if (operation !== 'takeJobOn') return;
    for (const { id, event } of eventsIn(params['eventId']!, body as JobEventWrite))
      this.job(jobEventSent({ jobId: params['id']!, id, event }));
  }
  protected override onDropped({ operation, params }: Waiting): void {
    if (operation === 'startJob') this.job(jobForgotten(params['id']!));
  }
  begins(job: Job): void {
    this.job(jobBegun(job));
  }
  stands(jobId: string) {
    const job = this.jobs.jobs[jobId];
    return job ? stateOf(job, localEvents(job, this.state.list)) : null;
  }
  async looks(jobId: string): Promise<void> {
    if (!this.line.signal) return;
    const { status, body } = await shop.api.get(`/api/jobs/${jobId}`);
    if (status === 200) this.job(jobSeen(body as Job));
  }
  override reload(): void {
    super.reload();
    const jobs = Object.fromEntries(this.keptJobs);
    this.jobs = { ...jobsSlice.reducer(undefined, { type: 'begin' }), jobs };
  }
}

const JOBS = ['fit-base-and-sheet', 'mount-glass', 'check-plate', 'remove-old-surface'].flatMap((id) =>
  PROCEDURES.filter((known) => known.id === id),
);

/** All of the card in hand, as it should be done. */
function cardAt(setup: RunSetup, state: RunState, at: number): RunEvent[] {
  const card = cardOf(setup, state, 'practised');
  return cardEvents(setup, state, card, filledWell(card), at);
}

async function addSurface(group: string): Promise<string> {
  const { body } = await shop.api.get('/api/surface-kinds');
  const kind = (body.items as { id: string; group: string }[]).find((known) => known.group === group)!;
  const id = newId();
  await shop.api
    .put(`/api/surfaces/${id}`)
    .send(sheet({ kindId: kind.id }))
    .expect(200);
  return id;
}

async function history(seed: number): Promise<void> {
  const random = seededRandom(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const line = new Line();
  const devices = [new Device(line), new Device(line)];
  const machineId = newId();
  await shop.api
    .put(`/api/machines/${machineId}`)
    .send({ ...facts(shop.areaId, { name: `M${seed}` }), version: 0, at: NOW })
    .expect(200);
  const surfaces = {
    sheet: await addSurface('sheet'),
    base: await addSurface('base'),
    glass: await addSurface('glass'),
  };
  const jobIds: string[] = [];
  const prints = new Set<string>();
  const dropped = new Set<string>();
  const did = new Set<string>();
  /** What was sent at once. */
  const batches: string[][] = [];

  const begin = (device: Device) => {
    const doc = pick(JOBS);
    const id = newId();
    const parts = Object.fromEntries(
      doc.parts.flatMap(({ id: part, groups }) => {
        const [, fits] = Object.entries(surfaces).find(([group]) => (groups as string[]).includes(group)) ?? [];
        return fits && random() < 0.8 ? [[part, fits]] : [];
      }),
    );
    const choices = Object.fromEntries(doc.choices.map(({ id: choice, usual }) => [choice, usual]));
    const at = shop.clock.now;
    const body = { procedureId: doc.id, version: 0, machineId, choices, parts, sides: {}, together: null, at };
    const begun = { id, procedure: doc, choices, parts, stackBefore: [], events: [], startedAt: at, ended: null };
    device.begins(begun as unknown as Job);
    device.later(waitingFor(jobOperations.startJob, { params: { id }, body, key: id, what: '' }));
    did.add(id);
    jobIds.push(id);
  };
  const takeOn = (device: Device) => {
    const id = pick(jobIds);
    const job = device.jobs.jobs[id];
    const state = device.stands(id);
    if (!job || !state) return;
    const last = state.trail.at(-1)?.stepId;
    let event: RunEvent;
    if (last !== undefined && random() < 0.25) event = { kind: 'undone', at: shop.clock.now, stepId: state.at ?? last };
    else if (state.at === null) return;
    else if (random() < 0.1) event = { kind: 'noted', at: shop.clock.now, stepId: state.at, note: 'seen' };
    else if (random() < 0.08) event = { kind: 'cant', at: shop.clock.now, stepId: state.at, way: 0, note: '' };
    else event = doneWell(setupOf(job), state);
    shop.clock.now = Math.max(shop.clock.now + 1, event.at);
    // A whole card at once, as the practised do it; or all of the last one taken back.
    const whole =
      random() < 0.5
        ? [event]
        : event.kind === 'done'
          ? cardAt(setupOf(job), state, event.at)
          : event.kind === 'undone'
            ? undoEvents(state, event.at)
            : [event];
    const [first, ...more] = whole.map((one) => ({ id: newId(), event: one }));
    did.add(first!.id);
    batches.push([first!, ...more].map(({ id: eventId }) => eventId));
    const params = { id, eventId: first!.id };
    const body = { event: first!.event, ...(more.length > 0 ? { rest: more } : {}) };
    device.later(waitingFor(jobOperations.takeJobOn, { params, body, key: first!.id, what: '' }));
  };
  const print = (device: Device) => {
    const id = newId();
    const at = shop.clock.now;
    const body = { machineId, material: 'PLA', endedAt: at, duration: 60, grams: 1, held: true };
    const whole = { ...body, failure: null, release: null, note: '' };
    device.later(waitingFor(wearOperations.logPrint, { params: { id }, body: whole, key: id, what: '' }));
    did.add(id);
    prints.add(id);
  };
  /** What somebody does at a third place, straight on the server. */
  const elsewhere = async () => {
    const id = pick(Object.values(surfaces));
    const at = shop.clock.now;
    const event: SurfaceEvent = pick([
      { kind: 'moved', at, place: 'Rack 1' },
      { kind: 'taken-off', at, place: '' },
      { kind: 'held', at, hold: 'dry', until: at + 60_000, reason: 'washed' },
      { kind: 'work-asked', at, what: 'scrub' },
    ]);
    await shop.api.post(`/api/surfaces/${id}/events`).send(event);
  };

  for (let step = 0; step < STEPS; step++) {
    const device = pick(devices);
    const roll = random();
    if (jobIds.length === 0 || roll < 0.04) begin(device);
    else if (roll < 0.5) takeOn(device);
    else if (roll < 0.56) print(device);
    else if (roll < 0.72) await device.sends();
    else if (roll < 0.8) await device.looks(pick(jobIds));
    else if (roll < 0.85) await elsewhere();
    else if (roll < 0.88) device.reload();
    else if (roll < 0.92) line.signal = random() < 0.6;
    else if (roll < 0.94) line.lost = Math.floor(random() * 4);
    else if (roll < 0.96) line.failing = Math.floor(random() * 5);
    else if (roll < 0.98) line.doubled = Math.floor(random() * 4);
    else {
      const [one] = device.parked();
      if (one && random() < 0.5) device.again(one);
      else if (one) for (const key of device.drop(one)) dropped.add(key);
    }
  }

  // In the end the signal is back and the server well: what failed is tried anew, what was refused is let go of.
  Object.assign(line, { signal: true, lost: 0, failing: 0, doubled: 0 });
  for (const device of devices) {
    device.reload();
    for (let i = 0; device.state.list.length > 0; i++) {
      if (i > 60) throw new Error(`a device is stuck with ${JSON.stringify(device.state.list[0])}`);
      for (const one of device.parked())
        if (one.parked!.kind === 'broken') device.again(one);
        else for (const key of device.drop(one)) dropped.add(key);
      await device.sends();
    }
  }
  for (const device of devices) for (const id of jobIds) await device.looks(id);

  const events = (await shop.db('job_events').whereIn('job_id', jobIds).select('id')) as { id: string }[];
  const arrived = [...events.map(({ id }) => id), ...(await idsOf('prints', prints)), ...(await idsOf('jobs', jobIds))];
  // Nothing twice, nothing acknowledged is missing, and what is nowhere was let go of.
  expect(new Set(arrived).size).toBe(arrived.length);
  const there = new Set(arrived);
  for (const key of line.acknowledged) expect([key, there.has(key)]).toEqual([key, true]);
  // A card is there whole or not at all.
  for (const batch of batches) expect(new Set(batch.map((key) => there.has(key))).size).toBe(1);
  for (const key of did) expect([key, there.has(key) || dropped.has(key)]).toEqual([key, true]);
  // Server and devices see every job in the same state.
  for (const id of jobIds.filter((one) => there.has(one))) {
    const { body } = await shop.api.get(`/api/jobs/${id}`).expect(200);
    const onServer = stateOf(body as Job, []);
    expect((body as Job).ended).toBe(onServer.ended);
    for (const device of devices) expect(device.stands(id)).toEqual(onServer);
  }
  // The book, read from its beginning, gives the same surfaces.
  for (const id of Object.values(surfaces)) {
    const lines = (await shop
      .db('book')
      .where({ surface_id: id })
      .where('kind', 'like', 'surface-%')
      .whereNot('kind', 'surface-changed')
      .orderBy('seq')
      .select('data')) as { data: string }[];
    const replayed = replaySurface(lines.map(({ data }) => (JSON.parse(data) as { event: SurfaceEvent }).event));
    expect(surfaceStateOf((await shop.db('surfaces').where({ id }).first()) as SurfaceRow)).toEqual(replayed);
  }
}

async function idsOf(table: string, ids: Iterable<string>): Promise<string[]> {
  return (
    (await shop
      .db(table)
      .whereIn('id', [...ids])
      .select('id')) as { id: string }[]
  ).map(({ id }) => id);
}

test(`${HISTORIES} histories of jobs with undoing, prints and two devices end the same on the server, on both devices and in the book`, async () => {
  for (let seed = 1; seed <= HISTORIES; seed++)
    try {
      await history(seed);
    } catch (error) {
      (error as Error).message = `history ${seed}: ${(error as Error).message}`;
      throw error;
    }
  expect(await verifyBook(shop.db)).toMatchObject({ sound: true });
}, 1_800_000);
