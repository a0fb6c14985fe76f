/** A layer as heat sees it. */
export interface HeatLayer {
  /** mm */
  thickness: number;
  /** W/m·K */
  conductivity: number;
  /** kg/m³ */
  density: number;
  /** J/kg·K */
  heatCapacity: number;
  /** Between this layer and the one under it, m²·K/W: an air gap, a dry joint. */
  contactResistance?: number;
}

/** Into how many parts each layer is divided, and each 12 mm of a thick one. */
export const CELLS_PER_LAYER = 12;
const cellsIn = (thickness: number, cells: number) => Math.max(cells, Math.ceil((thickness / 12) * cells));

/** Thermal resistance from the bottom face to the top face, m²·K/W. */
export function resistanceOf(layers: readonly HeatLayer[]): number {
  return layers.reduce(
    (sum, { thickness, conductivity, contactResistance = 0 }, i) =>
      sum + thickness / 1000 / conductivity + (i > 0 ? contactResistance : 0),
    0,
  );
}

/** What layers of any stack are made of: past these the steps of time would never end. */
const KNOWN = {
  thickness: [0.001, 1000],
  conductivity: [0.001, 10_000],
  density: [0.1, 50_000],
  heatCapacity: [1, 100_000],
} as const;

/** @throws RangeError a value that is not above 0, or that no material has, named with its layer */
export function guardLayers(who: string, layers: readonly HeatLayer[]): void {
  if (layers.length === 0) throw new RangeError(`${who} needs at least one layer`);
  layers.forEach((layer, i) => {
    for (const key of ['thickness', 'conductivity', 'density', 'heatCapacity'] as const)
      if (!(layer[key] >= KNOWN[key][0] && layer[key] <= KNOWN[key][1]))
        throw new RangeError(
          `${who} needs a ${key} above 0, layer ${i + 1} has ${layer[key]} (from ${KNOWN[key][0]} to ${KNOWN[key][1]} is known)`,
        );
    const contact = layer.contactResistance ?? 0;
    if (!(contact >= 0 && contact <= 10))
      throw new RangeError(`${who} needs contact resistances of 0 or more, layer ${i + 1} has ${contact}`);
  });
}

interface Grid {
  /** J/m²·K of each cell. */
  capacity: Float64Array;
  /** W/m²·K between a cell and the next. */
  between: Float64Array;
  /** W/m²·K from the middle of the first and last cell to their outer faces. */
  toBottom: number;
  toTop: number;
  /** m²·K/W from the bottom face to the middle of each cell. */
  resistanceBelow: Float64Array;
}

function gridOver(layers: readonly HeatLayer[], cells: number): Grid {
  const count = layers.reduce((sum, { thickness }) => sum + cellsIn(thickness, cells), 0);
  const capacity = new Float64Array(count);
  const half = new Float64Array(count);
  const contact = new Float64Array(count);
  let at = 0;
  for (const layer of layers) {
    const parts = cellsIn(layer.thickness, cells);
    const dx = layer.thickness / 1000 / parts;
    if (at > 0) contact[at] = layer.contactResistance ?? 0;
    for (const end = at + parts; at < end; at++) {
      capacity[at] = layer.density * layer.heatCapacity * dx;
      half[at] = dx / 2 / layer.conductivity;
    }
  }
  const between = new Float64Array(count - 1);
  const resistanceBelow = new Float64Array(count);
  resistanceBelow[0] = half[0]!;
  for (let i = 0; i < count - 1; i++) {
    const resistance = half[i]! + contact[i + 1]! + half[i + 1]!;
    between[i] = 1 / resistance;
    resistanceBelow[i + 1] = resistanceBelow[i]! + resistance;
  }
  return { capacity, between, toBottom: 1 / half[0]!, toTop: 1 / half[count - 1]!, resistanceBelow };
}

export interface ConductAsk {
  layers: readonly HeatLayer[];
  cells?: number;
  /** °C everywhere at the start, or at the bottom and top face with the steady slope between. */
  start: number | { bottom: number; top: number };
  /** What enters the bottom face, W/m², until that face is at the setpoint; from then on it is held there. */
  flux: number;
  setpoint: number | null;
  ambient: number;
  /** W/m²·K at the top face. */
  loss: number;
  /** Met when this, of the top face, goes from below 0 to 0. Left out: runs to `longest`. */
  until?: (top: number) => number;
  /** How far it runs on after that, as a part of the time it took; 0 ends there. */
  runOn?: number;
  longest: number;
  /** Times that a step must end at. */
  stops?: readonly number[];
}

