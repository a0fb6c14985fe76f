import type {
  Area,
  AreaWrite,
  Changed,
  Machine,
  MachineAdjuster,
  MachineFacts,
  MachineOverview,
  MachineWrite,
} from '@even-bed/contract';
import type { Side, SmallMap, Extent } from '@even-bed/core';
import { PRINTS_BACK, readiness, type ReadinessFacts } from '@even-bed/core/fleet/readiness';
import type { Knex } from 'knex';
import { jsonText } from '../db/jsonText';
import { writeEntry } from '../kernel/book';
import { freeTag } from '../tags/store';
import { Problem, stale } from '../kernel/problem';
import { writeVersion } from '../kernel/versioned';
import { zerosOf } from './zeroStore';

interface AreaRow {
  id: string;
  name: string;
  position: number;
  version: number;
  created_at: number;
  updated_at: number;
}

interface MachineRow {
  id: string;
  area_id: string;
  name: string;
  shelf: string;
  model: string;
  family: MachineFacts['family'];
  plate_width: number;
  plate_depth: number;
  print_width: number;
  print_depth: number;
  origin_x: number;
  origin_y: number;
  first_layer: number;
  seen_from: MachineFacts['seenFrom'];
  compensation: number | boolean;
  aim: number | null;
  finding: MachineFacts['finding'];
  plus: MachineFacts['plus'];
  map_extent: string | null;
  map_first_row: MachineFacts['mapFirstRow'];
  console: string | null;
  hottest: number | null;
  platform_key: number | null;
  tag: string;
  note: string;
  version: number;
  created_at: number;
  updated_at: number;
}

interface AdjusterRow extends Omit<MachineAdjuster, 'id'> {
  machine_id: string;
  id: string;
  position: number;
}

interface OverviewRow extends MachineRow {
  area_name: string;
  rule_id: string | null;
  every_days: number | null;
  next_due_at: number | null;
  rule_version: number | null;
  open_check_id: string | null;
  held_until: number | null;
  last_id: string | null;
  last_ended_at: number | null;
  last_before: number | null;
  last_after: number | null;
  last_aim: number | null;
  last_map: string | null;
  top: string | null;
  mounted: number | null;
  printed_on: number | null;
  asked: string | null;
  job: string | null;
  latest: string | null;
  last_three: number | null;
}

export async function listAreas(db: Knex): Promise<Area[]> {
  const rows = await db<AreaRow>('areas').orderBy(['position', 'name']);
  return rows.map(areaOf);
}

export async function saveArea(db: Knex, id: string, { name, position, version, at }: AreaWrite): Promise<Area> {
  const now = await db<AreaRow>('areas').where({ id }).first();
  if ((now?.version ?? 0) !== version)
    throw stale('This area', now ? areaOf(now) : null, { id, name, position, version });
  const row = { id, name, position, version: version + 1, created_at: now?.created_at ?? at, updated_at: at };
  if (!(await writeVersion(db, 'areas', row))) throw stale('This area', null, row);
  await writeEntry(
    db,
    now
      ? { at, kind: 'area-changed', data: { areaId: id, name, position, was: now.name } }
      : { at, kind: 'area-added', data: { areaId: id, name, position } },
  );
  return areaOf(row);
}

const areaOf = ({ id, name, position, version }: AreaRow): Area => ({ id, name, position, version });

export async function findMachine(db: Knex, id: string): Promise<Machine | null> {
  const row = await db<MachineRow>('machines').where({ id }).first();
  if (!row) return null;
  return machineOf(row, await db<AdjusterRow>('adjusters').where({ machine_id: id }).orderBy('position'));
}

/** Other machines of the same model and family, in capitals or not; by name. */
export async function sameModel(db: Knex, { id, model, family }: Machine): Promise<Machine[]> {
  const rows = await db<MachineRow>('machines')
    .whereRaw('lower(trim(model)) = ?', [model.trim().toLowerCase()])
    .where({ family })
    .whereNot({ id })
    .orderBy('name')
    .limit(MOST_ALIKE);
  const adjusters = await db<AdjusterRow>('adjusters')
    .whereIn(
      'machine_id',
      rows.map((row) => row.id),
    )
    .orderBy(['machine_id', 'position']);
  return rows.map((row) =>
    machineOf(
      row,
      adjusters.filter(({ machine_id }) => machine_id === row.id),
    ),
  );
}
/** More machines of one model teach nothing more. */
const MOST_ALIKE = 50;

