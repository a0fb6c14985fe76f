import type {
  BookEvent,
  KindWrite,
  Page,
  PageAsk,
  Surface,
  SurfaceFilter,
  SurfaceKind,
  SurfaceKindFacts,
  SurfaceWrite,
} from '@even-bed/contract';
import {
  applySurfaceEvent,
  groupFacts,
  GROUPS,
  ImpossibleEvent,
  slotOf,
  tagLetter,
  type RecordedEvent,
  type Side,
  type SurfaceCondition,
  type SurfaceEvent,
  type SurfaceState,
} from '@even-bed/core';
import type { Knex } from 'knex';
import { byTag } from '../db/tagText';
import { pageFrom } from '../kernel/page';
import { writeEntry } from '../kernel/book';
import { actorOf } from '../kernel/acting';
import { atField, notFound, stale } from '../kernel/problem';
import { writeVersion } from '../kernel/versioned';
import { freeTag } from '../tags/store';
import {
  columnsOf,
  KIND_COLUMNS,
  kindOf,
  stateOf,
  surfaceOf,
  type KindRow,
  type ListedRow,
  type SurfaceRow,
} from './rows';

export async function listKinds(db: Knex): Promise<SurfaceKind[]> {
  return (await db<KindRow>('surface_kinds').orderBy('name')).map(kindOf);
}

export async function findKind(db: Knex, id: string): Promise<SurfaceKind | null> {
  const row = await db<KindRow>('surface_kinds').where({ id }).first();
  return row ? kindOf(row) : null;
}

export async function saveKind(db: Knex, id: string, { version, at, ...facts }: KindWrite): Promise<SurfaceKind> {
  const now = await db<KindRow>('surface_kinds').where({ id }).first();
  if ((now?.version ?? 0) !== version) throw stale(now?.name ?? facts.name, now ? kindOf(now) : null, { id, ...facts });
  const named = await db<KindRow>('surface_kinds').where({ name: facts.name }).first();
  if (named && named.id !== id) throw atField('name', `There is already a kind with the name ${facts.name}.`);
  if (now && slotOf(now.group) !== slotOf(facts.group) && (await db('surfaces').where({ kind_id: id }).first()))
    throw atField('group', 'Surfaces of this kind are there already: it stays what it is.');
  const row: KindRow = {
    id,
    name: facts.name,
    group: facts.group,
    thickness: facts.thickness,
    temperature_limit: facts.limit,
    material: facts.material,
    faces: JSON.stringify(facts.faces),
    directional: facts.directional,
    sides: JSON.stringify(facts.sides),
    life: facts.life === null ? null : JSON.stringify(facts.life),
    care: JSON.stringify(facts.care),
    note: facts.note,
    version: version + 1,
    created_at: now?.created_at ?? at,
    updated_at: at,
  };
  if (!(await writeVersion(db, 'surface_kinds', row)))
    throw stale(facts.name, await findKind(db, id), { id, ...facts });
  await writeEntry(
    db,
    now
      ? { at, kind: 'kind-changed', data: { kindId: id, from: factsOfKind(now), to: facts } }
      : { at, kind: 'kind-added', data: { kindId: id, to: facts } },
  );
  return kindOf(row);
}

const factsOfKind = (row: KindRow): SurfaceKindFacts => {
  const { id: _, version: __, ...facts } = kindOf(row);
  return facts;
};

/** Surfaces with their kinds and the names of their machines. */
export const listed = (db: Knex): Knex.QueryBuilder<object, ListedRow[]> =>
  db('surfaces as s')
    .join('surface_kinds as k', 'k.id', 's.kind_id')
    .leftJoin('machines as m', 'm.id', 's.machine_id')
    .select('s.*', 'm.name as machine_name', ...KIND_COLUMNS);

export async function findSurface(db: Knex, id: string): Promise<Surface | null> {
  const row = (await listed(db).where('s.id', id).first()) as ListedRow | undefined;
  return row ? surfaceOf(row) : null;
}

