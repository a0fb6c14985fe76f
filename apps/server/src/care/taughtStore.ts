import type { Taught } from '@even-bed/contract';
import { replayRun, type Procedure, type RunEvent } from '@even-bed/core';
import { jobTaught } from '@even-bed/core/care/jobTaught';
import type { Knex } from 'knex';
import { listPlans } from '../fit/store';
import { findMachine, sameModel } from '../fleet/store';
import { notFound } from '../kernel/problem';
import { findSurface } from '../surfaces/store';

/** More is history, no help. */
const MOST_JOBS = 12;
const MOST_PLANS = 20;
/** Finished jobs that are looked through for the latest of each kind. */
const LOOKED_AT = 200;

interface EndedJob {
  id: string;
  procedure_id: string;
  doc: string;
  machine_id: string;
  choices: string;
  parts: string;
  started_at: number;
  ended_at: number;
}

/** What other machines of a machine's model taught. @throws Problem no such machine */
export async function taughtFor(db: Knex, machineId: string): Promise<Taught> {
  const machine = await findMachine(db, machineId);
  if (!machine) throw notFound('This machine');
  const others = await sameModel(db, machine);
  const nameOf = new Map(others.map(({ id, name }) => [id, name]));
  const ids = [...nameOf.keys()];
  if (ids.length === 0) return { facts: [], jobs: [], plans: [] };
  const jobs: Taught['jobs'] = [];
  for (const row of await latestEnded(db, ids))
    jobs.push({ ...(await learned(db, row)), machineName: nameOf.get(row.machine_id)! });
  const { items } = await listPlans(db, { machineIds: ids, limit: MOST_PLANS });
  return {
    facts: others.map(({ id, name, platformKey, adjusters }) => ({
      machineId: id,
      machineName: name,
      platformKey,
      threads: [...new Set(adjusters.map(({ thread }) => thread))],
    })),
    jobs,
    plans: items.map(({ id, tool, title, sentence, machineId: of, at }) => ({
      ...{ planId: id, tool, title, sentence, machineId: of, at },
      machineName: nameOf.get(of)!,
    })),
  };
}

/** The latest finished job of each kind on each of the machines, the latest first. */
async function latestEnded(db: Knex, machineIds: string[]): Promise<EndedJob[]> {
  const heads = await db('jobs')
    .whereIn('machine_id', machineIds)
    .where('ended', 'done')
    .orderBy([
      { column: 'ended_at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ])
    .limit(LOOKED_AT)
    .select<Pick<EndedJob, 'id' | 'procedure_id' | 'machine_id'>[]>('id', 'procedure_id', 'machine_id');
  const latest = new Map<string, string>();
  for (const { id, procedure_id, machine_id } of heads) {
    const kind = `${procedure_id} ${machine_id}`;
    if (!latest.has(kind) && latest.size < MOST_JOBS) latest.set(kind, id);
  }
  const rows = await db<EndedJob>('jobs').whereIn('id', [...latest.values()]);
  return rows.sort((a, b) => b.ended_at - a.ended_at);
}

async function learned(db: Knex, row: EndedJob): Promise<Omit<Taught['jobs'][number], 'machineName'>> {
  const procedure = JSON.parse(row.doc) as Procedure;
  const choices = JSON.parse(row.choices) as Record<string, string>;
  const events = (await db('job_events').where({ job_id: row.id }).orderBy('seq').pluck('event')) as string[];
  const state = replayRun(
    { procedure, choices, startedAt: row.started_at },
    events.map((event) => JSON.parse(event) as RunEvent),
  );
  const parts = JSON.parse(row.parts) as Record<string, string>;
  const fitted: Taught['jobs'][number]['fitted'] = [];
  for (const { id, from } of procedure.parts) {
    const surface = from === 'rack' && parts[id] ? await findSurface(db, parts[id]) : null;
    if (surface)
      fitted.push({
        ...{ tag: surface.tag, kind: surface.kind.name, thickness: surface.thickness },
        ...{ width: surface.width, depth: surface.depth },
      });
  }
  return {
    ...{ jobId: row.id, procedureId: row.procedure_id, title: procedure.title },
    ...{ machineId: row.machine_id, endedAt: row.ended_at, fitted },
    ...jobTaught(procedure, state),
  };
}