/** All machines with their rule, last finished check and check under way, by area and name. */
export async function listMachines(db: Knex, now: number, id?: string): Promise<MachineOverview[]> {
  const query = db('machines as m')
    .join('areas as a', 'a.id', 'm.area_id')
    .leftJoin('rules as r', (on) => on.on('r.machine_id', 'm.id').andOnVal('r.kind', 'level'))
    .leftJoin('level_checks as c', 'c.id', db.raw('(?)', [lastCheckOf(db)]))
    .select(
      'm.*',
      'a.name as area_name',
      'r.id as rule_id',
      'r.every_days',
      'r.next_due_at',
      'r.version as rule_version',
    )
    .select('c.id as last_id', 'c.ended_at as last_ended_at', 'c.before_range as last_before')
    .select(
      'c.after_range as last_after',
      'c.aim as last_aim',
      openCheckOf(db).as('open_check_id'),
      heldUntilOf(db).as('held_until'),
      lastMapOf(db).as('last_map'),
      topOf(db).as('top'),
      mountedOf(db).as('mounted'),
      printedOn(db).as('printed_on'),
      askedOf(db).as('asked'),
      jobOf(db).as('job'),
      latestOf(db).as('latest'),
      lastThreeOf(db).as('last_three'),
    )
    .orderBy(['a.position', 'a.name', 'm.name']);
  const adjusters = db<AdjusterRow>('adjusters').orderBy(['machine_id', 'position']);
  if (id !== undefined) {
    void query.where('m.id', id);
    void adjusters.where({ machine_id: id });
  }
  const rows = (await query) as OverviewRow[];
  const byMachine = new Map<string, AdjusterRow[]>();
  for (const row of await adjusters) {
    const list = byMachine.get(row.machine_id);
    if (list) list.push(row);
    else byMachine.set(row.machine_id, [row]);
  }
  const zeros = await zerosOf(
    db,
    rows.filter(({ family }) => family === 'resin').map((row) => row.id),
  );
  return rows.map((row) => {
    const overview = overviewOf(row, byMachine.get(row.id) ?? []);
    const stands = standsOf(row, overview, zeros.get(row.id) ?? null);
    return { ...overview, stands, readiness: readiness(stands, now) };
  });
}

function standsOf(row: OverviewRow, { rule, lastCheck }: ListedMachine, zero: ReadinessFacts['zero']): ReadinessFacts {
  const [of, failed] = (row.latest ?? '0 0').split(' ').map(Number);
  const [tag, ...what] = row.asked?.split('\n') ?? [];
  return {
    heldUntil: row.held_until,
    checking: row.open_check_id !== null,
    job: row.job,
    followed: row.mounted !== null,
    top: row.printed_on !== null,
    zero,
    asked: tag === undefined ? null : { tag, what: what.join(' ') },
    prints: { of: of!, failed: failed!, lastThree: row.last_three ?? 0 },
    rule: rule && { everyDays: rule.everyDays, nextDueAt: rule.nextDueAt },
    left: lastCheck && { range: lastCheck.after, aim: lastCheck.aim },
  };
}

const lastCheckOf = (db: Knex) =>
  db('level_checks as l')
    .select('l.id')
    .whereRaw('l.machine_id = m.id')
    .where('l.outcome', 'finished')
    .orderBy('l.ended_at', 'desc')
    .limit(1);
/** The heights of the last reading of the last finished check, as a few cells. */
const lastMapOf = (db: Knex) =>
  db('level_rounds as n').select('n.small_map').whereRaw('n.check_id = c.id').orderBy('n.seq', 'desc').limit(1);
/** Tag and side of what is printed on. */
const topOf = (db: Knex) =>
  db('surfaces as t')
    .select(db.raw(`t.tag || ' ' || t.side_up`))
    .whereRaw('t.machine_id = m.id')
    .where('t.slot', 'top')
    .limit(1);
/** The latest end of the holds of what lies on it and of the waits of its jobs. */
const heldUntilOf = (db: Knex) =>
  db.max('h.until').from(
    db('surfaces as s')
      .select('s.hold_until as until')
      .whereRaw('s.machine_id = m.id')
      .unionAll([db('jobs as j').select('j.wait_until as until').whereRaw('j.machine_id = m.id').whereNull('j.ended')])
      .as('h'),
  );
