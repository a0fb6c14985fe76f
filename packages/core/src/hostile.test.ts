import {
  calibrateSoak,
  compatibility,
  contourBed,
  coolDown,
  countersink,
  fitCheck,
  fitPlane,
  layerMass,
  padsFor,
  planBlanks,
  planTurns,
  predictOffset,
  setpointForTop,
  skewOver,
  soak,
  stackChange,
  topClearance,
  underbedClearance,
} from './index';
import { compareCounts } from './level/compareCounts';
import { compareMethods } from './level/compareMethods';
import { compareRounds } from './level/compareRounds';
import { evenFeet } from './level/evenFeet';
import { footZero, gapBudget } from './level/gapBudget';
import { compareFirstLayer } from './level/compareFirstLayer';
import { compareMaps } from './level/compareMaps';
import { describeShape } from './level/describeShape';
import { firstLayerPrint } from './level/firstLayerPrint';
import { flatness } from './level/flatness';
import { lapProgress, type LapRound } from './level/lapProgress';
import { lightSurvey, surveyLines } from './level/lightSurvey';
import { padPlaces } from './level/padPlaces';
import { shapeCures } from './level/shapeCures';
import { splitShape } from './level/splitShape';
import { levelDrift } from './level/levelDrift';
import { planShims } from './level/planShims';
import { settleSign } from './level/settleSign';
import { skirtTrim } from './level/skirtTrim';
import { limitOf } from './level/limitOf';
import { stiffBed } from './level/stiffBed';
import { spacerSolid } from './fit/spacerSolid';
import { tQuantile } from './surfaces/studentT';
import { checkMount } from './surfaces/checkMount';
import { wholeLayers } from './fit/wholeLayers';

const plate = { name: 'plate', thickness: 3, metal: 'steel' as const, mass: 400, limit: 120 };
const heat = { thickness: 3, conductivity: 177, density: 2770, heatCapacity: 875, contactResistance: 0.001 };
const soaking = { flux: 4000, setpoint: 60, ambient: 20, loss: 12, within: 2 };
const points = [0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => ({ x, y, z: 0.001 * x + 0.0001 * y })));
const adjusters = [
  { id: 'a', x: 0, y: 0, pitch: 0.7, clockwise: 'lowers' as const },
  { id: 'b', x: 200, y: 0, pitch: 0.7, clockwise: 'lowers' as const },
  { id: 'c', x: 100, y: 200, pitch: 0.7, clockwise: 'raises' as const },
];
const dip = points.map((point) => ({ ...point, z: point.y === 100 ? -0.15 : 0 }));
const lit = surveyLines({ width: 235, depth: 235 })
  .slice(0, 6)
  .map((line) => ({
    ...line,
    stretches: line.id.startsWith('across') ? [] : [{ from: 0.05, to: 0.95, light: 'clear', feeler: 0.1 }],
  }));
const rect = { x: 5, y: 5, width: 200, depth: 200 };

