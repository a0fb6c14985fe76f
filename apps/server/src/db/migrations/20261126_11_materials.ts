import type { Knex } from 'knex';

export { down } from './forwardOnly';

const STARTING = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d00';

/** What the kinds are that every shop began with: material, faces of side A and B, and whether they have poles. */
const KNOWN: Record<string, { material: string; faces: string[]; directional: boolean }> = {
  '01': { material: 'steel', faces: ['textured', 'textured'], directional: false },
  '02': { material: 'steel', faces: ['smooth-pei', 'smooth-pei'], directional: false },
  '03': { material: 'steel', faces: ['patterned-film'], directional: false },
  '04': { material: 'glass', faces: ['glass', 'glass'], directional: false },
  '05': { material: 'fibreglass', faces: ['fibreglass', 'fibreglass'], directional: false },
  // A magnetised cover has its poles in lines as its base does; plain spring steel has none.
  '06': { material: 'polymer', faces: ['flexible-cover'], directional: true },
  '07': { material: 'base', faces: ['magnetic-base'], directional: true },
  '08': { material: 'aluminium', faces: ['aluminium'], directional: false },
  '09': { material: 'steel', faces: ['flex-plate', 'flex-plate'], directional: false },
  '0a': { material: 'polymer', faces: ['release-film'], directional: false },
};

/** What a shop's own kind most likely is, by its group; a spring sheet's coat is not known from it. */
const BY_GROUP: Record<string, { material: string; face: string | null }> = {
  sheet: { material: 'steel', face: null },
  glass: { material: 'glass', face: null },
  laminate: { material: 'fibreglass', face: 'fibreglass' },
  cover: { material: 'polymer', face: 'flexible-cover' },
  base: { material: 'base', face: 'magnetic-base' },
  platform: { material: 'aluminium', face: 'aluminium' },
  'flex-plate': { material: 'steel', face: 'flex-plate' },
  film: { material: 'polymer', face: 'release-film' },
};

/**
 * What a kind is made of and what its faces are becomes a fact of the kind instead of a guess from its name; poles are
 * put right where a shop has not said otherwise itself. Kept plans of stacks learn which metal a layer is, and ask anew
 * what they never asked: what moves, and where home lies.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('surface_kinds', (t) => {
    t.text('material');
    t.text('faces').notNullable().defaultTo('[]');
  });
  for (const kind of await db('surface_kinds').select('id', 'group', 'sides', 'version')) {
    const known = String(kind.id).startsWith(STARTING) ? KNOWN[String(kind.id).slice(STARTING.length)] : undefined;
    const sides = JSON.parse(kind.sides as string) as string[];
    const group = BY_GROUP[kind.group as string];
    const own = sides.map((side) => faceBySide(kind.group as string, side) ?? group?.face ?? null);
    await db('surface_kinds')
      .where({ id: kind.id })
      .update(
        known && kind.version === 1
          ? { material: known.material, faces: JSON.stringify(known.faces), directional: known.directional }
          : { material: known?.material ?? group?.material ?? null, faces: JSON.stringify(own) },
      );
  }
  // Which side of a part goes up in a job.
  await db.schema.alterTable('jobs', (t) => {
    t.text('sides').notNullable().defaultTo('{}');
  });
  for (const plan of await db('plans').where({ tool: 'stack' }).select('id', 'input'))
    await db('plans')
      .where({ id: plan.id })
      .update({ input: JSON.stringify(stackAsked(JSON.parse(plan.input as string) as OldStack)) });
}

/** What the words of a finish say beyond doubt. */
function faceBySide(group: string, side: string): string | null {
  const says = (words: RegExp) => words.test(side);
  if (group === 'glass') {
    if (says(/\b(un-?coated|plain|bare)\b/i)) return 'glass';
    return says(/coat|textur/i) ? 'coated-glass' : null;
  }
  if (group !== 'sheet') return null;
  if (says(/pattern/i)) return 'patterned-film';
  if (says(/textur/i)) return 'textured';
  if (says(/\bpei\b/i)) return 'smooth-pei';
  return says(/\b(steel|bare)\b/i) ? 'bare-steel' : null;
}

interface OldStack {
  before: { name: string; metal?: unknown }[];
  after: { name: string; metal?: unknown }[];
  finding: { by: string; homing?: string };
  family: string;
}

function stackAsked({ finding: { homing, ...finding }, before, after, family, ...rest }: OldStack) {
  const metal = <T extends { name: string; metal?: unknown }>(layer: T) => ({
    ...layer,
    metal: layer.metal === true ? (/steel|sheet|flex/i.test(layer.name) ? 'steel' : 'other') : null,
  });
  // Only a flag was asked which way it homes, and only homes at the surface could be entered.
  const moves = family === 'resin' ? 'platform' : homing === 'down' ? 'head' : homing === 'up' ? 'bed' : null;
  return {
    ...rest,
    family,
    before: before.map(metal),
    after: after.map(metal),
    finding,
    moves,
    home: homing === undefined ? null : 'surface',
  };
}