/** Whether anything that prints stick to was ever laid on it: whether anybody follows that. */
const mountedOf = (db: Knex) =>
  db('mounts as f').select(db.raw('1')).whereRaw('f.machine_id = m.id').whereIn('f.slot', ['top', 'platform']).limit(1);
/** Whether something to print on lies there: on resin machines a bare platform is that. */
const printedOn = (db: Knex) =>
  db('surfaces as u')
    .select(db.raw('1'))
    .whereRaw('u.machine_id = m.id')
    .where((q) => void q.where('u.slot', 'top').orWhereRaw(`(u.slot = 'platform' AND m.family = 'resin')`))
    .limit(1);
/** Tag of a surface on it that waits for work, and the work. */
const askedOf = (db: Knex) =>
  db('surfaces as w')
    .select(db.raw(`w.tag || '\n' || w.awaiting`))
    .whereRaw('w.machine_id = m.id')
    .whereNotNull('w.awaiting')
    .orderBy('w.tag')
    .limit(1);
/** Title of the job under way that was begun last. */
const jobOf = (db: Knex) =>
  db('jobs as k')
    .select(jsonText(db, 'k.doc', 'title'))
    .whereRaw('k.machine_id = m.id')
    .whereNull('k.ended')
    .orderBy('k.started_at', 'desc')
    .limit(1);
const latestPrints = (db: Knex, count: number) =>
  db('prints as p')
    .select('p.held')
    .whereRaw('p.machine_id = m.id')
    .whereNull('p.withdrawn_at')
    .orderBy('p.ended_at', 'desc')
    .limit(count)
    .as('r');
/** How many of the latest prints there are, and how many of them failed. */
const latestOf = (db: Knex) =>
  db
    .select(db.raw(`count(*) || ' ' || coalesce(sum(case when r.held then 0 else 1 end), 0)`))
    .from(latestPrints(db, PRINTS_BACK));
const lastThreeOf = (db: Knex) =>
  db.select(db.raw('sum(case when r.held then 0 else 1 end)')).from(latestPrints(db, 3));
const openCheckOf = (db: Knex) =>
  db('level_checks as o')
    .select('o.id')
    .whereRaw('o.machine_id = m.id')
    .whereNull('o.outcome')
    .orderBy('o.started_at', 'desc')
    .limit(1);

/** Adds a machine (version 0) or changes it, from the version that the writer saw. */
export async function saveMachine(db: Knex, id: string, { version, at, ...facts }: MachineWrite): Promise<Machine> {
  const now = await findMachine(db, id);
  if ((now?.version ?? 0) !== version) throw stale(now?.name ?? facts.name, now, { id, version, ...facts });
  const area = await db<AreaRow>('areas').where({ id: facts.areaId }).first();
  if (!area)
    throw new Problem(422, 'not-valid', 'This area is not here.', { fields: { areaId: 'This area is not here.' } });
  facts.tag = await freeTag(db, { wanted: facts.tag || (now?.tag ?? ''), letter: 'M', table: 'machines', id });
  const row = rowOf(id, facts, { version: version + 1, created_at: now?.createdAt ?? at, updated_at: at });
  if (!(await writeVersion(db, 'machines', row)))
    throw stale(facts.name, await findMachine(db, id), { id, version, ...facts });
  await db('adjusters').where({ machine_id: id }).delete();
  if (facts.adjusters.length > 0) {
    await db('adjusters').insert(
      facts.adjusters.map((adjuster, position) => ({ ...adjuster, machine_id: id, position })),
    );
  }
  await writeEntry(
    db,
    now
      ? { at, machineId: id, kind: 'machine-changed', data: { changed: changes(now, facts) } }
      : { at, machineId: id, kind: 'machine-added', data: { facts, areaName: area.name } },
  );
  return (await findMachine(db, id))!;
}

/**
 * Keeps the key that a platform's screws take, as a job said it.
 * @returns what stood there before; undefined: it stood there already, or there is no such machine
 */
