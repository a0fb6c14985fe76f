import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Job, JobEntry, ProcedureEntry, ProcedureRecord, Surface, Taught } from '@even-bed/contract';
import {
  applyRunEvent,
  PROCEDURES,
  replayRun,
  type Procedure,
  type RunEvent,
  type RunSetup,
  type RunState,
} from '@even-bed/core';
import { doneWell } from '@even-bed/core/care/workWell.fixture';
import { connect } from '../db/connect';
import { facts, newId, NOW, openShop, type Shop, sheet } from '../app/shop.fixture';
import { undoEvents } from '@even-bed/core/care/runCard';
import { addJobEvent, findJob } from './jobStore';
import { keepEditions } from './procedureStore';

const HOUR = 3_600_000;
const usual = ({ choices }: Procedure) => Object.fromEntries(choices.map(({ id, usual: option }) => [id, option]));
const procedure = (id: string) => PROCEDURES.find((known) => known.id === id)!;

/** The step of the film's job that retires the old one. */
const RETIRES = procedure('fit-film').steps.find(({ effects = [] }) => effects.some(({ kind }) => kind === 'retire'))!;

/** A base and a sheet that cure for a day. */
const DAY_LONG = { ...usual(procedure('fit-base-and-sheet')), wait: '24' };

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const kindOf = async (group: string) => {
  const { body } = await shop.api.get('/api/surface-kinds').expect(200);
  return (body.items as { id: string; group: string }[]).find((kind) => kind.group === group)!.id;
};
async function surface(group: string, tag: string): Promise<string> {
  const id = newId();
  await shop.api
    .put(`/api/surfaces/${id}`)
    .send(sheet({ tag, kindId: await kindOf(group) }))
    .expect(200);
  return id;
}
/** Lays a surface on a machine as a person does who has looked at everything. */
const layOn = (surfaceId: string, { machineId = shop.machineId, turned = 0 } = {}) =>
  shop.api.post(`/api/machines/${machineId}/mount`).send({
    surfaceId,
    sideUp: 'A',
    turned,
    answers: ['clean-dry', 'size', 'heat', 'front-mark'],
    from: null,
    replaces: null,
    at: shop.clock.now,
  });
const look = async (id: string) => (await shop.api.get(`/api/surfaces/${id}`).expect(200)).body as Surface;
const job = async (id: string) => (await shop.api.get(`/api/jobs/${id}`).expect(200)).body as Job;
const setupOf = ({ procedure: doc, choices, startedAt }: Job): RunSetup => ({ procedure: doc, choices, startedAt });
const stateOf = (one: Job): RunState => replayRun(setupOf(one), one.events);

async function begin(procedureId: string, more: object = {}): Promise<string> {
  const id = newId();
  const body = {
    procedureId,
    version: 0,
    machineId: shop.machineId,
    choices: usual(procedure(procedureId)),
    parts: {},
    at: NOW,
    ...more,
  };
  await shop.api.put(`/api/jobs/${id}`).send(body).expect(200);
  return id;
}
const tell = (jobId: string, event: RunEvent, eventId = newId()) =>
  shop.api.put(`/api/jobs/${jobId}/events/${eventId}`).send({ event });

/** Works a job on, step by step as it should be done, until a step is in hand; the clock goes with it. */
async function workTo(jobId: string, stepId: string | null, answers: Record<string, string> = {}): Promise<Job> {
  for (;;) {
    const one = await job(jobId);
    const state = stateOf(one);
    if (state.at === stepId) return one;
    const event = doneWell(setupOf(one), state, answers[state.at!] ?? null);
    shop.clock.now = Math.max(shop.clock.now, event.at);
    await tell(jobId, event).expect(200);
  }
}

describe('what one machine taught is offered to the next of its model', () => {
  test('what was fitted and measured, whether home moved, facts and plans, each with where it comes from', async () => {
    const other = newId();
    const area = (await shop.api.get('/api/areas').expect(200)).body.items[0].id as string;
    const { body: mine } = await shop.api.get(`/api/machines/${shop.machineId}`).expect(200);
    await shop.api
      .put(`/api/machines/${other}`)
      .send({
        ...facts(area, { name: 'Curlew', model: ` ${(mine.model as string).toUpperCase()} ` }),
        version: 0,
        at: NOW,
      })
      .expect(200);
    const nothing = { facts: [], jobs: [], plans: [] };
    const taught = async (id: string) => (await shop.api.get(`/api/machines/${id}/taught`).expect(200)).body as Taught;
    expect((await taught(other)).jobs).toEqual([]);
    expect((await taught(other)).facts).toEqual([
      { machineId: shop.machineId, machineName: mine.name, platformKey: null, threads: ['M4'] },
    ]);

    const glass = await surface('glass', 'G-001');
    const id = await begin('mount-glass', { parts: { glass }, choices: { way: 'clips', kind: 'float' } });
    await workTo(id, 'clips');
    const { at } = stateOf(await job(id));
    // A clip is hit first: its height is written down, and it is laid lower.
    await tell(id, { kind: 'cant', stepId: at!, way: 0, note: '', at: ++shop.clock.now }).expect(200);
    await workTo(id, null);
    const size = {
      ...{ plate: { width: 235, depth: 235 }, print: { x: 5, y: 5, width: 225, depth: 225 } },
      ...{ piece: { width: 230, depth: 230 }, notches: [], keepOuts: [] },
    };
    const plan = { machineId: shop.machineId, tool: 'size', title: 'A pane', input: size, at: NOW };
    await shop.api.put(`/api/plans/${newId()}`).send(plan).expect(200);

    const { jobs, plans } = await taught(other);
    expect(jobs).toHaveLength(1);
    expect(jobs[0]).toMatchObject({ jobId: id, title: 'Mount glass', machineName: mine.name, homeMoved: false });
    expect(jobs[0]!.fitted).toEqual([expect.objectContaining({ tag: 'G-001', width: 235, depth: 235 })]);
    expect(jobs[0]!.readings.map(({ label }) => label)).toEqual(['Clip above the plate']);
    expect(plans).toEqual([expect.objectContaining({ title: 'A pane', machineName: mine.name })]);
    // A machine teaches others, not itself; another model nothing.
    expect((await taught(shop.machineId)).jobs).toEqual([]);
    const third = newId();
    await shop.api
      .put(`/api/machines/${third}`)
      .send({ ...facts(area, { name: 'Knot', model: 'of its own' }), version: 0, at: NOW })
      .expect(200);
    expect(await taught(third)).toEqual(nothing);
    await shop.api.get(`/api/machines/${newId()}/taught`).expect(404);
  });

  test('a job that is under way, or was given up, teaches nothing yet', async () => {
    const other = newId();
    const area = (await shop.api.get('/api/areas').expect(200)).body.items[0].id as string;
    const { body: mine } = await shop.api.get(`/api/machines/${shop.machineId}`).expect(200);
    await shop.api
      .put(`/api/machines/${other}`)
      .send({ ...facts(area, { name: 'Curlew', model: mine.model }), version: 0, at: NOW })
      .expect(200);
    const id = await begin('mount-glass');
    await workTo(id, 'clean');
    await tell(id, { kind: 'stopped', stepId: 'clean', why: 'no pane', at: ++shop.clock.now }).expect(200);
    await begin('cut-glass');
    expect((await shop.api.get(`/api/machines/${other}/taught`).expect(200)).body.jobs).toEqual([]);
  });
});