/** Each sum with a good question; what is put into it must be one argument. */
const SUMS: Record<string, [sum: (asked: never) => unknown, good: object]> = {
  stackChange: [
    stackChange,
    {
      before: [plate],
      after: [plate, { name: 'glass', thickness: 4 }],
      finding: { by: 'stop-screw', pitch: 0.5, clockwise: 'sooner' },
      moves: 'head',
      home: 'surface',
      family: 'filament',
      adjusters: { up: 1, down: 2, pitch: 0.5, clockwise: 'lowers' },
      spacerLayer: 0.2,
      buildHeight: 250,
      slack: 0.1,
    },
  ],
  stackChangeProbe: [
    stackChange,
    {
      before: [plate],
      after: [plate, { name: 'glass', thickness: 1 }],
      finding: { by: 'inductive-probe', range: 4, above: 2 },
    },
  ],
  underbedClearance: [
    underbedClearance,
    {
      parts: [{ name: 'tie', height: 4 }],
      springCompressed: 9,
      washers: 0.5,
      pitch: 0.5,
      backOff: 1,
      travel: 6,
      kinds: [{ name: 'M3', thickness: 0.5 }],
    },
  ],
  topClearance: [
    topClearance,
    {
      items: [{ name: 'screw', kind: 'screw', height: 1.8, beside: false, thread: 'M3', hole: 3.4 }],
      base: 1.2,
      sheet: 0.5,
      plate: 4,
      passes: [{ name: 'duct', above: 2 }],
      travel: 1,
    },
  ],
  fitCheck: [
    fitCheck,
    {
      plate: { width: 235, depth: 235 },
      print: rect,
      piece: { width: 230, depth: 230, x: 1, y: 1 },
      notches: [rect],
      keepOuts: [{ ...rect, name: 'knob' }],
    },
  ],
  padsFor: [padsFor, { plate: { width: 310, depth: 320 }, pad: { width: 400, depth: 200 } }],
  countersink: [countersink, { thread: 'M3', hole: 3.4, plate: 4, below: 0.1 }],
  layerMass: [layerMass, { width: 100, depth: 100, thickness: 3, density: 2500 }],
  skewOver: [
    ({ length, degrees }: { length: number; degrees: number }) => skewOver(length, degrees),
    { length: 235, degrees: 0.5 },
  ],
  planBlanks: [
    planBlanks,
    {
      sheet: { width: 420, depth: 330 },
      piece: { width: 140, depth: 110, corners: 3 },
      kerf: 1,
      trim: 2,
      method: 'saw',
      mayRotate: true,
      sheets: 2,
      price: 3,
      seed: 0.4,
    },
  ],
  planBlanksList: [
    planBlanks,
    {
      sheet: { width: 420, depth: 330 },
      piece: [
        { width: 140, depth: 110, count: 3 },
        { width: 90, depth: 60, count: 2 },
      ],
      kerf: 1,
      method: 'saw',
      mayRotate: true,
    },
  ],
  soak: [soak, { layers: [heat], ...soaking, cells: 6 }],
  coolDown: [coolDown, { layers: [heat], bottom: 60, top: 58, ambient: 20, loss: 12, to: 40, cells: 6 }],
  setpointForTop: [setpointForTop, { layers: [heat], ambient: 20, loss: 12, top: 60 }],
  calibrateSoak: [
    calibrateSoak,
    {
      layers: [heat],
      setpoint: 60,
      ambient: 20,
      readings: [
        { at: 60, top: 40 },
        { at: 600, top: 58 },
      ],
    },
  ],
  compatibility: [
    compatibility,
    {
      face: 'smooth-pei',
      limit: 100,
      printed: 'pla',
      solvent: 'alcohol',
      abrasive: 'microfibre',
      glue: 'none',
      tool: 'hand',
      heat: 25,
    },
  ],
  spacerSolid: [
    spacerSolid,
    { shape: 'clip-over', thickness: 2, layer: 0.2, bodyWidth: 6, depth: 10, cheek: 4, wall: 1.6, play: 0.2 },
  ],
  spacerPad: [spacerSolid, { shape: 'pad', thickness: 2, layer: 0.2, width: 12, depth: 10, hole: 3 }],
  spacerSlide: [
    spacerSolid,
    { shape: 'slide-in', thickness: 2, layer: 0.2, width: 12, depth: 20, screw: 3, play: 0.4 },
  ],
  spacerGauge: [spacerSolid, { shape: 'gauge', thickness: 2, layer: 0.2, step: 10, depth: 20 }],
  wholeLayers: [
    ({ thickness, layer }: { thickness: number; layer: number }) => wholeLayers(thickness, layer),
    { thickness: 2, layer: 0.2 },
  ],
  fitPlane: [({ points: p }: { points: typeof points }) => fitPlane(p), { points }],
  planTurns: [planTurns, { points, adjusters, aim: 0.1, noise: 0.01, smallestTurn: 0.125 }],
  stiffBed: [
    ({ adjusters: a, rises }: { adjusters: typeof adjusters; rises: number[] }) => stiffBed(a)(rises),
    { adjusters, rises: [0.1, 0, -0.1] },
  ],
  compareRounds: [compareRounds, { before: points, adjusters, rises: [0.1, 0, -0.1], now: points, noise: 0.01 }],
  contourBed: [contourBed, { points, step: 0.05, finest: 0.02 }],
  limitOf: [
    limitOf,
    { points, residuals: points.map(() => 0.01), tilt: 0.1, shape: { range: 0.2, rms: 0.02 }, noise: 0.01 },
  ],
  predictOffset: [
    predictOffset,
    {
      known: [
        { machine: 'm', surface: 's', offset: 0.1, weight: 2 },
        { machine: 'm', surface: 's', offset: 0.2 },
      ],
      machine: 'm',
      surface: 's',
    },
  ],
  gapBudget: [
    gapBudget,
    {
      way: 'quarters',
      gauge: { value: 0.1, sd: 0.002 },
      film: { value: 0.127, sd: 0.003 },
      gaugeGives: { value: 0.015, sd: 0.008 },
      filmGives: { value: 0.008, sd: 0.005 },
      raise: 0.01,
      firstLayer: 0.05,
    },
  ],
  footZero: [footZero, { flat: [9.96, 9.97], control: [10, 10.01] }],
  skirtTrim: [
    skirtTrim,
    {
      adjusters,
      print: rect,
      rounds: [{ looks: { front: 'gaps', right: 'touching', rear: 'touching', left: 'ridged' }, made: null }],
    },
  ],
  evenFeet: [
    ({ first, turned, span }: { first: number; turned: number; span: number }) => evenFeet({ first, turned }, span),
    { first: 1.5, turned: -0.5, span: 200 },
  ],
  settleSign: [
    ({ points: p, high }: { points: typeof points; high: { x: number; y: number } }) => settleSign(p, high),
    { points, high: { x: 200, y: 200 } },
  ],
  levelDrift: [
    ({ spans }: { spans: { left: number; found: number; days: number }[] }) => levelDrift(spans),
    { spans: [7, 14, 20].map((days) => ({ left: 0.03, found: 0.03 + 0.01 * days, days })) },
  ],
  flatness: [({ points: p }: { points: typeof points }) => flatness(p), { points }],
  describeShape: [
    ({ points: p, noise }: { points: typeof points; noise: number }) => describeShape(p, { noise }),
    { points, noise: 0.01 },
  ],
  lightSurvey: [lightSurvey, { lines: lit, aim: 0.05 }],
  padPlaces: [
    padPlaces,
    { print: { x: 0, y: 0, width: 200, depth: 200 }, pad: 20, line: 0.45, places: [{ x: 30, y: 40 }] },
  ],
  planShims: [
    planShims,
    {
      map: [0, 2, 3, 5, 6, 8].map((i) => dip[i]!),
      tape: { thickness: 0.075, width: 190 },
      direction: 'x',
      maxLayers: 1,
      aim: 0.02,
      noise: 0.01,
      plate: { width: 200, depth: 200 },
    },
  ],
  shapeCures: [
    shapeCures,
    {
      map: dip,
      aim: 0.05,
      family: 'filament',
      compensation: true,
      tape: null,
      bendable: null,
      reference: 0.02,
      noise: 0.01,
    },
  ],
  lapProgress: [
    ({ rounds }: { rounds: LapRound[] }) => lapProgress(rounds),
    {
      rounds: [20, 40].map((share) => ({
        strokes: 20,
        touched: { 'front-left': share, 'front-right': share, 'rear-left': share, 'rear-right': share, middle: share },
      })),
    },
  ],
  compareMaps: [compareMaps, { before: points, after: dip, noise: 0.01 }],
  splitShape: [
    splitShape,
    {
      maps: [{ machine: 'm', sheet: 's', turned: 0, flipped: false, points: [0, 2, 6, 8].map((i) => dip[i]!) }],
      flat: [],
      plate: { width: 200, depth: 200 },
    },
  ],
  compareFirstLayer: [
    (ask: Omit<Parameters<typeof compareFirstLayer>[0], 'map'>) =>
      compareFirstLayer({ ...ask, map: ({ x }) => x / 1000 }),
    {
      readings: [0, 100, 200].map((x) => ({ x, y: 0, thickness: [0.3, 0.31], look: 'touching' })),
      nominal: 0.3,
      noise: 0.015,
    },
  ],
  firstLayerPrint: [
    firstLayerPrint,
    {
      print: rect,
      height: 200,
      places: [{ x: 50, y: 50 }],
      pad: 20,
      layer: 0.25,
      line: 0.45,
      filament: 1.75,
      nozzle: 210,
      bed: 60,
      hottest: 100,
      offCommand: null,
      compensation: 'on',
    },
  ],
  compareMethods: [
    (ask: Parameters<typeof compareMethods>[0]) => compareMethods(ask, () => 0.5),
    { a: [0.2, 0.21, 0.19, 0.2], b: [0.25, 0.27, 0.24, 0.26], rule: { each: 4, looks: 2 }, matters: 0.03 },
  ],
  compareCounts: [
    compareCounts,
    { a: [{ held: 9, of: 10 }], b: [{ held: 5, of: 10 }], rule: { each: 10, looks: 2 }, matters: 0.2 },
  ],
  tQuantile: [({ p, nu }: { p: number; nu: number }) => tQuantile(p, nu), { p: 0.9, nu: 4 }],
  checkMount: [
    checkMount,
    {
      surface: {
        tag: 'S-1',
        group: 'sheet',
        slot: 'top',
        width: 235,
        depth: 235,
        limit: 100,
        directional: false,
        face: 'textured',
        state: { where: { kind: 'rack', place: '' }, hold: null, awaiting: null, retired: null, changedAt: 0 },
      },
      machine: {
        name: 'Dunlin',
        family: 'filament',
        plateWidth: 235,
        plateDepth: 235,
        printWidth: 220,
        printDepth: 220,
        hottest: 90,
        layers: [],
      },
      turned: 0,
      now: 1e6,
    },
  ],
};