export async function keepPlatformKey(
  db: Knex,
  id: string,
  platformKey: number | null,
  at: number,
): Promise<number | null | undefined> {
  const machine = await findMachine(db, id);
  if (!machine || machine.platformKey === platformKey) return undefined;
  const { id: _, createdAt: __, updatedAt: ___, ...facts } = machine;
  await saveMachine(db, id, { ...facts, platformKey, at });
  return machine.platformKey;
}

/** Fields that differ, old and new. */
function changes(from: MachineFacts, to: MachineFacts): Changed<MachineFacts> {
  const keys = (Object.keys(to) as (keyof MachineFacts)[]).filter(
    (key) => JSON.stringify(from[key]) !== JSON.stringify(to[key]),
  );
  return Object.fromEntries(keys.map((key) => [key, { from: from[key], to: to[key] }]));
}

function rowOf(
  id: string,
  facts: MachineFacts,
  stamps: Pick<MachineRow, 'version' | 'created_at' | 'updated_at'>,
): MachineRow {
  return {
    id,
    area_id: facts.areaId,
    name: facts.name,
    shelf: facts.shelf,
    model: facts.model,
    family: facts.family,
    plate_width: facts.plateWidth,
    plate_depth: facts.plateDepth,
    print_width: facts.printWidth,
    print_depth: facts.printDepth,
    origin_x: facts.originX,
    origin_y: facts.originY,
    first_layer: facts.firstLayer,
    seen_from: facts.seenFrom,
    compensation: facts.compensation,
    aim: facts.aim,
    finding: facts.finding,
    plus: facts.plus,
    map_extent: facts.mapExtent ? JSON.stringify(facts.mapExtent) : null,
    map_first_row: facts.mapFirstRow,
    console: facts.console ? JSON.stringify(facts.console) : null,
    hottest: facts.hottest,
    platform_key: facts.platformKey,
    tag: facts.tag,
    note: facts.note,
    ...stamps,
  };
}

function machineOf(row: MachineRow, adjusters: AdjusterRow[]): Machine {
  return {
    id: row.id,
    areaId: row.area_id,
    name: row.name,
    shelf: row.shelf,
    model: row.model,
    family: row.family,
    plateWidth: row.plate_width,
    plateDepth: row.plate_depth,
    printWidth: row.print_width,
    printDepth: row.print_depth,
    originX: row.origin_x,
    originY: row.origin_y,
    adjusters: adjusters.map(({ id, name, x, y, thread, pitch, clockwise }) => ({
      id,
      name,
      x,
      y,
      thread,
      pitch,
      clockwise,
    })),
    seenFrom: row.seen_from,
    compensation: Boolean(row.compensation),
    firstLayer: row.first_layer,
    aim: row.aim,
    finding: row.finding,
    plus: row.plus,
    mapExtent: row.map_extent === null ? null : (JSON.parse(row.map_extent) as Extent),
    mapFirstRow: row.map_first_row,
    console: row.console === null ? null : (JSON.parse(row.console) as Machine['console']),
    hottest: row.hottest,
    platformKey: row.platform_key,
    tag: row.tag,
    note: row.note,
    version: row.version,
    createdAt: row.created_at,
    updatedAt: row.updated_at,
  };
}

function topIn(text: string | null): MachineOverview['top'] {
  if (text === null) return null;
  const space = text.lastIndexOf(' ');
  return { tag: text.slice(0, space), sideUp: text.slice(space + 1) as Side };
}

type ListedMachine = Omit<MachineOverview, 'stands' | 'readiness'>;

function overviewOf(row: OverviewRow, adjusters: AdjusterRow[]): ListedMachine {
  return {
    ...machineOf(row, adjusters),
    areaName: row.area_name,
    rule:
      row.rule_id === null
        ? null
        : { id: row.rule_id, everyDays: row.every_days!, nextDueAt: row.next_due_at!, version: row.rule_version! },
    lastCheck:
      row.last_id === null
        ? null
        : {
            id: row.last_id,
            endedAt: row.last_ended_at!,
            before: row.last_before!,
            after: row.last_after!,
            withinAim: row.last_after! <= row.last_aim!,
            aim: row.last_aim!,
            map: row.last_map === null ? null : (JSON.parse(row.last_map) as SmallMap),
          },
    openCheckId: row.open_check_id,
    heldUntil: row.held_until,
    top: topIn(row.top),
  };
}
