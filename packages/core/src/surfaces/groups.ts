import type { Face } from '../fit/compatibility';

/** Where in a machine a surface lies. One at a time in each. */
export type Slot = 'platform' | 'base' | 'top' | 'film';

/** What is known of every surface of a group. */
export interface GroupFacts {
  /** As a person says one, and as a heading says many. */
  one: string;
  many: string;
  /** The slot it lies in. */
  slot: Slot;
  /** Letter that its tags begin with. */
  letter: string;
  /** The only family that it has a place on; null: either. */
  family: 'filament' | 'resin' | null;
  /** What its size goes by: the plate that it lies on, or the vat that it hangs in, which nobody has written down. */
  sizedBy: 'plate' | 'vat';
  /** A magnetic base pulls it down. */
  magnetic: boolean;
  /** Id of what one is made of as a rule (`MATERIALS`), and its face; null: that can't be known from the group. */
  usual: { material: string; face: Face | null };
  /** Which inspection cards it is looked at by. */
  cards: 'surface' | 'film';
}

/** Every group of things that prints stick to, or that lie under them, in the order of a list. */
export const SURFACE_GROUPS = {
  sheet: {
    one: 'spring sheet',
    many: 'Spring sheets',
    slot: 'top',
    letter: 'S',
    family: 'filament',
    sizedBy: 'plate',
    magnetic: true,
    usual: { material: 'steel', face: null },
    cards: 'surface',
  },
  glass: {
    one: 'glass pane',
    many: 'Glass',
    slot: 'top',
    letter: 'S',
    family: 'filament',
    sizedBy: 'plate',
    magnetic: false,
    usual: { material: 'glass', face: null },
    cards: 'surface',
  },
  laminate: {
    one: 'laminate board',
    many: 'Laminate boards',
    slot: 'top',
    letter: 'S',
    family: 'filament',
    sizedBy: 'plate',
    magnetic: false,
    usual: { material: 'fibreglass', face: 'fibreglass' },
    cards: 'surface',
  },
  cover: {
    one: 'flexible cover',
    many: 'Flexible covers',
    slot: 'top',
    letter: 'S',
    family: null,
    sizedBy: 'plate',
    magnetic: true,
    usual: { material: 'polymer', face: 'flexible-cover' },
    cards: 'surface',
  },
  base: {
    one: 'magnetic base',
    many: 'Magnetic bases',
    slot: 'base',
    letter: 'B',
    family: null,
    sizedBy: 'plate',
    magnetic: false,
    usual: { material: 'base', face: 'magnetic-base' },
    cards: 'surface',
  },
  platform: {
    one: 'platform',
    many: 'Resin platforms',
    slot: 'platform',
    letter: 'P',
    family: 'resin',
    sizedBy: 'plate',
    magnetic: false,
    usual: { material: 'aluminium', face: 'aluminium' },
    cards: 'surface',
  },
  'flex-plate': {
    one: 'flex plate',
    many: 'Flex plates',
    slot: 'top',
    letter: 'S',
    family: 'resin',
    sizedBy: 'plate',
    magnetic: true,
    usual: { material: 'steel', face: 'flex-plate' },
    cards: 'surface',
  },
  film: {
    one: 'film',
    many: 'Vat films',
    slot: 'film',
    letter: 'F',
    family: 'resin',
    sizedBy: 'vat',
    magnetic: false,
    usual: { material: 'polymer', face: 'release-film' },
    cards: 'film',
  },
} as const satisfies Record<string, GroupFacts>;

/** What a thing that prints stick to, or that lies under it, is. */
export type SurfaceGroup = keyof typeof SURFACE_GROUPS;

export const GROUPS = Object.keys(SURFACE_GROUPS) as SurfaceGroup[];

/** @throws RangeError no such group */
export function groupFacts(group: SurfaceGroup): GroupFacts {
  if (!Object.hasOwn(SURFACE_GROUPS, group)) throw new RangeError(`groupFacts knows no group ${String(group)}`);
  return SURFACE_GROUPS[group];
}