test('the jobs that ship are there to begin with', async () => {
  const { body } = await shop.api.get('/api/procedures').expect(200);
  expect((body.items as ProcedureEntry[]).map(({ id }) => id)).toEqual(PROCEDURES.map(({ id }) => id));
  const one = (await shop.api.get('/api/procedures/cut-glass').expect(200)).body as ProcedureRecord;
  expect(one.doc).toEqual(procedure('cut-glass'));
  expect(one.edition).toMatch(/^[0-9a-f]{16}$/);
  await shop.api.get('/api/procedures/none').expect(404);
});

describe('a base and a sheet, from the old surface to levelled', () => {
  test('its steps change the records: off, on, hold, and what was seen is in the book', async () => {
    const [old, base, top] = [
      await surface('glass', 'S-001'),
      await surface('base', 'B-001'),
      await surface('sheet', 'S-002'),
    ];
    await layOn(old).expect(200);
    const id = await begin('fit-base-and-sheet', { parts: { old, base, sheet: top }, choices: DAY_LONG });
    await workTo(id, 'measure');
    expect((await look(old)).state.where).toEqual({ kind: 'rack', place: 'taken off' });
    await workTo(id, 'trim-early');
    const held = await look(base);
    expect(held.state.where).toMatchObject({ kind: 'machine', machineId: shop.machineId, slot: 'base' });
    expect(held.state.hold).toMatchObject({ kind: 'cure', reason: 'adhesive cures' });
    const stuck = stateOf(await job(id)).trail.at(-1)!.leftAt;
    const { body: machine } = await shop.api.get(`/api/machines/${shop.machineId}`).expect(200);
    expect(machine.heldUntil).toBe(stuck + 24 * HOUR);
    expect(held.state.hold!.until).toBe(stuck + 24 * HOUR);
    const waiting = await workTo(id, 'weight');
    expect(waiting.waitUntil).toBe(stateOf(waiting).enteredAt + 24 * HOUR);
    const early = { ...doneWell(setupOf(waiting), stateOf(waiting)), at: shop.clock.now };
    expect((await tell(id, early).expect(422)).body.error).toMatchObject({ code: 'too-early' });
    const ended = await workTo(id, null);
    expect(ended.ended).toBe('done');
    expect((await look(top)).state.where).toMatchObject({ kind: 'machine', slot: 'top' });
    const { body } = await shop.api.get('/api/book?limit=100').expect(200);
    const told = (body.items as { text: string }[]).map(({ text }) => text);
    expect(told[0]).toBe('Dunlin: Fit a magnetic base and sheet, done.');
    expect(told).toContain('Dunlin: Used: magnetic base, alcohol, towels.');
    expect(told.find((text) => text.startsWith('Dunlin: Fit a magnetic base and sheet, begun.'))).toContain(
      '24 h under a weight',
    );
  });

  test('a gate refuses at its fields, and the step stays in hand', async () => {
    const id = await begin('remove-old-surface');
    const one = await workTo(id, 'off');
    const good = doneWell(setupOf(one), stateOf(one));
    shop.clock.now = good.at;
    const { body } = await tell(id, { ...good, checks: [], readings: { top: 60 } }).expect(422);
    expect(Object.keys(body.error.fields)).toEqual(['readings.top', 'checks.0']);
    expect(stateOf(await job(id)).at).toBe('off');
  });

  test('undone, a step takes back what it wrote', async () => {
    const base = await surface('base', 'B-001');
    const id = await begin('fit-base-and-sheet', { parts: { base }, choices: DAY_LONG });
    const after = await workTo(id, 'trim-early');
    await tell(id, { kind: 'undone', at: shop.clock.now, stepId: 'trim-early' }).expect(200);
    expect(stateOf(await job(id)).at).toBe('roll');
    expect((await look(base)).state).toMatchObject({ where: { kind: 'rack' }, hold: null });
    await workTo(id, 'trim-early');
    expect((await look(base)).state.hold).not.toBeNull();
    expect((await job(id)).events.length).toBe(after.events.length + 2);
  });

  describe('undoing does not guess', () => {
    /** A pane on the machine, turned half round, as the old surface of a job. */
    const lying = async () => {
      const old = await surface('glass', 'S-009');
      await layOn(old, { turned: 180 }).expect(200);
      return old;
    };

    test('what was taken off lies again as it lay', async () => {
      const old = await lying();
      const before = (await look(old)).state.where;
      expect(before).toMatchObject({ kind: 'machine', turned: 180 });
      const id = await begin('fit-base-and-sheet', { parts: { old } });
      await workTo(id, 'measure');
      expect((await look(old)).state.where.kind).toBe('rack');
      let { at } = stateOf(await job(id));
      while ((await look(old)).state.where.kind === 'rack') {
        await tell(id, { kind: 'undone', at: shop.clock.now, stepId: at! }).expect(200);
        ({ at } = stateOf(await job(id)));
      }
      expect((await look(old)).state.where).toEqual(before);
    });

    test('what came out of the rack goes back to its place there', async () => {
      const sheetId = await surface('sheet', 'S-002');
      const place = { kind: 'moved', at: NOW, place: 'Rack 3' };
      await shop.api.post(`/api/surfaces/${sheetId}/events`).send(place).expect(200);
      const id = await begin('fit-base-and-sheet', { parts: { sheet: sheetId } });
      await workTo(id, null);
      await undoUntilOff(id, sheetId);
      expect((await look(sheetId)).state.where).toEqual({ kind: 'rack', place: 'Rack 3' });
    });

    /** Undoes an ended job step by step until a surface is off again. */
    const undoUntilOff = async (id: string, surfaceId: string) => {
      while ((await look(surfaceId)).state.where.kind === 'machine') {
        const { at, trail } = stateOf(await job(id));
        await tell(id, { kind: 'undone', at: shop.clock.now, stepId: at ?? trail.at(-1)!.stepId }).expect(200);
      }
    };

    test.each([
      ['what made room lies again as it lay', false],
      ['what lies elsewhere by now stays there, and the rest comes off all the same', true],
    ])('%s', async (_, moved) => {
      const old = await surface('glass', 'S-009');
      const put = (machineId: string, turned: number) => layOn(old, { machineId, turned });
      await put(shop.machineId, 180).expect(200);
      const before = (await look(old)).state.where;
      const sheetId = await surface('sheet', 'S-002');
      const id = await begin('fit-base-and-sheet', { parts: { sheet: sheetId } });
      await workTo(id, null);
      expect((await look(sheetId)).state.where.kind).toBe('machine');
      expect((await look(old)).state.where.kind).toBe('rack');
      const second = newId();
      if (moved) {
        await shop.api
          .put(`/api/machines/${second}`)
          .send({ ...facts(shop.areaId, { name: 'Knot' }), version: 0, at: NOW })
          .expect(200);
        await put(second, 0).expect(200);
      }
      await undoUntilOff(id, sheetId);
      const { where } = (await look(old)).state;
      if (moved) expect(where).toMatchObject({ kind: 'machine', machineId: second, turned: 0 });
      else expect(where).toEqual(before);
    });

    /** Undoes a job, ended or not, step by step until nothing is done. */
    const undoAll = async (id: string) => {
      for (;;) {
        const { at, trail } = stateOf(await job(id));
        if (trail.length === 0) return;
        await tell(id, { kind: 'undone', at: shop.clock.now, stepId: at ?? trail.at(-1)!.stepId }).expect(200);
      }
    };
    const bookLines = async () => {
      const { body } = await shop.api.get('/api/book?kind=job-step&limit=100').expect(200);
      return (body.items as { text: string }[]).map(({ text }) => text);
    };

    test('a whole job undone leaves surfaces, thicknesses and layers as they were', async () => {
      const old = await lying();
      const [base, top] = [await surface('base', 'B-001'), await surface('sheet', 'S-002')];
      const stack = async () => (await shop.api.get(`/api/machines/${shop.machineId}/stack`).expect(200)).body.layers;
      const seen = async () => {
        const all = await Promise.all([old, base, top].map(look));
        return all.map(({ thickness, state: { where, awaiting, retired } }) => ({
          thickness,
          where,
          awaiting,
          retired,
        }));
      };
      const before = [await seen(), await stack()];
      const id = await begin('fit-base-and-sheet', { parts: { old, base, sheet: top } });
      await workTo(id, null);
      expect(await seen()).not.toEqual(before[0]);
      await undoAll(id);
      const [surfaces, layers] = [await seen(), (await stack()) as { fittedAt: number }[]];
      expect(surfaces).toEqual(before[0]);
      // It was fitted anew: when is a fact of today.
      const untimed = (list: unknown) => (list as object[]).map((layer) => ({ ...layer, fittedAt: 0 }));
      expect(untimed(layers)).toEqual(untimed(before[1]));
    });

    test('a pad that a job laid is lifted again, and what it measured is forgotten', async () => {
      const glass = await surface('glass', 'S-003');
      const before = (await look(glass)).thickness;
      const id = await begin('mount-glass', { parts: { glass }, choices: { way: 'pad', kind: 'float' } });
      await workTo(id, null);
      expect((await look(glass)).thickness).not.toBe(before);
      await undoAll(id);
      expect((await look(glass)).thickness).toBe(before);
      const { body } = await shop.api.get(`/api/machines/${shop.machineId}/stack`).expect(200);
      expect(body.layers).toEqual([]);
    });

    test('what was measured again since stays as it was measured', async () => {
      const glass = await surface('glass', 'S-003');
      const id = await begin('mount-glass', { parts: { glass }, choices: { way: 'pad', kind: 'float' } });
      await workTo(id, null);
      const { version, tag, kindId } = await fullSurface(glass);
      await shop.api
        .put(`/api/surfaces/${glass}`)
        .send(sheet({ tag, kindId, thickness: 3.21, version }))
        .expect(200);
      await undoAll(id);
      expect((await look(glass)).thickness).toBe(3.21);
      expect((await bookLines()).join()).toContain('measured again since');
    });
    const fullSurface = async (id: string) => {
      const { version, tag, kind } = await look(id);
      return { version, tag, kindId: kind.id };
    };

    test('what was put on anew since stays on', async () => {
      const top = await surface('sheet', 'S-002');
      const id = await begin('fit-base-and-sheet', { parts: { sheet: top } });
      await workTo(id, null);
      shop.clock.now += HOUR;
      const off = { kind: 'taken-off', at: shop.clock.now, place: '' };
      await shop.api.post(`/api/surfaces/${top}/events`).send(off).expect(200);
      shop.clock.now += HOUR;
      await layOn(top).expect(200);
      await undoAll(id);
      expect((await look(top)).state.where.kind).toBe('machine');
      expect((await bookLines()).join()).toContain('was taken off since');
    });

    test('a step from before steps kept what they change is not guessed at', async () => {
      const top = await surface('sheet', 'S-002');
      const id = await begin('fit-base-and-sheet', { parts: { sheet: top } });
      await workTo(id, null);
      await shop.db('job_events').update({ recorded: null });
      await undoAll(id);
      expect((await look(top)).state.where.kind).toBe('machine');
      expect((await bookLines()).join()).toContain('Put it right by hand');
    });

    test('a renewal undone counts the prints as before', async () => {
      const top = await surface('sheet', 'S-002');
      await shop.db('surfaces').where({ id: top }).update({ prints_a: 40, renewed_a: 10, failures: 3 });
      const before = await shop.db('surfaces').where({ id: top }).first();
      const { doc } = (await shop.api.get('/api/procedures/fit-base-and-sheet').expect(200)).body as ProcedureRecord;
      const renewId = newId();
      const [first, ...rest] = doc.steps;
      const effects = [{ kind: 'work' as const, part: 'sheet', work: 'renewed' as const, note: 'coated anew' }];
      const at = NOW;
      const own = {
        doc: { ...doc, id: renewId, steps: [{ ...first!, effects }, ...rest] },
        basedOn: null,
        version: 0,
        at,
      };
      await shop.api.put(`/api/procedures/${renewId}`).send(own).expect(200);
      const id = newId();
      const start = { procedureId: renewId, version: 1, machineId: shop.machineId, choices: usual(doc), at };
      await shop.api
        .put(`/api/jobs/${id}`)
        .send({ ...start, parts: { sheet: top } })
        .expect(200);
      await workTo(id, 'measure');
      expect(await shop.db('surfaces').where({ id: top }).first()).toMatchObject({
        renewed_a: 40,
        failures_renewed: 3,
      });
      await undoAll(id);
      const after = await shop.db('surfaces').where({ id: top }).first();
      expect({ ...after, changed_at: before.changed_at }).toEqual(before);
    });

    test('a step that took nothing off puts nothing on', async () => {
      const old = await surface('glass', 'S-009');
      const before = (await look(old)).state.where;
      const id = await begin('fit-base-and-sheet', { parts: { old } });
      await workTo(id, 'measure');
      for (;;) {
        const { at, trail } = stateOf(await job(id));
        if (trail.length === 0) break;
        await tell(id, { kind: 'undone', at: shop.clock.now, stepId: at! }).expect(200);
      }
      expect((await look(old)).state.where).toEqual(before);
    });
  });

  test('puts on the side that was chosen, keeps what calipers said, and passes no guard', async () => {
    const base = await surface('base', 'B-001');
    const top = newId();
    await shop.api
      .put(`/api/surfaces/${top}`)
      .send(sheet({ tag: 'S-002' }))
      .expect(200);
    const id = await begin('fit-base-and-sheet', { parts: { base, sheet: top }, sides: { sheet: 'B' } });
    await workTo(id, null);
    const fitted = await look(top);
    expect(fitted.state.where).toMatchObject({ kind: 'machine', slot: 'top', sideUp: 'B', turned: 0 });
    const measured = stateOf(await job(id)).readings;
    expect(fitted.thickness).toBe(measured['measure.sheet']);
    expect((await look(base)).thickness).toBe(measured['measure.base']);
  });

  test('a pane on a pad leaves the pad in the stack, as thick as it was measured', async () => {
    const glass = await surface('glass', 'S-003');
    const id = await begin('mount-glass', { parts: { glass }, choices: { way: 'pad', kind: 'float' } });
    const one = await workTo(id, null);
    const { readings } = stateOf(one);
    const { body } = await shop.api.get(`/api/machines/${shop.machineId}/stack`).expect(200);
    expect(
      (body.layers as { name: string; thickness: number }[]).map(({ name, thickness }) => [name, thickness]),
    ).toEqual([
      ['conductive pad', readings['measure-pad.pad']],
      ['Glass pane', readings['measure.thickness']],
    ]);
  });

  test('what lay on a mat and the mat under it: both are off, and nothing lies there any more', async () => {
    const [old, mat] = [await surface('sheet', 'S-003'), await surface('base', 'B-001')];
    await layOn(mat).expect(200);
    await layOn(old).expect(200);
    const id = await begin('remove-old-surface', { parts: { old, mat } });
    await workTo(id, 'glass-welded', { peel: 'glass' });
    expect((await look(mat)).state.where.kind).toBe('machine');
    await workTo(id, 'off', { 'glass-welded': 'yes' });
    expect([(await look(old)).state.where.kind, (await look(mat)).state.where.kind]).toEqual(['rack', 'rack']);
  });

  test.each([['There is no other'], [null]])(
    'a base that is lost waits for no cure any more, and is retired (%s)',
    async (cant) => {
      const base = await surface('base', 'B-001');
      const id = await begin('fit-base-and-sheet', { parts: { base }, choices: DAY_LONG });
      await workTo(id, 'crooked-down', { roll: 'crooked' });
      expect((await look(base)).state.hold).not.toBeNull();
      const one = await workTo(id, 'new-base', { 'crooked-down': 'lost' });
      const event: RunEvent =
        cant === null
          ? doneWell(setupOf(one), stateOf(one))
          : { kind: 'cant', at: shop.clock.now, stepId: 'new-base', way: 0, note: cant };
      shop.clock.now = Math.max(shop.clock.now, event.at);
      await tell(id, event).expect(200);
      expect((await look(base)).state).toMatchObject({ hold: null, retired: 'stuck on crooked, adhesive spoilt' });
    },
  );

  test('what may not lie on the machine is not written down as lying there, and the book says why', async () => {
    const [base, top] = [await surface('base', 'B-001'), await surface('sheet', 'S-002')];
    const id = await begin('fit-base-and-sheet', { parts: { base, sheet: top } });
    await workTo(id, 'measure');
    await shop.api
      .post(`/api/surfaces/${top}/events`)
      .send({ kind: 'held', hold: 'dry', until: NOW + 1e9, reason: 'washed', at: NOW })
      .expect(200);
    await workTo(id, null);
    expect((await look(top)).state.where.kind).toBe('rack');
    const { body } = await shop.api.get('/api/book?kind=job-step&limit=100').expect(200);
    expect((body.items as { text: string }[]).map(({ text }) => text).join()).toMatch(
      /could not write this down.*on hold/,
    );
  });

  test('only a lead retires, also through a job: a technician leaves it as work for one', async () => {
    const technician = await shop.signedIn('technician', 'Otto');
    const old = await surface('film', 'F-001');
    const resin = newId();
    await shop.api
      .put(`/api/machines/${resin}`)
      .send({ ...facts(shop.areaId, { name: 'Stilt', family: 'resin' }), version: 0, at: NOW })
      .expect(200);
    const id = await begin('fit-film', { machineId: resin, parts: { old } });
    for (;;) {
      const one = await job(id);
      if (stateOf(one).trail.some(({ stepId }) => stepId === RETIRES.id)) break;
      const event = doneWell(setupOf(one), stateOf(one));
      shop.clock.now = Math.max(shop.clock.now, event.at);
      await technician.put(`/api/jobs/${id}/events/${newId()}`).send({ event }).expect(200);
    }
    expect((await look(old)).state).toMatchObject({
      retired: null,
      awaiting: expect.stringContaining('a lead retires it'),
    });
  });

  test('what a lead’s step retired a technician does not bring back by undoing it; a lead does', async () => {
    const old = await surface('film', 'F-001');
    const resin = newId();
    await shop.api
      .put(`/api/machines/${resin}`)
      .send({ ...facts(shop.areaId, { name: 'Stilt', family: 'resin' }), version: 0, at: NOW })
      .expect(200);
    const id = await begin('fit-film', { machineId: resin, parts: { old } });
    const next = (one: Job) => doneWell(setupOf(one), stateOf(one));
    for (
      let one = await job(id);
      !stateOf(one).trail.some(({ stepId }) => stepId === RETIRES.id);
      one = await job(id)
    ) {
      const event = next(one);
      shop.clock.now = Math.max(shop.clock.now, event.at);
      await tell(id, event).expect(200);
    }
    expect((await look(old)).state.retired).not.toBeNull();
    const technician = await shop.signedIn('technician', 'Otto');
    const undo = { kind: 'undone', stepId: stateOf(await job(id)).at!, at: ++shop.clock.now };
    const { body } = await technician.put(`/api/jobs/${id}/events/${newId()}`).send({ event: undo }).expect(403);
    expect(body.error.message).toMatch(/a lead takes it back/);
    expect((await look(old)).state.retired).not.toBeNull();
    await shop.api.put(`/api/jobs/${id}/events/${newId()}`).send({ event: undo }).expect(200);
    expect((await look(old)).state.retired).toBeNull();
  });

  test('what the records don’t allow is said in the book, and the job goes on', async () => {
    const base = await surface('base', 'B-001');
    const id = await begin('fit-base-and-sheet', { parts: { base } });
    await workTo(id, 'roll');
    await shop.api
      .post(`/api/surfaces/${base}/retire`)
      .send({ kind: 'retired', why: 'by mistake', at: NOW })
      .expect(200);
    await workTo(id, 'trim');
    const { body } = await shop.api.get('/api/book?kind=job-step&limit=100').expect(200);
    expect((body.items as { text: string }[]).some(({ text }) => text.includes('could not write this down'))).toBe(
      true,
    );
  });
});

