import type { CareItem, KindWrite, SurfaceKind, Verdict } from '@even-bed/contract';
import type { Face } from '@even-bed/core';
import type { SurfaceGroup } from '@even-bed/core/surfaces/groups';
import { numberIn } from '../ui/numberIn';

/** A kind as it is typed. */
export interface TypedKind {
  name: string;
  group: SurfaceGroup;
  thickness: string;
  limit: string;
  directional: 'yes' | 'no';
  material: string;
  faceA: string;
  faceB: string;
  sideA: string;
  sideB: string;
  unit: 'prints' | 'grams' | 'days' | 'none';
  expected: string;
  spread: string;
  care: Partial<Record<CareItem, Verdict>>;
  note: string;
}

const shown = (value: number | null | undefined) => (value == null ? '' : String(value));

/** A kind as its form begins; null: a new one. */
export const typedKind = (kind: SurfaceKind | null): TypedKind => ({
  name: kind?.name ?? '',
  group: kind?.group ?? 'sheet',
  thickness: shown(kind?.thickness),
  limit: shown(kind?.limit),
  directional: kind?.directional ? 'yes' : 'no',
  material: kind?.material ?? '',
  faceA: kind?.faces[0] ?? '',
  faceB: kind?.faces[1] ?? '',
  sideA: kind?.sides[0] ?? '',
  sideB: kind?.sides[1] ?? '',
  unit: kind?.life?.unit ?? (kind ? 'none' : 'prints'),
  expected: shown(kind?.life?.expected),
  spread: shown(kind?.life?.spread),
  care: kind?.care ?? {},
  note: kind?.note ?? '',
});

/** What is sent of it. A thickness goes as it was typed: the contract reads lengths. */
export function bodyOf(typed: TypedKind): Omit<KindWrite, 'version' | 'at'> {
  const { sideA, sideB, faceA, faceB, unit, limit, thickness, expected, spread } = typed;
  return {
    name: typed.name,
    group: typed.group,
    thickness: thickness as unknown as number,
    limit: limit.trim() === '' ? null : numberIn(limit),
    directional: typed.directional === 'yes',
    material: typed.material || null,
    sides: [sideA, sideB].filter((side) => side.trim() !== ''),
    faces: [faceA, faceB].slice(0, sideB.trim() === '' ? 1 : 2).map((face) => (face || null) as Face | null),
    life: unit === 'none' ? null : { unit, expected: numberIn(expected), spread: numberIn(spread || '0') },
    care: typed.care,
    note: typed.note,
  };
}

/** Where a fault of what is sent shows in the form. */
export const KIND_FIELDS = {
  sides: 'sideA',
  'sides.0': 'sideA',
  'sides.1': 'sideB',
  'faces.0': 'faceA',
  'faces.1': 'faceB',
  'life.expected': 'expected',
  'life.spread': 'spread',
} as const;