export async function needSurface(db: Knex, id: string): Promise<Surface> {
  const surface = await findSurface(db, id);
  if (!surface) throw notFound('This surface');
  return surface;
}

/** The surfaces that lie in a machine, bottom first. */
export async function surfacesIn(db: Knex, machineId: string): Promise<Surface[]> {
  return ((await listed(db).where('s.machine_id', machineId)) as ListedRow[]).map(surfaceOf);
}

/** Surfaces by tag, a page at a time. A search matches beginnings of tags, and any part of kinds, machines, places and notes. */
export async function listSurfaces(db: Knex, filter: SurfaceFilter & PageAsk, now: number): Promise<Page<Surface>> {
  const query = byTag(listed(db), 's.tag', filter.after).limit(filter.limit + 1);
  if (filter.machineId !== undefined) void query.where('s.machine_id', filter.machineId);
  if (filter.place !== undefined) void query.where('s.place', filter.place).whereNull('s.machine_id');
  if (filter.kindId !== undefined) void query.where('s.kind_id', filter.kindId);
  if (filter.group !== undefined) void query.where('k.group', filter.group);
  if (filter.state !== undefined) whereState(query, filter.state, now);
  if (filter.fits !== undefined) await whereFits(db, query, filter.fits);
  for (const word of filter.search.toLowerCase().split(/\s+/).filter(Boolean)) {
    const part = `%${word.replace(/[\\%_]/g, '\\$&')}%`;
    void query.where((any) => {
      for (const column of ['s.tag', 'k.name', 'm.name', 's.place', 's.note', 's.retired', 's.awaiting'])
        void any.orWhereRaw(`?? LIKE ? ESCAPE '\\'`, [column, part]);
    });
  }
  const rows = (await query) as ListedRow[];
  return pageFrom(rows.map(surfaceOf), filter.limit, ({ tag }) => tag);
}

/** A sheet of another size than the plate's by more than this share is meant for another machine. */
const SIZE_SHARE = 0.1;

/** Only what may go on a machine by kind and size, is not retired and does not lie there. */
async function whereFits(db: Knex, query: Knex.QueryBuilder, machineId: string): Promise<void> {
  const machine = (await db('machines').where({ id: machineId }).first()) as
    { family: 'filament' | 'resin'; plate_width: number; plate_depth: number } | undefined;
  if (!machine) throw notFound('This machine');
  const groups = GROUPS.filter((group) => (groupFacts(group).family ?? machine.family) === machine.family);
  const inVats = groups.filter((group) => groupFacts(group).sizedBy === 'vat');
  const about = (length: number): [number, number] => [length * (1 - SIZE_SHARE), length * (1 + SIZE_SHARE)];
  void query
    .whereIn('k.group', groups)
    .whereNull('s.retired')
    .where((away) => away.whereNull('s.machine_id').orWhereNot('s.machine_id', machineId))
    // A film is as large as its vat, which nobody has written down.
    .where((sized) =>
      sized
        .whereIn('k.group', inVats)
        .orWhere((near) =>
          near.whereBetween('s.width', about(machine.plate_width)).whereBetween('s.depth', about(machine.plate_depth)),
        ),
    );
}

function whereState(query: Knex.QueryBuilder, state: SurfaceCondition, now: number): void {
  if (state === 'retired') return void query.whereNotNull('s.retired');
  void query.whereNull('s.retired');
  if (state === 'on-hold') return void query.where('s.hold_until', '>', now);
  void query.where((free) => free.whereNull('s.hold_until').orWhere('s.hold_until', '<=', now));
  if (state === 'awaiting-work') return void query.whereNotNull('s.awaiting');
  void query.whereNull('s.awaiting');
  if (state === 'in-use') void query.whereNotNull('s.machine_id');
  else void query.whereNull('s.machine_id');
}

/** Places that surfaces lie at, the fullest first. */
export async function listPlaces(db: Knex): Promise<string[]> {
  const rows = (await db('surfaces')
    .select('place')
    .whereNull('machine_id')
    .whereNull('retired')
    .whereNot('place', '')
    .groupBy('place')
    .orderByRaw('count(*) DESC, place')
    .limit(50)) as { place: string }[];
  return rows.map(({ place }) => place);
}