describe('the Z offset that works', () => {
  const offsets = async () => (await shop.api.get(`/api/offsets?machineId=${shop.machineId}`).expect(200)).body.items;
  async function printed(offset?: number) {
    const id = await begin('first-print');
    const one = await workTo(id, 'hold');
    const event = {
      ...doneWell(setupOf(one), stateOf(one), 'held'),
      ...(offset === undefined ? {} : { readings: { offset } }),
    };
    shop.clock.now = Math.max(shop.clock.now, event.at);
    await tell(id, event).expect(200);
    return id;
  }

  test('told in a job it is kept for the machine with what lies on it, and goes when the step is undone', async () => {
    const top = await surface('glass', 'S-001');
    await layOn(top).expect(200);
    const id = await printed(-1.85);
    expect(await offsets()).toMatchObject([{ surfaceTag: 'S-001', offset: -1.85, note: 'First print after fitting' }]);
    await tell(id, { kind: 'undone', at: shop.clock.now, stepId: 'hold' }).expect(200);
    expect(await offsets()).toEqual([]);
  });

  test('not told, or with nothing on the machine, it is not invented; the second is said in the book', async () => {
    await printed();
    expect(await offsets()).toEqual([]);
    await printed(-1.85);
    expect(await offsets()).toEqual([]);
    const { body } = await shop.api.get('/api/book?limit=5').expect(200);
    expect((body.items as { text: string }[]).map(({ text }) => text).join()).toContain(
      'no surface lies on the machine',
    );
  });
});

