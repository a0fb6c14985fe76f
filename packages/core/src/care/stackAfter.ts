import { materialNamed } from '../fit/materials';
import type { Slot } from '../surfaces/groups';
import type { StackLayerAsk } from './procedure';

/** A layer of a machine's stack as a job finds it, bottom first. Thickness in mm, limit in °C. */
export interface FoundLayer {
  name: string;
  thickness: number;
  measured: boolean;
  limit: number | null;
  /** null: a plain layer, an adhesive or a pad. */
  slot: Slot | null;
  /** Of the table of materials; null: not known. */
  material: string | null;
}

/** What a part is, as its kind says. */
export interface PartKnown {
  name: string;
  material: string | null;
  limit: number | null;
}

interface Known {
  readings: Readonly<Record<string, number>>;
  /** Option by choice. */
  choices?: Readonly<Record<string, string>>;
  parts?: Readonly<Record<string, PartKnown | undefined>>;
}

const BOTTOM_UP: readonly Slot[] = ['platform', 'base', 'top', 'film'];
const NAMELESS: Record<Slot, { name: string; material: string | null }> = {
  platform: { name: 'platform', material: null },
  base: { name: 'base', material: 'base' },
  top: { name: 'top', material: null },
  film: { name: 'film', material: null },
};

/**
 * The stack as it will be: what lay in the places named is gone, and what was measured comes to lie there. With a base
 * goes what lay on it, and with each the adhesive that held it: a new one is measured with its own. Any other plain layer
 * stays, since one that is counted and has gone leaves a gap, while one that stays and isn't counted is driven into.
 * @returns bottom first; null while something was not measured yet
 */
export function stackAfter(
  before: readonly FoundLayer[],
  layers: readonly StackLayerAsk[],
  { readings, choices = {}, parts = {} }: Known,
): FoundLayer[] | null {
  const asked = layers.filter(({ only }) => !only || only.is.includes(choices[only.choice] ?? ''));
  const gone = new Set<Slot | null>(
    asked.flatMap(({ slot, name, beside }) => (name !== undefined || beside ? [] : [slot])),
  );
  if (gone.has('base')) gone.add('top');
  const stays = before.filter(({ slot, material }, i) => {
    if (slot !== null) return !gone.has(slot);
    const held = before.slice(i + 1).find((layer) => layer.slot !== null);
    return !(material === 'adhesive' && held !== undefined && gone.has(held.slot));
  });
  const come: (FoundLayer & { at: Slot })[] = [];
  for (const { slot, reading, name, part } of asked) {
    if (reading === undefined) continue;
    const thickness = readings[reading];
    if (thickness === undefined) return null;
    if (thickness === 0) continue;
    const known = part === undefined ? undefined : parts[part];
    come.push({
      ...(name === undefined ? (known ?? NAMELESS[slot]) : { name, material: materialNamed(name)?.id ?? null }),
      thickness,
      measured: true,
      limit: known?.limit ?? null,
      slot: name === undefined ? slot : null,
      at: slot,
    });
  }
  // What comes lies above all that stays below its place, and under what stays above it.
  const stack: FoundLayer[] = [...stays];
  for (const { at, ...layer } of come) {
    const above = stack.findIndex(
      ({ slot }) => slot !== null && BOTTOM_UP.indexOf(slot) > BOTTOM_UP.indexOf(at) && at !== 'top',
    );
    stack.splice(above < 0 ? stack.length : above, 0, layer);
  }
  return stack;
}