/** Adds a surface (version 0), which puts it into the rack, or changes its facts. Its state is never set here. */
export async function saveSurface(db: Knex, id: string, write: SurfaceWrite, now: number): Promise<Surface> {
  const before = await db<SurfaceRow>('surfaces').where({ id }).first();
  const { place, version, at, ...facts } = write;
  if ((before?.version ?? 0) !== version)
    throw stale(before?.tag ?? facts.tag, before ? await findSurface(db, id) : null, { id, ...facts });
  const kind = await findKind(db, facts.kindId);
  if (!kind) throw atField('kindId', 'This kind is not here.');
  if (before && slotOf((await findKind(db, before.kind_id))!.group) !== slotOf(kind.group) && before.machine_id)
    throw atField('kindId', 'It lies on a machine as what it is. Take it off first.');
  const tag = await freeTag(db, {
    wanted: facts.tag || before?.tag || '',
    letter: tagLetter(kind.group),
    table: 'surfaces',
    id,
  });
  const row = {
    tag,
    kind_id: kind.id,
    width: facts.width,
    depth: facts.depth,
    thickness: facts.thickness,
    bought_at: facts.boughtAt,
    price: facts.price,
    note: facts.note,
    version: version + 1,
    updated_at: at,
  };
  if (before) {
    if (!(await writeVersion(db, 'surfaces', { id, ...row })))
      throw stale(before.tag, await findSurface(db, id), { id, ...facts });
    await writeEntry(db, {
      at,
      kind: 'surface-changed',
      surfaceId: id,
      data: { from: factsOf(before), to: { ...facts, tag }, measuredIn: null },
    });
  } else {
    const event: SurfaceEvent = { kind: 'added', at: Math.min(at, now), place };
    const state = applySurfaceEvent(null, event);
    await db('surfaces').insert({ id, ...row, ...columnsOf(state), created_at: at });
    await note(db, { id, tag, kind }, event, null);
  }
  return needSurface(db, id);
}

/**
 * Keeps what calipers said of a surface's thickness, mm, and who measured it for what; null: it is not known. The same
 * again changes nothing. Returns what stood there before; undefined: nothing changed.
 */
export async function keepThickness(
  db: Knex,
  id: string,
  { thickness, at, by }: { thickness: number | null; at: number; by: string },
): Promise<number | null | undefined> {
  const row = await db<SurfaceRow>('surfaces').where({ id }).first();
  if (!row || row.thickness === thickness) return undefined;
  await db<SurfaceRow>('surfaces')
    .where({ id })
    .update({ thickness, version: row.version + 1, updated_at: at });
  await writeEntry(db, {
    at,
    kind: 'surface-changed',
    surfaceId: id,
    data: { from: factsOf(row), to: { ...factsOf(row), thickness }, measuredIn: by },
  });
  return row.thickness;
}

const factsOf = (row: SurfaceRow) => ({
  tag: row.tag,
  kindId: row.kind_id,
  width: row.width,
  depth: row.depth,
  thickness: row.thickness,
  boughtAt: row.bought_at,
  price: row.price,
  note: row.note,
});

interface Named {
  id: string;
  tag: string;
  kind: SurfaceKind;
}

async function note(
  db: Knex,
  { id, kind }: Named,
  event: SurfaceEvent,
  machine: { id: string; name: string } | null,
): Promise<void> {
  await writeEntry(db, {
    at: event.at,
    surfaceId: id,
    machineId: machine?.id,
    // The kind of the line is that of the event in it.
    ...({ kind: `surface-${event.kind}`, data: { event, kindName: kind.name, sides: kind.sides } } as BookEvent),
  });
}

/**
 * Writes down what happened to a surface: its state, where it lies, and the line in the book, all or nothing in the
 * caller's transaction. A time before what is already written, or after now, is brought into the order of things.
 * @returns what was written down, and how the surface stood before: enough to take it back
 * @throws ImpossibleEvent what the state doesn't allow; Problem no such surface
 */