test('the light test of a plate is six inspections of it', async () => {
  const id = await begin('check-plate');
  const one = await workTo(id, 'along-left');
  const seen = { ...doneWell(setupOf(one), stateOf(one)), readings: { where: 1, light: 2, feeler: 0.1 } };
  shop.clock.now = seen.at;
  await tell(id, seen).expect(200);
  await workTo(id, 'verdict');
  const { body } = await shop.api.get(`/api/inspections?machineId=${shop.machineId}`).expect(200);
  expect(body.items).toHaveLength(6);
  expect((body.items as { code: string }[]).filter(({ code }) => code === 'clear')).toHaveLength(1);
});

test('two jobs at once, each where it was left; one handed over', async () => {
  const [first, second] = [await begin('check-plate'), await begin('under-bed-check')];
  const otto = await shop.signedIn('technician', 'Otto');
  const { body: me } = await otto.get('/api/session').expect(200);
  await workTo(first, 'measure');
  await tell(first, {
    kind: 'handed-over',
    at: NOW,
    stepId: 'measure',
    toId: me.person.id,
    toName: 'Somebody else',
    note: 'light is on the shelf',
  }).expect(200);
  const told = (await shop.api.get('/api/book?kind=job-handed-over').expect(200)).body.items[0].text as string;
  expect(told).toContain('Otto');
  expect(told).not.toContain('Somebody else');
  await workTo(second, 'add-up');
  const { body } = await shop.api.get('/api/jobs?open=true').expect(200);
  expect((body.items as JobEntry[]).map(({ stepTitle, holderName }) => [stepTitle, holderName]).sort()).toEqual([
    ['Add it up', 'Merle Quay'],
    ['Measure the real plate', 'Otto'],
  ]);
  expect((await otto.get(`/api/jobs/${first}`).expect(200)).body.events.at(-1)).toMatchObject({ kind: 'handed-over' });
});

