import type { GaugeWrite, ShopGauge } from '@even-bed/contract';
import { gaugeOf, type GaugeKind } from '@even-bed/core/level/gauge';
import type { Knex } from 'knex';
import { actorOf } from '../kernel/acting';
import { writeEntry } from '../kernel/book';
import { atField, idTaken } from '../kernel/problem';
import { takeBack } from '../kernel/takeBack';

interface GaugeRow {
  id: string;
  name: string;
  kind: GaugeKind;
  pieces: number | null;
  reading: number | null;
  layers: number;
  at: number;
  person_id: string | null;
  withdrawn_at: number | null;
}

/** Keeps a gauge for the shop: what the calipers said, raw. The same again changes nothing. */
export async function keepGauge(db: Knex, id: string, { name, kind, caliper, layers, at }: GaugeWrite): Promise<void> {
  const before = await db<GaugeRow>('gauges').where({ id }).first();
  if (before) {
    const same =
      before.name === name &&
      before.kind === kind &&
      before.layers === layers &&
      before.pieces === (caliper?.pieces ?? null) &&
      before.reading === (caliper?.reading ?? null);
    if (!same) throw idTaken('gauge');
    return;
  }
  const { thickness, uncertainty } = known();
  await db<GaugeRow>('gauges').insert({
    id,
    name,
    kind,
    pieces: caliper?.pieces ?? null,
    reading: caliper?.reading ?? null,
    layers,
    at,
    person_id: actorOf(db),
    withdrawn_at: null,
  });
  await writeEntry(db, { at, kind: 'gauge-kept', data: { gaugeId: id, name, thickness, uncertainty } });

  function known() {
    try {
      return gaugeOf({ kind, caliper, layers });
    } catch (error) {
      if (error instanceof RangeError) throw atField('caliper', error.message);
      throw error;
    }
  }
}

/** Lets go of a gauge. */
export async function withdrawGauge(db: Knex, id: string, at: number): Promise<void> {
  const row = await takeBack<GaugeRow>(db, 'gauges', { id, at, what: 'This gauge' });
  if (!row) return;
  await writeEntry(db, { at, kind: 'gauge-withdrawn', data: { gaugeId: id, name: row.name } });
}

/** Gauges that are kept, by name. */
export async function listGauges(db: Knex): Promise<ShopGauge[]> {
  const rows = (await db('gauges as g')
    .leftJoin('people as p', 'p.id', 'g.person_id')
    .whereNull('g.withdrawn_at')
    .orderBy(['g.name', 'g.id'])
    .select('g.*', 'p.name as person_name')) as (GaugeRow & { person_name: string | null })[];
  return rows.map(({ id, name, kind, pieces, reading, layers, at, person_name }) => ({
    id,
    name,
    kind,
    caliper: pieces === null || reading === null ? null : { pieces, reading },
    layers,
    at,
    personName: person_name,
  }));
}