const WORDS = new Set(['name', 'id', 'machine', 'surface', 'tag', 'place']);
const HOSTILE_NUMBERS = [NaN, Infinity, -Infinity, -1, 0, 1e308, -1e308, 5e-324];

/** Every question with one leaf changed: numbers into what no number should be, words into one that nobody knows. */
function* mutated(good: object): Generator<[path: string, asked: object]> {
  const leaves: string[][] = [];
  const visit = (value: unknown, path: string[]): void => {
    if (value === null || typeof value !== 'object') leaves.push(path);
    else for (const [key, part] of Object.entries(value)) visit(part, [...path, key]);
  };
  visit(good, []);
  for (const path of leaves) {
    const old = path.reduce<unknown>((part, key) => (part as Record<string, unknown>)[key], good);
    const values: unknown[] =
      typeof old === 'number'
        ? HOSTILE_NUMBERS
        : typeof old === 'string' && !WORDS.has(path.at(-1)!)
          ? ['<script>', '']
          : [];
    for (const value of values) {
      const asked = structuredClone(good) as Record<string, unknown>;
      const last = path
        .slice(0, -1)
        .reduce<Record<string, unknown>>((part, key) => part[key] as Record<string, unknown>, asked);
      last[path.at(-1)!] = value;
      yield [`${path.join('.')} = ${String(value)}`, asked];
    }
  }
}