export interface Conducted {
  /** Seconds; bottom and top face in °C; one for each step and each stop. */
  time: number[];
  bottom: number[];
  top: number[];
  /** When the bottom face came to the setpoint; null: never. */
  setpointAt: number | null;
  /** When `until` was met; null: not by `longest`. */
  metAt: number | null;
  /** J/m²: put in at the bottom, lost at the top, and more than at the start in the layers. */
  energy: { in: number; lost: number; stored: number };
}

/** L-stable two-stage SDIRK of order 2 (Alexander 1977): γ = 1 − √2/2. */
const GAMMA = 1 - Math.SQRT1_2;
/** Largest estimated error of one step, °C. */
const TOLERANCE = 0.004;
const MOST_STEPS = 200_000;
/** An event is met to within so many seconds. */
const EVENT = 1e-4;

/**
 * One-dimensional transient conduction through layers, bottom first: finite volumes in space, an L-stable implicit
 * scheme of order 2 with its own step in time.
 * Sources: Patankar, Numerical Heat Transfer and Fluid Flow (1980), ch. 4 (finite volumes, resistances in series);
 * Alexander, Diagonally implicit Runge-Kutta methods for stiff O.D.E.'s, SIAM J. Numer. Anal. 14 (1977) 1006-1021.
 */