export async function recordEvent(db: Knex, id: string, event: SurfaceEvent, now: number): Promise<Recorded> {
  const row = (await listed(db).where('s.id', id).first()) as ListedRow | undefined;
  if (!row) throw notFound('This surface');
  const { kind } = surfaceOf(row);
  const before = stateOf(row);
  const told: SurfaceEvent = { ...event, at: Math.max(Math.min(event.at, now), before.changedAt) };
  const state = applySurfaceEvent(before, told);
  const change: Partial<SurfaceRow> = columnsOf(state);
  const isRenewal = told.kind === 'work-done' && told.work === 'renewed';
  if (isRenewal) Object.assign(change, renewed(row, told.side, told.at));
  await db('surfaces').where({ id }).update(change);
  await moveMount(db, id, before, state);
  const machineId = machineIn(state) ?? machineIn(before);
  const machine =
    machineId === null ? null : { id: machineId, name: row.machine_name ?? (await nameOf(db, machineId)) };
  await note(db, { id, tag: row.tag, kind }, told, machine);
  return { surfaceId: id, event: told, was: before, counted: isRenewal ? countedOf(row) : null };
}

/** Counts again from where it was counted before a renewal that is taken back. */
export async function countAsBefore(db: Knex, { surfaceId, event, counted }: Recorded): Promise<void> {
  if (counted === null) return;
  const changed: number = await db<SurfaceRow>('surfaces')
    .where({ id: surfaceId, renewed_at: event.at })
    .update(counted);
  if (changed !== 1) throw new ImpossibleEvent('no-change', 'It was renewed again since.');
}

async function nameOf(db: Knex, machineId: string): Promise<string> {
  const machine = (await db('machines').select('name').where({ id: machineId }).first()) as { name: string };
  return machine.name;
}

const machineIn = ({ where }: SurfaceState) => (where.kind === 'machine' ? where.machineId : null);

const COUNTED = [
  'renewed_at',
  'failures_renewed',
  'renewed_a',
  'renewed_b',
  'grams_renewed_a',
  'grams_renewed_b',
] as const;
/** From where a surface's prints are counted. */
type Counted = Pick<SurfaceRow, (typeof COUNTED)[number]>;
const countedOf = (row: SurfaceRow) => Object.fromEntries(COUNTED.map((name) => [name, row[name]])) as Counted;

/** An event as it was written down, with all that its taking back needs. */
export interface Recorded extends RecordedEvent {
  surfaceId: string;
  /** What a renewal changed; null: it was none. */
  counted: Counted | null;
}

/** What counts from now on: a renewed side begins anew. */
function renewed(row: SurfaceRow, side: Side | null, at: number): Partial<SurfaceRow> {
  return {
    renewed_at: at,
    failures_renewed: row.failures,
    ...(side === 'B' ? {} : { renewed_a: row.prints_a, grams_renewed_a: row.grams_a }),
    ...(side === 'A' ? {} : { renewed_b: row.prints_b, grams_renewed_b: row.grams_b }),
  };
}

/** Closes and opens the spans in which a surface lay on machines. */
async function moveMount(db: Knex, surfaceId: string, before: SurfaceState, after: SurfaceState): Promise<void> {
  if (JSON.stringify(before.where) === JSON.stringify(after.where)) return;
  const open = { surface_id: surfaceId, to_at: null };
  const span = (await db('mounts').where(open).first()) as { fitted_at: number; fitted_by: string | null } | undefined;
  await db('mounts').where(open).update({ to_at: after.changedAt });
  if (after.where.kind === 'machine') {
    const { machineId, slot, sideUp, turned } = after.where;
    await db('mounts').insert({
      surface_id: surfaceId,
      machine_id: machineId,
      slot,
      side_up: sideUp,
      turned,
      from_at: after.changedAt,
      to_at: null,
      fitted_at: span?.fitted_at ?? after.changedAt,
      fitted_by: span ? span.fitted_by : actorOf(db),
    });
  }
}
