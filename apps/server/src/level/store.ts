import type {
  CheckEnd,
  CheckFilter,
  CheckOutcome,
  CheckSetup,
  CheckStart,
  HeightSource,
  LevelCheck,
  LevelCheckSummary,
  LevelRound,
  MadeTurn,
  Page,
  PageAsk,
  RoundWrite,
  TurnsWrite,
} from '@even-bed/contract';
import { CORE_VERSION, planRound, smallMap, type ParseOptions, type SmallMap, type TurnPlan } from '@even-bed/core';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { findMachine } from '../fleet/store';
import { LIMITS } from '../kernel/limits';
import { atField, idTaken, notFound, Problem } from '../kernel/problem';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';

interface CheckRow {
  id: string;
  machine_id: string;
  machine_name?: string;
  started_at: number;
  ended_at: number | null;
  outcome: CheckOutcome | null;
  note: string;
  setup: string;
  aim: number;
  before_range: number | null;
  after_range: number | null;
  rounds: number;
}

interface RoundRow {
  id: string;
  check_id: string;
  seq: number;
  taken_at: number;
  source: HeightSource;
  raw: string;
  reading: string;
  plan: string;
  small_map: string | null;
  points: number;
  core_version: string;
  made_at: number | null;
  hand_told: number | boolean;
}

interface MadeRow {
  round_id: string;
  adjuster_id: string;
  turns: number;
}

/** Begins a check. The same start again changes nothing. */
export async function startCheck(db: Knex, id: string, start: CheckStart): Promise<void> {
  const before = await db<CheckRow>('level_checks').where({ id }).first();
  if (before) {
    if (before.machine_id !== start.machineId || before.started_at !== start.startedAt) throw idTaken('check');
    return;
  }
  const machine = await findMachine(db, start.machineId);
  if (!machine) throw notFound('This machine');
  await db<CheckRow>('level_checks').insert({
    id,
    machine_id: start.machineId,
    started_at: start.startedAt,
    ended_at: null,
    outcome: null,
    note: '',
    setup: JSON.stringify(start.setup),
    aim: start.setup.aim,
    before_range: null,
    after_range: null,
    rounds: 0,
  });
  await writeEntry(db, {
    at: start.startedAt,
    kind: 'check-started',
    machineId: start.machineId,
    checkId: id,
    data: { aim: start.setup.aim },
  });
}

/** Keeps one reading raw and what the sums say of it. The same reading again changes nothing. */
export async function saveRound(
  db: Knex,
  checkId: string,
  id: string,
  write: RoundWrite,
  planned: PlannedRound | null = null,
): Promise<void> {
  const before = await db<RoundRow>('level_rounds').where({ id }).first();
  if (before) {
    if (before.check_id !== checkId || before.raw !== write.raw || before.seq !== write.seq) throw idTaken('reading');
    return;
  }
  const check = await openCheck(db, checkId);
  if (write.seq !== check.rounds + 1) {
    throw new Problem(409, 'out-of-order', `Reading ${write.seq} came, but reading ${check.rounds + 1} is next.`);
  }
  await refuseTooLong(db, checkId, write);
  const setup = JSON.parse(check.setup) as CheckSetup;
  const { plan, points, map } = planFor(write, setup, planned);
  await db<RoundRow>('level_rounds').insert({
    id,
    check_id: checkId,
    seq: write.seq,
    taken_at: write.takenAt,
    source: write.source,
    raw: write.raw,
    reading: JSON.stringify(write.reading),
    plan: JSON.stringify(plan),
    small_map: map && JSON.stringify(map),
    points,
    core_version: CORE_VERSION,
    made_at: null,
    hand_told: false,
  });
  await db<CheckRow>('level_checks')
    .where({ id: checkId })
    .update({
      rounds: write.seq,
      before_range: check.before_range ?? plan.before.range,
      after_range: plan.before.range,
    });
  await writeEntry(db, {
    at: write.takenAt,
    kind: 'heights-read',
    machineId: check.machine_id,
    checkId,
    data: {
      roundId: id,
      seq: write.seq,
      source: write.source,
      points,
      range: plan.before.range,
      predicted: plan.after.range,
    },
  });
}

/** @throws Problem 422 a check of more readings, or of longer ones, than anybody makes of one bed */
async function refuseTooLong(db: Knex, checkId: string, { seq, raw }: RoundWrite): Promise<void> {
  const kept = await db('level_rounds')
    .where({ check_id: checkId })
    .sum({ length: db.raw('length(raw)') })
    .first();
  if (seq > LIMITS.rounds || Number(kept?.['length'] ?? 0) + raw.length > LIMITS.roundsText)
    throw atField('raw', 'This check is full. End it, and begin another: the machine keeps what was learned.');
}

