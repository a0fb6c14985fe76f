import type { Slot } from '@even-bed/core';
import { zeroStands, type ZeroEvent, type ZeroStands } from '@even-bed/core/level/zeroStands';
import type { Knex } from 'knex';

/** Works on a surface that change its height. */
const THINNER = ['renewed', 'repaired', 'other'];

interface SpanRow {
  machine_id: string;
  surface_id: string;
  slot: Slot;
  from_at: number;
  to_at: number | null;
  fitted_at: number;
}

/**
 * What has happened to machines since a time of each, as far as it can move a zero.
 * @param since epoch ms by machine
 */
export async function zeroEvents(db: Knex, since: ReadonlyMap<string, number>): Promise<Map<string, ZeroEvent[]>> {
  const events = new Map([...since.keys()].map((id): [string, ZeroEvent[]] => [id, []]));
  if (since.size === 0) return events;
  const ids = [...since.keys()];
  const first = Math.min(...since.values());
  /** Of each machine only what came after its own time. */
  const tell = (machineId: string, at: number, what: ZeroEvent['what']) => {
    if (at > since.get(machineId)!) events.get(machineId)!.push({ at, what });
  };
  const spans = (
    (await db('mounts')
      .whereIn('machine_id', ids)
      .andWhere((q) => void q.whereNull('to_at').orWhere('to_at', '>', first))
      .select('machine_id', 'surface_id', 'slot', 'from_at', 'to_at', 'fitted_at')) as SpanRow[]
  )
    // What had left a machine before its own time is nothing to it.
    .filter(({ machine_id, to_at }) => to_at === null || to_at > since.get(machine_id)!);
  for (const span of spans) {
    const { machine_id: machineId, surface_id: surfaceId, slot, from_at, to_at, fitted_at } = span;
    // Turned over where it lies it begins another span: neither gone nor fitted.
    const turned = (at: number, end: 'from' | 'to') =>
      spans.some(
        (other) =>
          other.machine_id === machineId &&
          other.surface_id === surfaceId &&
          other.fitted_at === fitted_at &&
          (end === 'to' ? other.from_at : other.to_at) === at,
      );
    if (!turned(from_at, 'from')) tell(machineId, fitted_at, { kind: 'fitted', slot, surfaceId });
    if (to_at !== null && !turned(to_at, 'to')) tell(machineId, to_at, { kind: 'gone', slot, surfaceId });
  }
  const said = (kinds: string[]) => db('book').where('at', '>', first).whereIn('kind', kinds);
  for (const { machine_id, at, kind } of (await said(['stack-changed', 'turns-made'])
    .whereIn('machine_id', ids)
    .select('machine_id', 'at', 'kind')) as { machine_id: string; at: number; kind: string }[])
    tell(machine_id, at, { kind: kind === 'turns-made' ? 'screws' : 'layers' });
  const works = (await said(['surface-work-done'])
    .whereIn('surface_id', [...new Set(spans.map(({ surface_id }) => surface_id))])
    .select('at', 'surface_id', 'data')) as { at: number; surface_id: string; data: string }[];
  for (const { at, surface_id, data } of works) {
    const { event } = JSON.parse(data) as { event: { work: string } };
    // Wiped, washed and scrubbed it is as thick as before; a flex plate's own face is no matter of zero.
    if (!THINNER.includes(event.work)) continue;
    const lay = new Map(
      spans.flatMap((span) => (span.surface_id === surface_id ? [[span.machine_id, span.slot]] : [])),
    );
    for (const [machineId, slot] of lay) if (slot !== 'top') tell(machineId, at, { kind: 'worked', slot });
  }
  for (const { machine_id, at } of (await db('level_notes')
    .whereIn('machine_id', ids)
    .whereNull('withdrawn_at')
    .where('at', '>', first)
    .whereIn('way', ['quarters', 'sheet', 'film', 'lock'])
    .select('machine_id', 'at')) as { machine_id: string; at: number }[])
    tell(machine_id, at, { kind: 'screws' });
  for (const { machine_id, at } of (await db('z_marks')
    .whereIn('machine_id', ids)
    .where({ kind: 'home', withdrawn_at: null })
    .where('at', '>', first)
    .select('machine_id', 'at')) as { machine_id: string; at: number }[])
    tell(machine_id, at, { kind: 'home' });
  return events;
}

/** Whether the zero of each of these machines stands. */
export async function zerosOf(db: Knex, machineIds: readonly string[]): Promise<Map<string, ZeroStands['state']>> {
  const set = (await db('z_marks')
    .whereIn('machine_id', machineIds)
    .where({ kind: 'zero', withdrawn_at: null })
    .groupBy('machine_id')
    .select('machine_id')
    .max({ at: 'at' })) as { machine_id: string; at: number }[];
  const at = new Map(set.map(({ machine_id, at: last }) => [machine_id, last]));
  const events = await zeroEvents(db, at);
  return new Map(machineIds.map((id) => [id, zeroStands(at.get(id) ?? null, events.get(id) ?? []).state]));
}
