import type { Job, JobEntry, JobFilter, JobLayer, JobStart, Page, PageAsk, PlainLayer } from '@even-bed/contract';
import {
  applyRunEvent,
  beginRun,
  checkProcedure,
  effectsOf,
  ImpossibleEvent,
  progressOf,
  replayRun,
  RunRefusal,
  timerOf,
  type Procedure,
  type RunEvent,
  type RunSetup,
  type RunState,
  type Side,
  type Slot,
} from '@even-bed/core';
import type { Knex } from 'knex';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';
import { writeEntry } from '../kernel/book';
import { findMachine } from '../fleet/store';
import { actorOf } from '../kernel/acting';
import { LIMITS } from '../kernel/limits';
import { atField, idTaken, notFound, Problem } from '../kernel/problem';
import { findPerson } from '../people/store';
import { readStack } from '../surfaces/stackStore';
import { findSurface } from '../surfaces/store';
import { isLead, performEffects, wholeOrNot, type StepRecord } from './jobEffects';
import { reverseEffects } from './jobUndo';
import { procedureToBegin } from './procedureStore';

interface JobRow {
  id: string;
  procedure_id: string;
  procedure_version: number;
  doc: string;
  machine_id: string;
  choices: string;
  parts: string;
  sides: string;
  stack_before: string;
  started_at: number;
  person_id: string | null;
  holder_id: string | null;
  step_title: string | null;
  step: number;
  steps: number;
  together: string | null;
  entered_at: number;
  wait_until: number | null;
  ended: JobEntry['ended'];
  ended_at: number | null;
}
interface EventRow {
  id: string;
  job_id: string;
  seq: number;
  event: string;
  received_at: number;
  person_id: string | null;
  /** What it changed in the records, as JSON; null: from a time in which this was not kept. */
  recorded: string | null;
}
type NamedJob = JobRow & { machine_name: string; holder_name: string | null };

async function layersOf(db: Knex, machineId: string): Promise<JobLayer[]> {
  const { layers } = await readStack(db, machineId);
  return layers
    .filter(({ slot }) => slot !== 'film')
    .map(({ name, thickness, measured, limit, slot, material }) => ({
      name,
      thickness,
      measured,
      limit,
      slot,
      material,
    }));
}

/** Columns that follow from the state. */
function columnsOf(setup: RunSetup, state: RunState): Partial<JobRow> {
  const { at, of } = progressOf(setup, state);
  const step = setup.procedure.steps.find(({ id }) => id === state.at);
  return {
    step_title: step?.title ?? null,
    step: at,
    steps: of,
    entered_at: state.enteredAt,
    wait_until: timerOf(setup, state)?.until ?? null,
    ended: state.ended,
    ended_at: state.ended === null ? null : state.enteredAt,
  };
}

const setupOf = (row: JobRow): RunSetup => ({
  procedure: JSON.parse(row.doc) as Procedure,
  choices: JSON.parse(row.choices) as Record<string, string>,
  startedAt: row.started_at,
});

