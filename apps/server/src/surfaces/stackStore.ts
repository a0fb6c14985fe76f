import type { MachineLayer, MachineStack, PlainLayer, StackWrite } from '@even-bed/contract';
import { materialNamed, SLOTS } from '@even-bed/core';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { actorOf } from '../kernel/acting';
import { notFound, stale } from '../kernel/problem';
import { surfaceOf, type ListedRow } from './rows';
import { listed } from './store';

interface LayerRow {
  machine_id: string;
  position: number;
  name: string;
  under: PlainLayer['under'];
  thickness: number;
  measured: number | boolean;
  temperature_limit: number | null;
  fitted_at: number;
  fitted_by: string | null;
}

interface MachineRow {
  id: string;
  name: string;
  stack_version: number;
}

/** A machine's stack, bottom first: plain layers, and the surfaces in their slots. The film in the vat lies apart. */
export async function readStack(db: Knex, machineId: string): Promise<MachineStack> {
  const machine = await needRow(db, machineId);
  const plain = (await db('stack_layers as l')
    .leftJoin('people as p', 'p.id', 'l.fitted_by')
    .where('l.machine_id', machineId)
    .orderBy('l.position')
    .select('l.*', 'p.name as fitted_name')) as (LayerRow & { fitted_name: string | null })[];
  const surfaces = (
    (await listed(db)
      .where('s.machine_id', machineId)
      .leftJoin('mounts as t', (on) => on.on('t.surface_id', 's.id').andOnNull('t.to_at'))
      .leftJoin('people as f', 'f.id', 't.fitted_by')
      .select('t.fitted_at', 'f.name as fitted_name')) as (ListedRow & {
      fitted_at: number;
      fitted_name: string | null;
    })[]
  ).map((row) => ({ ...surfaceOf(row), fittedAt: row.fitted_at, fittedBy: row.fitted_name }));
  const layers: MachineLayer[] = [];
  for (const slot of SLOTS) {
    for (const row of plain.filter(({ under }) => under === slot)) {
      layers.push({
        name: row.name,
        material: materialNamed(row.name)?.id ?? null,
        thickness: row.thickness,
        measured: Boolean(row.measured),
        limit: row.temperature_limit,
        fittedAt: row.fitted_at,
        fittedBy: row.fitted_name,
        slot: null,
        surfaceId: null,
        tag: null,
        fixed: true,
        sideUp: null,
        turned: null,
      });
    }
    for (const { id, tag, kind, thickness, state, fittedAt, fittedBy } of surfaces) {
      if (state.where.kind !== 'machine' || state.where.slot !== slot) continue;
      layers.push({
        name: kind.name,
        material: kind.material,
        thickness: thickness ?? kind.thickness,
        measured: thickness !== null,
        limit: kind.limit,
        fittedAt,
        fittedBy,
        slot,
        surfaceId: id,
        tag,
        fixed: slot === 'base',
        sideUp: state.where.sideUp,
        turned: state.where.turned,
      });
    }
  }
  return { machineId, layers, version: machine.stack_version };
}

async function needRow(db: Knex, machineId: string): Promise<MachineRow> {
  const machine = (await db('machines').where({ id: machineId }).first()) as MachineRow | undefined;
  if (!machine) throw notFound('This machine');
  return machine;
}

const same = (row: LayerRow, layer: PlainLayer) =>
  row.name === layer.name &&
  row.under === layer.under &&
  row.thickness === layer.thickness &&
  Boolean(row.measured) === layer.measured;

/** Changes the plain layers of a stack. A layer that stays keeps when it was fitted and by whom. */
export async function saveStack(
  db: Knex,
  machineId: string,
  { layers, version, at }: StackWrite,
): Promise<MachineStack> {
  const machine = await needRow(db, machineId);
  if (machine.stack_version !== version)
    throw stale(`The stack of ${machine.name}`, await readStack(db, machineId), { layers });
  const changed: number = await db('machines')
    .where({ id: machineId, stack_version: version })
    .update({ stack_version: version + 1 });
  if (changed !== 1) throw stale(`The stack of ${machine.name}`, await readStack(db, machineId), { layers });
  const before = (await db('stack_layers').where({ machine_id: machineId }).orderBy('position')) as LayerRow[];
  await db('stack_layers').where({ machine_id: machineId }).delete();
  for (const [position, layer] of layers.entries()) {
    const kept = before.find((row) => same(row, layer));
    await db('stack_layers').insert({
      machine_id: machineId,
      position,
      name: layer.name,
      under: layer.under,
      thickness: layer.thickness,
      measured: layer.measured,
      temperature_limit: layer.limit,
      fitted_at: kept?.fitted_at ?? at,
      fitted_by: kept ? kept.fitted_by : actorOf(db),
    });
  }
  await writeEntry(db, {
    at,
    kind: 'stack-changed',
    machineId,
    data: { from: before.map(({ name, under, thickness }) => ({ name, under, thickness })), to: layers },
  });
  return readStack(db, machineId);
}

/** Lays plain layers into a machine's stack beside those that are there, and returns those that came. */
export async function layPlain(
  db: Knex,
  machineId: string,
  laid: readonly PlainLayer[],
  at: number,
): Promise<PlainLayer[]> {
  const { version, there } = await plainIn(db, machineId);
  const come = laid.filter((layer) => !there.some((row) => same(row, layer)));
  if (come.length > 0) await saveStack(db, machineId, { layers: [...there.map(layerOf), ...come], version, at });
  return come;
}

/** Takes plain layers out of a machine's stack, where they are still there. */
export async function liftPlain(db: Knex, machineId: string, lifted: readonly PlainLayer[], at: number): Promise<void> {
  const { version, there } = await plainIn(db, machineId);
  const stay = there.filter((row) => !lifted.some((layer) => same(row, layer)));
  if (stay.length < there.length) await saveStack(db, machineId, { layers: stay.map(layerOf), version, at });
}

/** The plain layers of a machine's stack, bottom first. */
export const plainLayers = async (db: Knex, machineId: string): Promise<PlainLayer[]> =>
  (await plainIn(db, machineId)).there.map(layerOf);

async function plainIn(db: Knex, machineId: string): Promise<{ version: number; there: LayerRow[] }> {
  const { stack_version: version } = await needRow(db, machineId);
  return { version, there: await db<LayerRow>('stack_layers').where({ machine_id: machineId }).orderBy('position') };
}

const layerOf = (row: LayerRow): PlainLayer => ({
  name: row.name,
  under: row.under,
  thickness: row.thickness,
  measured: Boolean(row.measured),
  limit: row.temperature_limit,
});
