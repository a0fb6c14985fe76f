import type { EventPayloads, Page, PageAsk, Plan, PlanFilter, PlanWrite } from '@even-bed/contract';
import { CORE_VERSION, toolAnswer, type ToolAnswers, type ToolId } from '@even-bed/core';
import { toolSentence, type Reader } from '@even-bed/words';
import type { Knex } from 'knex';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';
import { writeEntry } from '../kernel/book';
import { findMachine } from '../fleet/store';
import { actorOf } from '../kernel/acting';
import { atField, idTaken, notFound } from '../kernel/problem';
import { shopSettings } from '../manner/store';

interface PlanRow {
  id: string;
  machine_id: string;
  tool: Plan['tool'];
  title: string;
  input: string;
  /** What the tool answered, as JSON; null: from a time that kept `sentence` alone. */
  answer: string | null;
  sentence: string;
  core_version: string;
  at: number;
  person_id: string | null;
  withdrawn_at: number | null;
}

/** Keeps what a tool was asked for a machine. The same again changes nothing. @throws Problem a sum that cannot be done */
export async function keepPlan(db: Knex, id: string, write: PlanWrite, told: Answer | null = null): Promise<void> {
  const before = await db<PlanRow>('plans').where({ id }).first();
  if (before) {
    if (before.machine_id !== write.machineId || before.tool !== write.tool) throw idTaken('plan');
    return;
  }
  const machine = await findMachine(db, write.machineId);
  if (!machine) throw atField('machineId', 'This machine is not here.');
  const answer = told ?? answered(write);
  await db<PlanRow>('plans').insert({
    id,
    machine_id: machine.id,
    tool: write.tool,
    title: write.title,
    input: JSON.stringify(write.input),
    answer: JSON.stringify(answer),
    sentence: '',
    core_version: CORE_VERSION,
    at: write.at,
    person_id: actorOf(db),
    withdrawn_at: null,
  });
  await writeEntry(db, {
    at: write.at,
    kind: 'plan-kept',
    machineId: machine.id,
    data: { planId: id, tool: write.tool, title: write.title, answer } as EventPayloads['plan-kept'],
  });
}

type Answer = ToolAnswers[ToolId];

function answered({ tool, input }: PlanWrite): Answer {
  try {
    return toolAnswer(tool, input);
  } catch (error) {
    if (error instanceof RangeError) throw atField('input', error.message);
    throw error;
  }
}

/** An answer that is worked out elsewhere, with what the sum refuses said at the field. */
export async function answerOf(asked: Promise<Answer>): Promise<Answer> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof RangeError) throw atField('input', error.message);
    throw error;
  }
}

/** Takes a plan off its machine. */
export async function withdrawPlan(db: Knex, id: string, at: number): Promise<void> {
  const row = (await db('plans as l')
    .join('machines as m', 'm.id', 'l.machine_id')
    .where('l.id', id)
    .select('l.*', 'm.name')
    .first()) as (PlanRow & { name: string }) | undefined;
  if (!row) throw notFound('This plan');
  if (row.withdrawn_at !== null) return;
  await db<PlanRow>('plans').where({ id }).update({ withdrawn_at: at });
  await writeEntry(db, {
    at,
    kind: 'plan-withdrawn',
    machineId: row.machine_id,
    data: { planId: id, title: row.title },
  });
}

const sentenceOf = ({ tool, answer, sentence }: PlanRow, reader: Reader): string =>
  answer === null ? sentence : toolSentence(tool, JSON.parse(answer) as never, reader);

/** Plans that stand, the latest first; each says what was answered in the shop's units of today. */
export async function listPlans(
  db: Knex,
  { id, machineId, machineIds, ...page }: PlanFilter & PageAsk & { id?: string; machineIds?: readonly string[] },
): Promise<Page<Plan>> {
  const query = db('plans as l')
    .leftJoin('people as p', 'p.id', 'l.person_id')
    .whereNull('l.withdrawn_at')
    .select('l.*', 'p.name as person_name');
  latestFirst(query, { at: 'l.at', id: 'l.id' }, page);
  if (id !== undefined) void query.where('l.id', id);
  if (machineId !== undefined) void query.where('l.machine_id', machineId);
  if (machineIds !== undefined) void query.whereIn('l.machine_id', machineIds);
  const reader = await shopSettings(db);
  const rows = (await query) as (PlanRow & { person_name: string | null })[];
  const found = rows.map((row) => ({
    id: row.id,
    machineId: row.machine_id,
    tool: row.tool,
    title: row.title,
    input: JSON.parse(row.input) as Plan['input'],
    sentence: sentenceOf(row, reader),
    at: row.at,
    personName: row.person_name,
  }));
  return pageFrom(found, page.limit, ({ at, id: last }) => placeOf(at, last));
}