/** Begins a job with the version named. The same again changes nothing. */
export async function startJob(db: Knex, id: string, write: JobStart, now: number): Promise<void> {
  const before = await db<JobRow>('jobs').where({ id }).first();
  if (before) {
    if (before.machine_id !== write.machineId || before.procedure_id !== write.procedureId) throw idTaken('job');
    return;
  }
  const procedure = await procedureToBegin(db, write);
  if (!procedure) throw atField('procedureId', 'This job is not known here.');
  const machine = await findMachine(db, write.machineId);
  if (!machine) throw atField('machineId', 'This machine is not here.');
  const { doc } = procedure;
  if (doc.family !== 'any' && doc.family !== machine.family)
    throw atField(
      'machineId',
      `${machine.name} is a ${machine.family} printer; this job is for ${doc.family} printers.`,
    );
  for (const { id: choice, question, options } of doc.choices)
    if (!options.some((option) => option.id === write.choices[choice])) throw atField(`choices.${choice}`, question);
  for (const [part, surfaceId] of Object.entries(write.parts)) {
    const asked = doc.parts.find((known) => known.id === part);
    if (!asked) throw atField(`parts.${part}`, 'This job has no such part.');
    const surface = await findSurface(db, surfaceId);
    if (!surface || !asked.groups.includes(surface.kind.group))
      throw atField(`parts.${part}`, `${asked.label}: choose one that fits.`);
  }
  if (checkProcedure(doc).length > 0)
    throw new Problem(422, 'not-workable', 'This job can’t be worked through as it is written.');
  const at = Math.min(write.at, now);
  const setup: RunSetup = { procedure: doc, choices: write.choices, startedAt: at };
  await db<JobRow>('jobs').insert({
    id,
    procedure_id: write.procedureId,
    procedure_version: procedure.version,
    doc: JSON.stringify(doc),
    machine_id: machine.id,
    choices: JSON.stringify(write.choices),
    parts: JSON.stringify(write.parts),
    sides: JSON.stringify(write.sides),
    stack_before: JSON.stringify(await layersOf(db, machine.id)),
    started_at: at,
    together: write.together,
    person_id: actorOf(db),
    holder_id: actorOf(db),
    ...columnsOf(setup, beginRun(setup)),
  } as JobRow);
  const schools = doc.choices.map(
    ({ options, id: choice }) => options.find((option) => option.id === write.choices[choice])!.label,
  );
  await writeEntry(db, {
    at,
    kind: 'job-started',
    machineId: machine.id,
    data: { jobId: id, procedureId: write.procedureId, version: procedure.version, title: doc.title, schools },
  });
}

/**
 * Takes what happened in a job, in its order: all of a card, or nothing of it. What is known already is passed over, so
 * that a batch that was sent twice, or broke off, doubles nothing.
 * @param db a transaction: it is left as it was when one of them is refused
 * @throws Problem what the engine refuses, with its fields
 */
export async function addJobEvents(
  db: Knex,
  jobId: string,
  events: readonly { id: string; event: RunEvent }[],
  now: number,
): Promise<void> {
  for (const { id, event } of events) await addJobEvent(db, jobId, id, event, now);
}

/**
 * Takes one more event of a job: checked by the same engine as on the device, its effects on the records with it. The
 * same again changes nothing.
 * @throws Problem what the engine refuses, with its fields
 */