export function conduct(ask: ConductAsk): Conducted {
  const { layers, cells = CELLS_PER_LAYER, start, flux, setpoint, ambient, loss, until, runOn = 0 } = ask;
  let { longest } = ask;
  const grid = gridOver(layers, cells);
  const n = grid.capacity.length;
  const topConductance = loss === 0 ? 0 : 1 / (1 / loss + 1 / grid.toTop);
  let now = startTemperatures(grid, start, resistanceOf(layers));
  const first = now.slice();
  let holds = setpoint !== null && bottomFace(now, false) >= setpoint;
  let setpointAt: number | null = holds ? 0 : null;
  let metAt: number | null = null;
  let t = 0;
  let put = 0;
  let lost = 0;
  const time = [0];
  const bottom = [startFace(start, 'bottom')];
  const top = [startFace(start, 'top')];
  const stops = [...(ask.stops ?? []), longest].filter((stop) => stop > 0).sort((p, q) => p - q);
  let dt = Math.min(0.05, longest);

  function bottomFace(cell: Float64Array, held: boolean): number {
    return held ? setpoint! : cell[0]! + flux / grid.toBottom;
  }
  function topFace(cell: Float64Array): number {
    return (grid.toTop * cell[n - 1]! + loss * ambient) / (grid.toTop + loss);
  }
  const heatIn = (cell: Float64Array) => (holds ? grid.toBottom * (setpoint! - cell[0]!) : flux);
  const heatLost = (cell: Float64Array) => topConductance * (cell[n - 1]! - ambient);

  /** Net heat into each cell, W/m². */
  const heating = (cell: Float64Array): Float64Array => {
    const net = new Float64Array(n);
    net[0] = heatIn(cell);
    net[n - 1]! -= heatLost(cell);
    for (let i = 0; i < n - 1; i++) {
      const up = grid.between[i]! * (cell[i]! - cell[i + 1]!);
      net[i]! -= up;
      net[i + 1]! += up;
    }
    return net;
  };
  /** (C + g·K) x = C·base + g·sources, by elimination. */
  const implicit = (base: Float64Array, g: number): Float64Array => {
    const diagonal = new Float64Array(n);
    const right = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      diagonal[i] = grid.capacity[i]! + g * ((i > 0 ? grid.between[i - 1]! : 0) + (i < n - 1 ? grid.between[i]! : 0));
      right[i] = grid.capacity[i]! * base[i]!;
    }
    if (holds) {
      diagonal[0]! += g * grid.toBottom;
      right[0]! += g * grid.toBottom * setpoint!;
    } else right[0]! += g * flux;
    diagonal[n - 1]! += g * topConductance;
    right[n - 1]! += g * topConductance * ambient;
    for (let i = 1; i < n; i++) {
      const ratio = (g * grid.between[i - 1]!) / diagonal[i - 1]!;
      diagonal[i]! -= ratio * g * grid.between[i - 1]!;
      right[i]! += ratio * right[i - 1]!;
    }
    right[n - 1]! /= diagonal[n - 1]!;
    for (let i = n - 2; i >= 0; i--) right[i] = (right[i]! + g * grid.between[i]! * right[i + 1]!) / diagonal[i]!;
    return right;
  };
  const step = (from: Float64Array, h: number) => {
    const one = implicit(from, GAMMA * h);
    const slope = heating(one);
    const base = from.map((value, i) => value + ((1 - GAMMA) * h * slope[i]!) / grid.capacity[i]!);
    const two = implicit(base, GAMMA * h);
    const slopeTwo = heating(two);
    let error = 0;
    for (let i = 0; i < n; i++)
      error = Math.max(error, Math.abs((GAMMA * h * (slopeTwo[i]! - slope[i]!)) / grid.capacity[i]!));
    return {
      to: two,
      error,
      put: h * ((1 - GAMMA) * heatIn(one) + GAMMA * heatIn(two)),
      lost: h * ((1 - GAMMA) * heatLost(one) + GAMMA * heatLost(two)),
    };
  };
  /** The part of a step after which something has just happened. */
  const shorten = (h: number, happened: (cell: Float64Array) => boolean): number => {
    let low = 0;
    let high = h;
    while (high - low > EVENT) {
      const middle = (low + high) / 2;
      if (happened(step(now, middle).to)) high = middle;
      else low = middle;
    }
    return high;
  };

  for (let steps = 0; t < longest - 1e-9; steps++) {
    if (steps === MOST_STEPS) throw new Error(`conduct did not end within ${MOST_STEPS} steps`);
    const stop = stops.find((at) => at > t + 1e-9)!;
    let h = Math.min(dt, stop - t, longest - t);
    let taken = step(now, h);
    if (taken.error > TOLERANCE && h > 1e-4) {
      dt = h * Math.max(0.2, 0.9 * Math.sqrt(TOLERANCE / taken.error));
      continue;
    }
    const grown = h * Math.min(4, 0.9 * Math.sqrt(TOLERANCE / Math.max(taken.error, 1e-12)));
    const atSetpoint = (cell: Float64Array) => setpoint !== null && bottomFace(cell, false) >= setpoint;
    const met = (cell: Float64Array) => metAt === null && until !== undefined && until(topFace(cell)) >= 0;
    let reaches = false;
    if (!holds && atSetpoint(taken.to)) {
      h = shorten(h, atSetpoint);
      taken = step(now, h);
      reaches = true;
    }
    if (met(taken.to)) {
      h = shorten(h, met);
      taken = step(now, h);
      reaches = reaches && atSetpoint(taken.to);
      metAt = t + h;
      longest = Math.min(longest, metAt * (1 + runOn));
    }
    now = taken.to;
    t += h;
    put += taken.put;
    lost += taken.lost;
    dt = reaches ? Math.min(grown, 0.05) : Math.max(grown, dt === h ? 0 : dt);
    if (reaches) {
      holds = true;
      setpointAt = t;
    }
    time.push(t);
    bottom.push(bottomFace(now, holds));
    top.push(topFace(now));
  }
  let stored = 0;
  for (let i = 0; i < n; i++) stored += grid.capacity[i]! * (now[i]! - first[i]!);
  return { time, bottom, top, setpointAt, metAt, energy: { in: put, lost, stored } };
}

function startTemperatures(grid: Grid, start: ConductAsk['start'], resistance: number): Float64Array {
  if (typeof start === 'number') return new Float64Array(grid.capacity.length).fill(start);
  return grid.resistanceBelow.map((below) => start.bottom + ((start.top - start.bottom) * below) / resistance);
}

const startFace = (start: ConductAsk['start'], face: 'bottom' | 'top') =>
  typeof start === 'number' ? start : start[face];