test('the same step sent twice is done once, and another device that comes late is told so', async () => {
  const id = await begin('check-plate');
  const one = await job(id);
  const event = doneWell(setupOf(one), stateOf(one));
  shop.clock.now = event.at;
  const eventId = newId();
  await tell(id, event, eventId).expect(200);
  await tell(id, event, eventId).expect(200);
  expect((await tell(id, event).expect(409)).body.error.code).toBe('elsewhere');
  expect((await job(id)).events).toHaveLength(1);
});

describe('a card is one batch', () => {
  const card = async (id: string, count: number) => {
    const one = await job(id);
    const setup = setupOf(one);
    const batch: { id: string; event: RunEvent }[] = [];
    let state = stateOf(one);
    const at = Math.max(shop.clock.now, state.enteredAt) + 1000;
    shop.clock.now = at;
    for (let i = 0; i < count; i++) {
      const event = { ...doneWell(setup, state), at };
      batch.push({ id: newId(), event });
      state = applyRunEvent(setup, state, event);
    }
    return { batch, after: state };
  };
  const send = (jobId: string, [first, ...rest]: { id: string; event: RunEvent }[]) =>
    shop.api.put(`/api/jobs/${jobId}/events/${first!.id}`).send({ event: first!.event, rest });

  test('all of it is taken, in order; sent again, or after it broke off in the middle, nothing is lost or doubled', async () => {
    const id = await begin('fit-base-and-sheet');
    const { batch, after } = await card(id, 5);
    // Two of them had come in alone before.
    for (const { id: eventId, event } of batch.slice(0, 2)) await tell(id, event, eventId).expect(200);
    await send(id, batch).expect(200);
    await send(id, batch).expect(200);
    const now = await job(id);
    expect(now.events.map((event) => event.id)).toEqual(batch.map((event) => event.id));
    expect(stateOf(now).at).toBe(after.at);
  });

  test('two with one id are refused, and neither is dropped in silence', async () => {
    const id = await begin('fit-base-and-sheet');
    const { batch } = await card(id, 3);
    const [first, second] = batch as [(typeof batch)[0], (typeof batch)[0], (typeof batch)[0]];
    const { body } = await send(id, [first, { ...second, id: first.id }]).expect(422);
    expect(body.error.fields.rest).toContain('two of these are the same');
    expect((await job(id)).events).toEqual([]);
  });

  test('one that is refused takes the whole batch with it, effects and all', async () => {
    const old = await surface('glass', 'S-001');
    await layOn(old).expect(200);
    const id = await begin('fit-base-and-sheet', { parts: { old } });
    const { batch } = await card(id, 5);
    const gate = batch.at(-1)!;
    const broken = [...batch.slice(0, -1), { ...gate, event: { ...gate.event, checks: [] } as RunEvent }];
    const { body } = await send(id, broken).expect(422);
    expect(Object.keys(body.error.fields)).toEqual(['checks.0']);
    expect((await job(id)).events).toEqual([]);
    expect((await look(old)).state.where.kind).toBe('machine');
    await send(id, batch).expect(200);
    expect((await look(old)).state.where.kind).toBe('rack');
    // Undone as one: the card in hand is the first again, and the glass lies where it lay.
    const undo = undoEvents(stateOf(await job(id)), shop.clock.now).map((event) => ({ id: newId(), event }));
    await send(id, undo).expect(200);
    expect(stateOf(await job(id)).at).toBe('room');
    expect((await look(old)).state.where.kind).toBe('machine');
  });

  test('too many at once are refused before anything is looked at', async () => {
    const id = await begin('under-bed-check');
    const event = { kind: 'noted', at: NOW, stepId: 'off', note: 'x' } as const;
    const many = Array.from({ length: 80 }, () => ({ id: newId(), event }));
    await send(id, many).expect(422);
  });

  test('a job that is full takes its end, and nothing else', async () => {
    const id = await begin('under-bed-check');
    const event = { kind: 'noted', at: NOW, stepId: 'off', note: 'x' } as const;
    const rows = Array.from({ length: 800 }, (_, i) => ({ id: newId(), job_id: id, seq: i + 1, received_at: NOW }));
    for (const row of rows)
      await shop.db('job_events').insert({ ...row, event: JSON.stringify(event), person_id: null, recorded: '[]' });
    expect((await send(id, [{ id: newId(), event }]).expect(422)).body.error.code).toBe('job-full');
    await send(id, [{ id: newId(), event: { kind: 'stopped', at: NOW, stepId: 'off', why: 'full' } }]).expect(200);
  });
});