export async function addJobEvent(
  db: Knex,
  jobId: string,
  eventId: string,
  told: RunEvent,
  now: number,
): Promise<void> {
  const known = await db<EventRow>('job_events').where({ id: eventId }).first();
  if (known) {
    if (known.job_id !== jobId) throw idTaken('step of a job');
    return;
  }
  const row = await db<JobRow>('jobs').where({ id: jobId }).first();
  if (!row) throw notFound('This job');
  const machine = (await findMachine(db, row.machine_id))!;
  const setup = setupOf(row);
  const earlier = await eventsOf(db, jobId);
  if (earlier.length >= LIMITS.jobEvents && told.kind !== 'stopped')
    throw new Problem(422, 'job-full', 'This job is full of steps. Stop it with its reason, and begin another.');
  const state = replayRun(
    setup,
    earlier.map(({ event }) => JSON.parse(event) as RunEvent),
  );
  // A device's clock may run ahead; nothing is done in the future.
  const event: RunEvent = { ...(await namedAsKnown(db, told)), at: Math.min(told.at, now) };
  const after = taken(setup, state, event);
  const undone = event.kind === 'undone' ? lastDone(earlier) : null;
  if (undone) await needRights(db, undone);
  await db<EventRow>('job_events').insert({
    id: eventId,
    job_id: jobId,
    seq: earlier.length + 1,
    event: JSON.stringify(event),
    received_at: now,
    person_id: actorOf(db),
    recorded: '[]',
  });
  await db<JobRow>('jobs')
    .where({ id: jobId })
    .update({ ...columnsOf(setup, after), ...(after.holderId === null ? {} : { holder_id: after.holderId }) });
  const where = {
    db,
    now,
    machine,
    title: setup.procedure.title,
    jobId,
    eventId,
    parts: JSON.parse(row.parts) as Record<string, string>,
    sides: JSON.parse(row.sides) as Record<string, Side>,
    measured: measuredBy(setup, after),
    plain: plainBy(setup, after),
  };
  const recorded = await performEffects(where, event.at, effectsOf(setup, event, after));
  if (recorded.length > 0)
    await db<EventRow>('job_events')
      .where({ id: eventId })
      .update({ recorded: JSON.stringify(recorded) });
  if (event.kind === 'undone') {
    if (undone?.recorded != null) await reverseEffects(where, event.at, JSON.parse(undone.recorded) as StepRecord[]);
    else if (undone && effectsOf(setup, JSON.parse(undone.event) as RunEvent, state).some((effect) => 'part' in effect))
      await wholeOrNot(where, event.at, null, () => {
        throw new ImpossibleEvent('no-change', 'It was done before steps kept what they change. Put it right by hand.');
      });
  }
  const { title } = setup.procedure;
  if (event.kind === 'handed-over')
    await writeEntry(db, {
      at: event.at,
      kind: 'job-handed-over',
      machineId: machine.id,
      data: { jobId, title, toId: event.toId, toName: event.toName, note: event.note },
    });
  if (after.ended !== null && state.ended === null)
    await writeEntry(db, {
      at: event.at,
      kind: 'job-ended',
      machineId: machine.id,
      data: { jobId, title, ended: after.ended, note: after.ended === 'done' ? '' : lastNote(after) },
    });
}

/** Who takes it over by the name that the shop knows: what is told of a name is no record. */
async function namedAsKnown(db: Knex, told: RunEvent): Promise<RunEvent> {
  if (told.kind !== 'handed-over') return told;
  const to = await findPerson(db, told.toId);
  if (!to) throw atField('toId', 'This person is not here.');
  return { ...told, toName: to.name };
}

/** Taking back wants the rights of what is taken back. @throws Problem 403 a lead’s step */
async function needRights(db: Knex, { recorded }: EventRow): Promise<void> {
  const records = JSON.parse(recorded ?? '[]') as StepRecord[];
  const retired = records.some((record) => record.kind === 'event' && record.recorded.event.kind === 'retired');
  if (retired && !(await isLead(db)))
    throw new Problem(403, 'not-allowed', 'This step retired a surface: a lead takes it back.');
}

/** What the readings so far say of the thickness of what comes to lie in each slot, with what is stuck to it for good. */
function measuredBy({ procedure, choices }: RunSetup, { readings }: RunState): Partial<Record<Slot, number>> {
  const layers = procedure.steps
    .flatMap((step) => step.layers ?? [])
    .filter(({ only }) => !only || only.is.includes(choices[only.choice] ?? ''));
  // The same layer is named by several steps.
  const joined = [
    ...new Map(layers.filter(({ joins }) => joins !== undefined).map((one) => [one.reading, one])).values(),
  ];
  return Object.fromEntries(
    layers.flatMap(({ slot, reading, name, part }) => {
      const own = name === undefined && reading !== undefined ? readings[reading] : undefined;
      if (own === undefined) return [];
      const stuck = joined.filter(({ joins }) => joins === part).map((one) => readings[one.reading ?? ''] ?? 0);
      return [[slot, stuck.reduce((sum, thickness) => sum + thickness, own)]];
    }),
  );
}