/** Where in an answer a number is none. */
function notANumber(value: unknown, path = '', seen = new Set<unknown>()): string | null {
  if (typeof value === 'number') return Number.isNaN(value) ? path : null;
  if (typeof value === 'string') return /\bNaN\b|Infinity|undefined/.test(value) ? `${path}: ${value}` : null;
  if (value === null || typeof value !== 'object' || seen.has(value)) return null;
  seen.add(value);
  for (const [key, part] of Object.entries(value)) {
    const found = notANumber(part, `${path}.${key}`, seen);
    if (found !== null) return found;
  }
  return null;
}

test.each(Object.entries(SUMS))('%s answers what it can, and refuses the rest by name', (_, [sum, good]) => {
  expect(notANumber(sum(good as never))).toBeNull();
  const bad: string[] = [];
  let slowest = 0;
  for (const [change, asked] of mutated(good)) {
    const begun = performance.now();
    try {
      const found = notANumber(sum(asked as never));
      if (found !== null) bad.push(`${change}: answers with ${found}`);
    } catch (error) {
      const { name, message } = error as Error;
      if (
        !['RangeError', 'DegenerateInput', 'DegenerateAdjusters'].includes(name) ||
        !/needs?\b|knows|stand|lie|larger|narrower|smaller|fits|at most/.test(message)
      )
        bad.push(`${change}: throws ${name}: ${message}`);
    }
    slowest = Math.max(slowest, performance.now() - begun);
  }
  expect(bad).toEqual([]);
  // Far above what any takes: what hangs does not end at all.
  expect(slowest).toBeLessThan(10_000);
});

test('the questions are put several hundred ways', () => {
  const ways = Object.values(SUMS).reduce((sum, [, good]) => sum + [...mutated(good)].length, 0);
  expect(ways).toBeGreaterThan(1_000);
});
