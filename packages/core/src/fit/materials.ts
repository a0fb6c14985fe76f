import type { Metal } from './inductiveProbe';

/** A material as heat, weight and a probe see it. */
export interface Material {
  id: string;
  name: string;
  /** W/m·K */
  conductivity: number;
  /** kg/m³ */
  density: number;
  /** J/kg·K */
  heatCapacity: number;
  /** What an inductive probe senses of it; null: nothing. */
  metal: Metal | null;
  source: string;
}

const TABLE_A1 = 'Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, table A.1, at 300 K; from memory';
const TABLE_A3 = 'Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, table A.3, at 300 K; from memory';
const TYPICAL = 'typical values of data sheets, from memory: calibrate';

/** What stacks are made of. Values without a table vary with the make: two readings calibrate them away. */
export const MATERIALS: readonly Material[] = [
  {
    id: 'aluminium',
    name: 'Aluminium plate',
    conductivity: 177,
    density: 2770,
    heatCapacity: 875,
    metal: 'aluminium',
    source: `${TABLE_A1} (alloy 2024-T6)`,
  },
  {
    id: 'steel',
    name: 'Steel, spring or plain',
    conductivity: 60.5,
    density: 7854,
    heatCapacity: 434,
    metal: 'steel',
    source: `${TABLE_A1} (plain carbon)`,
  },
  {
    id: 'stainless',
    name: 'Stainless steel',
    conductivity: 14.9,
    density: 7900,
    heatCapacity: 477,
    metal: 'stainless',
    source: `${TABLE_A1} (AISI 304)`,
  },
  {
    id: 'glass',
    name: 'Glass, soda lime',
    conductivity: 1.4,
    density: 2500,
    heatCapacity: 750,
    metal: null,
    source: `${TABLE_A3} (plate glass)`,
  },
  {
    id: 'borosilicate',
    name: 'Glass, borosilicate',
    conductivity: 1.4,
    density: 2225,
    heatCapacity: 835,
    metal: null,
    source: `${TABLE_A3} (heat-resistant glass)`,
  },
  {
    id: 'granite',
    name: 'Stone, granite',
    conductivity: 2.79,
    density: 2630,
    heatCapacity: 775,
    metal: null,
    source: `${TABLE_A3} (granite)`,
  },
  {
    id: 'base',
    name: 'Magnetic base',
    conductivity: 0.5,
    density: 3700,
    heatCapacity: 900,
    metal: null,
    source: TYPICAL,
  },
  { id: 'pei', name: 'PEI', conductivity: 0.22, density: 1270, heatCapacity: 1200, metal: null, source: TYPICAL },
  {
    id: 'polymer',
    name: 'Polymer film or cover',
    conductivity: 0.2,
    density: 1300,
    heatCapacity: 1300,
    metal: null,
    source: TYPICAL,
  },
  {
    id: 'fibreglass',
    name: 'Fibreglass laminate',
    conductivity: 0.3,
    density: 1850,
    heatCapacity: 1100,
    metal: null,
    source: TYPICAL,
  },
  {
    id: 'adhesive',
    name: 'Adhesive, acrylic',
    conductivity: 0.2,
    density: 1050,
    heatCapacity: 1500,
    metal: null,
    source: TYPICAL,
  },
  {
    id: 'pad',
    name: 'Conductive pad, silicone',
    conductivity: 1.5,
    density: 2100,
    heatCapacity: 1000,
    metal: null,
    source: TYPICAL,
  },
];

/** @throws RangeError an id the table doesn't have */
export function materialOf(id: string): Material {
  const found = MATERIALS.find((material) => material.id === id);
  if (!found)
    throw new RangeError(`materialOf knows ${MATERIALS.map((material) => material.id).join(', ')}, got ${id}`);
  return found;
}

/** A dry joint: about a tenth of a millimetre of air (0.0263 W/m·K, table A.4), m²·K/W. */
export const DRY_JOINT = 0.0001 / 0.0263;

/** Words of a layer's name, the more telling first: "fibreglass" is no glass, and a glass pane may lie on a base. */
const WORDS: readonly [RegExp, string][] = [
  [/fib(re|er)[- ]?glass|laminate board|\bg10\b|\bfr-?4\b/i, 'fibreglass'],
  [/borosilicate/i, 'borosilicate'],
  [/glass|pane\b/i, 'glass'],
  [/\b(base|magnet|mat)\b/i, 'base'],
  [/stainless/i, 'stainless'],
  [/steel|flex plate|spring sheet/i, 'steel'],
  [/adhesive|tape|glue/i, 'adhesive'],
  [/\bpad\b|silicone/i, 'pad'],
  [/\bpei\b/i, 'pei'],
  [/cover|film|polymer/i, 'polymer'],
  [/stone|granite/i, 'granite'],
  [/plate|platform|alumin/i, 'aluminium'],
];

/**
 * The material that the name of a plain layer means, to fill in a form with; a surface's is a fact of its kind.
 * @example materialNamed('conductive pad')?.id // 'pad'
 */
export function materialNamed(name: string): Material | undefined {
  const id = WORDS.find(([words]) => words.test(name))?.[1];
  return MATERIALS.find((material) => material.id === id);
}