/** What a reading was worked out to be, before it is written down. */
export type PlannedRound = ReturnType<typeof planRound>;

/** Which machine a check is of, or null. */
export async function machineOfCheck(db: Knex, checkId: string): Promise<string | null> {
  const row = await db<CheckRow>('level_checks').where({ id: checkId }).first('machine_id');
  return row?.machine_id ?? null;
}

/** The setup of a check, or null. */
export async function setupOf(db: Knex, checkId: string): Promise<CheckSetup | null> {
  const row = await db<CheckRow>('level_checks').where({ id: checkId }).first();
  return row ? (JSON.parse(row.setup) as CheckSetup) : null;
}

/** What the sums say of a reading: the plan, from the raw text and the setup alone. */
export function planFor(
  { raw, reading }: Pick<RoundWrite, 'raw' | 'reading'>,
  setup: CheckSetup,
  planned: PlannedRound | null = null,
): { plan: TurnPlan; points: number; map: SmallMap | null } {
  const { parsed, plan } = planned ?? planRound({ raw, reading }, setup);
  if (!plan) {
    const open = parsed.questions.filter(({ taken }) => taken === null);
    const fields = Object.fromEntries([
      ...parsed.needs.map((need) => [`reading.${need}`, 'Say where this height map lies.']),
      ...open.map(({ code, options }) => [
        `reading.answers.${code}`,
        `These heights can be read in more than one way. Say which: ${options.join(', ')}.`,
      ]),
    ]) as Record<string, string>;
    const message =
      parsed.needs.length > 0
        ? 'This height map does not say where it lies on the plate.'
        : 'These heights can be read in more than one way; say which.';
    throw new Problem(422, 'not-valid', message, { fields });
  }
  return { plan, points: parsed.points.length, map: smallMap(parsed.points) };
}

/** Notes the turns that were made after a reading. The same turns again change nothing. */
export async function saveTurns(
  db: Knex,
  checkId: string,
  roundId: string,
  { madeAt, turns }: TurnsWrite,
): Promise<void> {
  const round = await db<RoundRow>('level_rounds').where({ id: roundId, check_id: checkId }).first();
  if (!round) throw notFound('This reading');
  if (round.made_at !== null) {
    const made = await db<MadeRow>('made_turns').where({ round_id: roundId });
    const same =
      made.length === turns.length &&
      turns.every((t) => made.some((m) => m.adjuster_id === t.adjusterId && m.turns === t.turns));
    if (!same)
      throw new Problem(409, 'already-made', 'Other turns were noted for this reading already. Measure again.');
    return;
  }
  const check = await openCheck(db, checkId);
  const { adjusters } = JSON.parse(check.setup) as CheckSetup;
  const stranger = turns.findIndex(({ adjusterId }) => !adjusters.some(({ id }) => id === adjusterId));
  if (stranger >= 0) {
    const message = 'This machine has no such adjuster.';
    throw new Problem(422, 'not-valid', message, { fields: { [`turns.${stranger}.adjusterId`]: message } });
  }
  await db<RoundRow>('level_rounds').where({ id: roundId }).update({ made_at: madeAt });
  if (turns.length > 0) {
    await db<MadeRow>('made_turns').insert(
      turns.map((t) => ({ round_id: roundId, adjuster_id: t.adjusterId, turns: t.turns })),
    );
  }
  const machine = await findMachine(db, check.machine_id);
  await writeEntry(db, {
    at: madeAt,
    kind: 'turns-made',
    machineId: check.machine_id,
    checkId,
    data: {
      roundId,
      turns: turns.map((turn) => ({
        ...turn,
        name: machine!.adjusters.find(({ id }) => id === turn.adjusterId)?.name ?? turn.adjusterId,
        ...(adjusters.find(({ id }) => id === turn.adjusterId)?.motor ? { motor: true as const } : {}),
      })),
      seenFrom: machine!.seenFrom,
    },
  });
}