test('several machines at once: their jobs are found by what they were begun with', async () => {
  const together = newId();
  const second = newId();
  await shop.api
    .put(`/api/machines/${second}`)
    .send({ ...facts(shop.areaId, { name: 'Knot' }), version: 0, at: NOW })
    .expect(200);
  const ids = [await begin('check-plate', { together }), await begin('check-plate', { together, machineId: second })];
  await begin('check-plate');
  const { body } = await shop.api.get(`/api/jobs?together=${together}`).expect(200);
  expect((body.items as JobEntry[]).map(({ id }) => id).sort()).toEqual([...ids].sort());
  expect((await job(ids[0]!)).together).toBe(together);
});

test('a job begun on an edition that has been replaced is worked by the document it was begun with', async () => {
  const earlier = { ...procedure('cut-glass'), title: 'Cut glass, as it was' };
  await shop
    .db('procedure_editions')
    .insert({ procedure_id: 'cut-glass', edition: 'earlier', doc: JSON.stringify(earlier), at: NOW });
  expect((await job(await begin('cut-glass', { edition: 'earlier' }))).procedure.title).toBe('Cut glass, as it was');
  await keepEditions(shop.db, NOW);
  await keepEditions(shop.db, NOW);
  const { edition } = (await shop.api.get('/api/procedures/cut-glass').expect(200)).body as ProcedureRecord;
  expect((await job(await begin('cut-glass', { edition }))).procedure.title).toBe('Cut glass');
  const body = { procedureId: 'cut-glass', version: 0, machineId: shop.machineId, choices: {}, parts: {}, at: NOW };
  const answer = await shop.api
    .put(`/api/jobs/${newId()}`)
    .send({ ...body, edition: 'nowhere' })
    .expect(422);
  expect(answer.body.error.fields.procedureId).toContain('not known here');
});