/** Plain layers that the job lays under what it puts on: a pad. By the slot that they lie under. */
function plainBy({ procedure, choices }: RunSetup, { readings }: RunState): PlainLayer[] {
  const laid = procedure.steps
    .flatMap(({ layers = [] }) => layers)
    .filter(
      ({ name, only, joins }) =>
        name !== undefined && joins === undefined && (!only || only.is.includes(choices[only.choice] ?? '')),
    );
  return [...new Map(laid.map((layer) => [layer.reading, layer])).values()].flatMap(({ slot, reading, name }) => {
    const thickness = readings[reading ?? ''];
    return thickness === undefined ? [] : [{ name: name!, under: slot, thickness, measured: true, limit: null }];
  });
}

const lastNote = ({ notes }: RunState) => notes.at(-1)?.note ?? '';

/** The event that an undoing takes back: the last that left a step and is not taken back already. */
function lastDone(rows: readonly EventRow[]): EventRow | null {
  let back = 0;
  for (let i = rows.length - 1; i >= 0; i--) {
    const { kind } = JSON.parse(rows[i]!.event) as RunEvent;
    if (kind === 'undone') back++;
    else if (kind === 'done' || kind === 'cant' || kind === 'stopped') {
      if (back === 0) return rows[i]!;
      back--;
    }
  }
  return null;
}

function taken(setup: RunSetup, state: RunState, event: RunEvent): RunState {
  try {
    return applyRunEvent(setup, state, event);
  } catch (error) {
    if (!(error instanceof RunRefusal)) throw error;
    const status = error.code === 'elsewhere' || error.code === 'ended' ? 409 : 422;
    throw new Problem(status, error.code, error.message, { fields: error.fields });
  }
}

const eventsOf = (db: Knex, jobId: string) => db<EventRow>('job_events').where({ job_id: jobId }).orderBy('seq');

const named = (db: Knex) =>
  db('jobs as j')
    .join('machines as m', 'm.id', 'j.machine_id')
    .leftJoin('people as p', 'p.id', 'j.holder_id')
    .select('j.*', 'm.name as machine_name', 'p.name as holder_name');

const entryOf = (row: NamedJob): JobEntry => ({
  id: row.id,
  title: (JSON.parse(row.doc) as Procedure).title,
  machineId: row.machine_id,
  machineName: row.machine_name,
  startedAt: row.started_at,
  holderName: row.holder_name,
  stepTitle: row.step_title,
  enteredAt: row.entered_at,
  waitUntil: row.wait_until,
  ended: row.ended,
  endedAt: row.ended_at,
  step: row.step,
  steps: row.steps,
  together: row.together,
  parts: JSON.parse(row.parts) as Record<string, string>,
});

/** Jobs, the latest first; only those under way when asked so. */
export async function listJobs(db: Knex, filter: JobFilter & PageAsk): Promise<Page<JobEntry>> {
  const query = latestFirst(named(db), { at: 'j.started_at', id: 'j.id' }, filter);
  if (filter.machineId !== undefined) void query.where('j.machine_id', filter.machineId);
  if (filter.together !== undefined) void query.where('j.together', filter.together);
  if (filter.open) void query.whereNull('j.ended');
  const rows = (await query) as NamedJob[];
  return pageFrom(rows.map(entryOf), filter.limit, ({ startedAt, id }) => placeOf(startedAt, id));
}

/** A job with its events, or null. */
export async function findJob(db: Knex, id: string): Promise<Job | null> {
  const row = (await named(db).where('j.id', id).first()) as NamedJob | undefined;
  if (!row) return null;
  const events = (await db('job_events as e')
    .leftJoin('people as p', 'p.id', 'e.person_id')
    .where('e.job_id', id)
    .orderBy('e.seq')
    .select('e.*', 'p.name as person_name')) as (EventRow & { person_name: string | null })[];
  const { procedure, choices } = setupOf(row);
  return {
    ...entryOf(row),
    procedure,
    choices,
    stackBefore: JSON.parse(row.stack_before) as JobLayer[],
    events: events.map(({ id: eventId, event, person_name }) => ({
      ...(JSON.parse(event) as RunEvent),
      id: eventId,
      personName: person_name,
    })),
  };
}