/** Ends a check. A finished one moves the machine's next date. The same end again changes nothing. */
export async function endCheck(db: Knex, id: string, { endedAt, outcome, note }: CheckEnd): Promise<void> {
  const check = await findRow(db, id);
  if (!check) throw notFound('This check');
  if (check.outcome !== null) {
    if (check.outcome !== outcome || check.ended_at !== endedAt) {
      throw new Problem(409, 'already-ended', 'This check was ended already.');
    }
    return;
  }
  if (outcome === 'finished' && check.rounds === 0) {
    throw new Problem(422, 'no-reading', 'There is no reading yet: measure first, or drop the check.');
  }
  await db<CheckRow>('level_checks').where({ id }).update({ ended_at: endedAt, outcome, note });
  const line = { at: endedAt, machineId: check.machine_id, checkId: id };
  const { before_range: before, after_range: after, aim, rounds } = check;
  await writeEntry(
    db,
    outcome === 'finished'
      ? { ...line, kind: 'check-finished', data: { before: before!, after: after!, aim, rounds, note } }
      : { ...line, kind: 'check-dropped', data: { before, after, aim, rounds, note } },
  );
}

export async function findCheck(db: Knex, id: string): Promise<LevelCheck | null> {
  const row = await findRow(db, id);
  if (!row) return null;
  const rounds = await db<RoundRow>('level_rounds').where({ check_id: id }).orderBy('seq');
  const made = await db<MadeRow>('made_turns').whereIn(
    'round_id',
    rounds.map((round) => round.id),
  );
  return {
    ...summaryOf(row),
    setup: JSON.parse(row.setup) as CheckSetup,
    note: row.note,
    roundList: rounds.map((round) => roundOf(round, made)),
  };
}

/** A page of checks, the one begun last first. */
export async function listChecks(
  db: Knex,
  { machineId, state, ...page }: CheckFilter & PageAsk,
): Promise<Page<LevelCheckSummary>> {
  const query = latestFirst(checksWithNames(db), { at: 'c.started_at', id: 'c.id' }, page);
  if (machineId !== undefined) void query.where('c.machine_id', machineId);
  if (state === 'open') void query.whereNull('c.outcome');
  if (state === 'ended') void query.whereNotNull('c.outcome');
  const rows = (await query) as CheckRow[];
  return pageFrom(rows.map(summaryOf), page.limit, ({ startedAt, id }) => placeOf(startedAt, id));
}

/** Turns of a machine's rounds that its simulated console has not been told of yet, oldest first. */
export async function turnsToTell(db: Knex, machineId: string): Promise<{ roundId: string; turns: MadeTurn[] }[]> {
  const rounds = (await db('level_rounds as r')
    .join('level_checks as c', 'c.id', 'r.check_id')
    .where({ 'c.machine_id': machineId, 'r.hand_told': false })
    .whereNotNull('r.made_at')
    .orderBy('r.made_at')
    .select('r.id')) as { id: string }[];
  const ids = rounds.map(({ id }) => id);
  const made = await db<MadeRow>('made_turns').whereIn('round_id', ids);
  return ids.map((roundId) => ({ roundId, turns: madeIn(made, roundId) }));
}

export async function turnsTold(db: Knex, roundId: string): Promise<void> {
  await db<RoundRow>('level_rounds').where({ id: roundId }).update({ hand_told: true });
}

const checksWithNames = (db: Knex) =>
  db('level_checks as c').join('machines as m', 'm.id', 'c.machine_id').select('c.*', 'm.name as machine_name');
const findRow = (db: Knex, id: string) =>
  checksWithNames(db).where('c.id', id).first() as Promise<CheckRow | undefined>;

async function openCheck(db: Knex, id: string): Promise<CheckRow> {
  const row = await findRow(db, id);
  if (!row) throw notFound('This check');
  if (row.outcome !== null) throw new Problem(409, 'already-ended', 'This check was ended already; begin a new one.');
  return row;
}

const summaryOf = (row: CheckRow): LevelCheckSummary => ({
  id: row.id,
  machineId: row.machine_id,
  machineName: row.machine_name!,
  startedAt: row.started_at,
  endedAt: row.ended_at,
  outcome: row.outcome,
  before: row.before_range,
  after: row.after_range,
  aim: row.aim,
  rounds: row.rounds,
});

const madeIn = (made: MadeRow[], roundId: string): MadeTurn[] =>
  made.filter((row) => row.round_id === roundId).map(({ adjuster_id, turns }) => ({ adjusterId: adjuster_id, turns }));

const roundOf = (row: RoundRow, made: MadeRow[]): LevelRound => ({
  id: row.id,
  seq: row.seq,
  takenAt: row.taken_at,
  source: row.source,
  raw: row.raw,
  reading: JSON.parse(row.reading) as ParseOptions,
  plan: JSON.parse(row.plan) as TurnPlan,
  points: row.points,
  madeAt: row.made_at,
  made: madeIn(made, row.id),
  coreVersion: row.core_version,
});
