import type { Rule, RuleKind, RuleWrite } from '@even-bed/contract';
import { nextDue } from '@even-bed/core';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { idTaken, stale } from '../kernel/problem';
import { writeVersion } from '../kernel/versioned';

interface Row {
  id: string;
  machine_id: string;
  kind: RuleKind;
  every_days: number;
  last_done_at: number | null;
  next_due_at: number;
  version: number;
}

/** Sets how often a machine's upkeep comes back; the next date follows from when it was last done. */
export async function saveRule(db: Knex, id: string, write: RuleWrite): Promise<Rule> {
  const now = await db<Row>('rules').where({ machine_id: write.machineId, kind: write.kind }).first();
  if (now && now.id !== id) throw idTaken('rule: this machine has one of this kind');
  if ((now?.version ?? 0) !== write.version) throw stale('This rule', now ? ruleOf(now) : null, write);
  const lastDone = now?.last_done_at ?? null;
  const row: Row = {
    id,
    machine_id: write.machineId,
    kind: write.kind,
    every_days: write.everyDays,
    last_done_at: lastDone,
    next_due_at: nextDue({ everyDays: write.everyDays, lastDone, from: write.at }),
    version: write.version + 1,
  };
  if (!(await writeVersion(db, 'rules', row))) throw stale('This rule', now ? ruleOf(now) : null, write);
  await writeEntry(db, {
    at: write.at,
    kind: 'rule-set',
    machineId: write.machineId,
    data: { everyDays: { from: now?.every_days ?? null, to: write.everyDays } },
  });
  return ruleOf(row);
}

/** Notes that a machine's upkeep was done, so that the next date moves on. Earlier work than the last known moves nothing. */
export async function ruleDone(db: Knex, machineId: string, kind: RuleKind, at: number): Promise<void> {
  const row = await db<Row>('rules').where({ machine_id: machineId, kind }).first();
  if (!row || (row.last_done_at !== null && row.last_done_at >= at)) return;
  await db<Row>('rules')
    .where({ id: row.id })
    .update({ last_done_at: at, next_due_at: nextDue({ everyDays: row.every_days, lastDone: at, from: at }) });
}

const ruleOf = (row: Row): Rule => ({
  id: row.id,
  machineId: row.machine_id,
  kind: row.kind,
  everyDays: row.every_days,
  lastDoneAt: row.last_done_at,
  nextDueAt: row.next_due_at,
  version: row.version,
});
