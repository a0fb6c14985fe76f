import type { Surface, SurfaceKind } from '@even-bed/contract';
import type { Face, HoldKind, Life, QuarterTurn, Side, Slot, SurfaceGroup, SurfaceState } from '@even-bed/core';

export interface KindRow {
  id: string;
  name: string;
  group: SurfaceGroup;
  thickness: number;
  temperature_limit: number | null;
  material: string | null;
  faces: string;
  directional: number | boolean;
  sides: string;
  life: string | null;
  care: string;
  note: string;
  version: number;
  created_at: number;
  updated_at: number;
}

export interface SurfaceRow {
  id: string;
  tag: string;
  kind_id: string;
  width: number;
  depth: number;
  thickness: number | null;
  bought_at: number | null;
  price: number | null;
  note: string;
  machine_id: string | null;
  slot: Slot | null;
  side_up: Side | null;
  turned: QuarterTurn | null;
  place: string;
  hold_kind: HoldKind | null;
  hold_since: number | null;
  hold_until: number | null;
  hold_reason: string | null;
  awaiting: string | null;
  retired: string | null;
  changed_at: number;
  prints_a: number;
  prints_b: number;
  renewed_a: number;
  renewed_b: number;
  failures: number;
  failures_renewed: number;
  grams_a: number;
  grams_b: number;
  grams_renewed_a: number;
  grams_renewed_b: number;
  renewed_at: number | null;
  version: number;
  created_at: number;
  updated_at: number;
}

export type StateColumns = Pick<
  SurfaceRow,
  | 'machine_id'
  | 'slot'
  | 'side_up'
  | 'turned'
  | 'place'
  | 'hold_kind'
  | 'hold_since'
  | 'hold_until'
  | 'hold_reason'
  | 'awaiting'
  | 'retired'
  | 'changed_at'
>;

/** A surface with its kind and the name of its machine, in one row. */
export interface ListedRow extends SurfaceRow {
  machine_name: string | null;
  kind_name: string;
  kind_group: SurfaceGroup;
  kind_thickness: number;
  kind_temperature_limit: number | null;
  kind_material: string | null;
  kind_faces: string;
  kind_directional: number | boolean;
  kind_sides: string;
  kind_life: string | null;
  kind_care: string;
  kind_note: string;
  kind_version: number;
}

export const KIND_COLUMNS = [
  'name',
  'group',
  'thickness',
  'temperature_limit',
  'material',
  'faces',
  'directional',
  'sides',
  'life',
  'care',
  'note',
  'version',
].map((column) => `k.${column} as kind_${column}`);

/** One for each side; what was not said is not known. */
function facesOf({ sides, faces }: Pick<KindRow, 'sides' | 'faces'>): (Face | null)[] {
  const said = JSON.parse(faces) as (Face | null)[];
  return (JSON.parse(sides) as string[]).map((_, i) => said[i] ?? null);
}

export const kindOf = (row: Omit<KindRow, 'created_at' | 'updated_at'>): SurfaceKind => ({
  id: row.id,
  name: row.name,
  group: row.group,
  thickness: row.thickness,
  limit: row.temperature_limit,
  material: row.material,
  directional: Boolean(row.directional),
  sides: JSON.parse(row.sides) as string[],
  faces: facesOf(row),
  life: row.life === null ? null : (JSON.parse(row.life) as Life),
  care: JSON.parse(row.care) as SurfaceKind['care'],
  note: row.note,
  version: row.version,
});

export function stateOf(row: StateColumns): SurfaceState {
  return {
    where:
      row.machine_id === null
        ? { kind: 'rack', place: row.place }
        : {
            kind: 'machine',
            machineId: row.machine_id,
            slot: row.slot!,
            sideUp: row.side_up!,
            turned: row.turned!,
          },
    hold:
      row.hold_kind === null
        ? null
        : { kind: row.hold_kind, since: row.hold_since!, until: row.hold_until!, reason: row.hold_reason! },
    awaiting: row.awaiting,
    retired: row.retired,
    changedAt: row.changed_at,
  };
}

export function columnsOf({ where, hold, awaiting, retired, changedAt }: SurfaceState): StateColumns {
  const on = where.kind === 'machine' ? where : null;
  return {
    machine_id: on?.machineId ?? null,
    slot: on?.slot ?? null,
    side_up: on?.sideUp ?? null,
    turned: on?.turned ?? null,
    place: where.kind === 'rack' ? where.place : '',
    hold_kind: hold?.kind ?? null,
    hold_since: hold?.since ?? null,
    hold_until: hold?.until ?? null,
    hold_reason: hold?.reason ?? null,
    awaiting,
    retired,
    changed_at: changedAt,
  };
}

/** The kind that a listed row carries. */
const kindIn = (row: ListedRow): SurfaceKind =>
  kindOf({
    id: row.kind_id,
    name: row.kind_name,
    group: row.kind_group,
    thickness: row.kind_thickness,
    temperature_limit: row.kind_temperature_limit,
    material: row.kind_material,
    faces: row.kind_faces,
    directional: row.kind_directional,
    sides: row.kind_sides,
    life: row.kind_life,
    care: row.kind_care,
    note: row.kind_note,
    version: row.kind_version,
  });

export const surfaceOf = (row: ListedRow): Surface => ({
  id: row.id,
  tag: row.tag,
  kindId: row.kind_id,
  kind: kindIn(row),
  width: row.width,
  depth: row.depth,
  thickness: row.thickness,
  boughtAt: row.bought_at,
  price: row.price,
  note: row.note,
  state: stateOf(row),
  machineName: row.machine_name,
  use: {
    A: { prints: row.prints_a - row.renewed_a, grams: row.grams_a - row.grams_renewed_a },
    B: { prints: row.prints_b - row.renewed_b, grams: row.grams_b - row.grams_renewed_b },
  },
  prints: row.prints_a + row.prints_b,
  failures: row.failures - row.failures_renewed,
  renewedAt: row.renewed_at,
  version: row.version,
  createdAt: row.created_at,
});