describe('plain layers follow the hands', () => {
  const plain = async () =>
    (
      (await shop.api.get(`/api/machines/${shop.machineId}/stack`).expect(200)).body.layers as {
        name: string;
        slot: string | null;
        thickness: number;
      }[]
    )
      .filter(({ slot }) => slot === null)
      .map(({ name, thickness }) => [name, thickness]);

  test('washers come under the bed with the pile that was laid, and go again when it is undone', async () => {
    const id = await begin('under-bed-check');
    await workTo(id, 'washers');
    const one = await job(id);
    const laid = { ...doneWell(setupOf(one), stateOf(one)), readings: { pile: 1.5 } };
    shop.clock.now = laid.at;
    await tell(id, laid).expect(200);
    await workTo(id, 'move');
    expect(await plain()).toEqual([['washers', 1.5]]);
    await tell(id, { kind: 'undone', at: shop.clock.now, stepId: 'move' }).expect(200);
    expect(await plain()).toEqual([]);
  });

  test('a pad goes with the pane that is taken off, and comes back when that is undone', async () => {
    const glass = await surface('glass', 'S-003');
    await workTo(await begin('mount-glass', { parts: { glass }, choices: { way: 'pad', kind: 'float' } }), null);
    expect(await plain()).toHaveLength(1);
    const id = await begin('remove-old-surface', { parts: { old: glass } });
    await workTo(id, null);
    expect(await plain()).toEqual([]);
    await tell(id, { kind: 'undone', at: shop.clock.now, stepId: 'towel' }).expect(200);
    expect(await plain()).toHaveLength(1);
  });

  test('base on glass: the pad lies under it, the pane goes with the base, and is no surface to print on', async () => {
    const [glass, base, top] = [
      await surface('glass', 'S-003'),
      await surface('base', 'B-001'),
      await surface('sheet', 'S-004'),
    ];
    const id = await begin('base-on-glass', {
      parts: { glass, base, sheet: top },
      choices: { ...usual(procedure('base-on-glass')), pane: 'pad' },
    });
    await workTo(id, null);
    expect((await plain()).map(([name]) => name)).toEqual(['conductive pad']);
    // Moved to another machine the base brings its pane along: it is as thick as both.
    const { readings } = stateOf(await job(id));
    expect((await look(base)).thickness).toBeCloseTo(readings['measure.pane']! + readings['measure.base']!, 9);
    expect((await look(base)).state.where).toMatchObject({ kind: 'machine', slot: 'base' });
    expect((await look(glass)).state.where.kind).toBe('rack');
  });
});

test('a film renewed begins a new life, on steel as thick as it was measured with it', async () => {
  const top = await surface('sheet', 'S-002');
  await shop.db('surfaces').where({ id: top }).update({ prints_a: 40, renewed_a: 0 });
  const id = await begin('renew-film', { parts: { sheet: top } });
  await workTo(id, null);
  expect(await shop.db('surfaces').where({ id: top }).first()).toMatchObject({ renewed_a: 40 });
  expect((await look(top)).thickness).toBe(stateOf(await job(id)).readings['wipe.thickness']);
});

test('steps done without a signal come in later, with their own times; never in the future', async () => {
  const id = await begin('under-bed-check');
  shop.clock.now = NOW + 3 * HOUR;
  const one = await job(id);
  await tell(id, { ...doneWell(setupOf(one), stateOf(one)), at: NOW + 60_000 }).expect(200);
  const two = await job(id);
  expect(two.enteredAt).toBe(NOW + 60_000);
  await tell(id, { ...doneWell(setupOf(two), stateOf(two)), at: NOW + 99 * HOUR }).expect(200);
  expect((await job(id)).enteredAt).toBe(NOW + 3 * HOUR);
});

test.each([
  [{ procedureId: 'none' }, 'procedureId'],
  [{ procedureId: 'fit-film' }, 'machineId'],
  [{ procedureId: 'fit-base-and-sheet', choices: { alcohol: '90', from: 'back' } }, 'choices.wait'],
  [{ procedureId: 'check-plate', parts: { lid: newId() } }, 'parts.lid'],
  [{ procedureId: 'check-plate', parts: { plate: newId() } }, 'parts.plate'],
])('%j can not be begun', async (more, field) => {
  const body = {
    version: 0,
    machineId: shop.machineId,
    choices: {},
    parts: {},
    at: NOW,
    ...more,
  };
  const { body: answer } = await shop.api.put(`/api/jobs/${newId()}`).send(body).expect(422);
  expect(Object.keys(answer.error.fields)).toEqual([field]);
});

test('a job that is nowhere, and an event that is none', async () => {
  await shop.api.get(`/api/jobs/${newId()}`).expect(404);
  await tell(newId(), { kind: 'undone', at: NOW, stepId: 'x' }).expect(404);
  await shop.api
    .put(`/api/jobs/${newId()}/events/${newId()}`)
    .send({ event: { kind: 'done', at: NOW, stepId: 'x', way: 1 } })
    .expect(422);
});

describe('a shop’s own procedure', () => {
  const own = (): Procedure => ({ ...procedure('under-bed-check'), title: 'Under the bed, our way' });
  const save = (id: string, doc: Procedure, version = 0) =>
    shop.api.put(`/api/procedures/${id}`).send({ doc, basedOn: 'under-bed-check', version, at: NOW });

  test('is a copy with versions; a job goes on with the one it began with', async () => {
    const id = newId();
    const first = (await save(id, own()).expect(200)).body as ProcedureRecord;
    expect(first).toMatchObject({ version: 1, basedOn: 'under-bed-check', title: 'Under the bed, our way' });
    const jobId = await begin('under-bed-check', { procedureId: id, version: 1 });
    const changed = own();
    changed.steps = changed.steps.map((step) =>
      step.id === 'off' ? { ...step, doing: 'Off, cool, and a lamp.' } : step,
    );
    await save(id, changed, 1).expect(200);
    expect((await job(jobId)).procedure.steps[0]!.doing).toBe(own().steps[0]!.doing);
    const { body } = await shop.api.get(`/api/procedures/${id}?version=1`).expect(200);
    expect(body.doc.steps[0].doing).toBe(own().steps[0]!.doing);
    expect((await shop.api.get('/api/procedures').expect(200)).body.items.at(-1)).toMatchObject({ id, version: 2 });
    expect((await save(id, own(), 1).expect(409)).body.error.code).toBe('stale');
  });

  test('one that can’t be worked through is refused at its step', async () => {
    const broken = own();
    broken.steps = broken.steps.map((step) => (step.id === 'feel' ? { ...step, next: 'nowhere' } : step));
    const { body } = await save(newId(), broken).expect(422);
    expect(body.error.fields).toEqual({ 'doc.steps.1': 'It leads to “nowhere”, which is no step.' });
    await save(newId(), { ...own(), steps: [] }).expect(422);
    await save(newId(), { ...own(), surprise: 1 } as never).expect(422);
  });

  test.each([
    [{ kind: 'hold', part: 'x', hold: 'cure', reason: 'glue' }, 'hours'],
    [{ kind: 'work', part: 'x', note: '' }, 'work'],
    [{ kind: 'materials' }, 'used'],
    [{ kind: 'inspect', part: 'x', card: 'film' }, 'codes'],
    [{ kind: 'level' }, 'way'],
    [{ kind: 'lapped', part: 'x', step: 'look' }, 'how'],
    [{ kind: 'surveyed', part: 'x' }, 'takes'],
    [{ kind: 'take-off', part: 'x' }, 'place'],
    [{ kind: 'book' }, 'text'],
  ])('an effect without what it needs is refused at its field: %j', async (effect, field) => {
    const broken = own();
    broken.steps = broken.steps.map((step, i) => (i === 0 ? { ...step, effects: [effect as never] } : step));
    const { body } = await save(newId(), broken).expect(422);
    expect(Object.keys(body.error.fields)).toContain(`doc.steps.0.effects.0.${field}`);
  });

  test('what ships is not changed, and an id is an id', async () => {
    await save('our-way', own()).expect(404);
    expect((await save('under-bed-check', own()).expect(409)).body.error.code).toBe('shipped');
  });
});

test('every shipped job, its server gone after each step, goes on at that step to its end', async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-jobs-'));
  const file = path.join(folder, 'jobs.sqlite');
  try {
    for (const doc of PROCEDURES) {
      const family = doc.family === 'any' ? 'filament' : doc.family;
      const own = await openShop({ family });
      const id = newId();
      await own.api
        .put(`/api/jobs/${id}`)
        .send({ procedureId: doc.id, version: 0, machineId: own.machineId, choices: usual(doc), parts: {}, at: NOW })
        .expect(200);
      fs.rmSync(file, { force: true });
      await own.db.raw('VACUUM INTO ?', [file]);
      await own.close();
      let steps = 0;
      for (let now = NOW; ;) {
        // Each step by a server of its own, which is not closed in order.
        const db = connect(file);
        const one = (await findJob(db, id))!;
        const state = stateOf(one);
        if (state.at === null) {
          expect(one.ended).toBe('done');
          await db.destroy();
          break;
        }
        expect(one.stepTitle).toBe(doc.steps.find((step) => step.id === state.at)!.title);
        const event = doneWell(setupOf(one), state);
        now = event.at;
        await db.transaction((trx) => addJobEvent(trx, id, newId(), event, now));
        await db.destroy();
        steps++;
      }
      expect(steps).toBeGreaterThan(1);
    }
  } finally {
    fs.rmSync(folder, { recursive: true, force: true });
  }
});
