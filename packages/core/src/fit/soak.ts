import { needNumbers } from '../needNumbers';
import { conduct, guardLayers, resistanceOf, type HeatLayer } from './conduct';

export interface SoakInput {
  /** Bottom first. */
  layers: readonly HeatLayer[];
  /** What the heater gives, W/m² of bed. */
  flux: number;
  /** °C that the bottom face is held at. */
  setpoint: number;
  /** °C of the air, and of everything at the start. */
  ambient: number;
  /** W/m²·K that the top loses. */
  loss: number;
  /** How near its steady temperature the top has to be, °C. */
  within: number;
  /** Parts that each layer is divided into. */
  cells?: number;
}

export interface HeatCurve {
  /** s */
  time: number[];
  /** °C of the bottom and the top face. */
  bottom: number[];
  top: number[];
}

export interface Soak {
  /** Until the top is within reach of its steady temperature; null: not within a day. */
  seconds: number | null;
  steadyTop: number;
  /** When the bottom face, which the sensor sees, comes to its setpoint; null: the heater is too weak. */
  setpointAt: number | null;
  /** False: the heater can't hold the setpoint, and the steady top is what its full flux holds. */
  holdsSetpoint: boolean;
  curve: HeatCurve;
  /** J/m²: put in, lost at the top, stored in the layers; in = lost + stored. */
  energy: { in: number; lost: number; stored: number };
}

const DAY = 86_400;
/** The curve goes on for so much of its time, to show that it has flattened. */
const RUN_ON = 0.5;

/**
 * How long a stack has to stand heated until its top is hot, and how hot it gets.
 * The heater's flux enters the bottom face until that face is at the setpoint, then it is held there; the top loses
 * loss·(T − ambient); the bottom loses nothing.
 * @throws RangeError values that are not above 0, a loss below 0, a setpoint not above ambient
 * Method: `conduct`. The steady state is that of resistances in series (Incropera & DeWitt, Fundamentals of Heat and
 * Mass Transfer, section 3.1).
 * @example soak({ layers: [ALUMINIUM_3], flux: 4000, setpoint: 60, ambient: 20, loss: 10, within: 1 }).seconds
 */
export function soak(input: SoakInput): Soak {
  needNumbers('soak', input);
  const { layers, flux, setpoint, ambient, loss, within, cells } = input;
  guardCells('soak', cells);
  guardLayers('soak', layers);
  if (!(flux > 0 && flux <= 1e7)) throw new RangeError(`soak needs a flux above 0 W/m², got ${flux}`);
  if (!(setpoint > ambient))
    throw new RangeError(`soak needs a setpoint above ambient, got ${setpoint} and ${ambient}`);
  if (!(loss >= 0 && loss <= 1e5)) throw new RangeError(`soak needs a loss of 0 or more, got ${loss}`);
  if (!(within > 0)) throw new RangeError(`soak needs a reach above 0 °C, got ${within}`);
  const { steadyTop, holdsSetpoint } = steadyTopOf(input);
  const done = conduct({
    layers,
    start: ambient,
    flux,
    setpoint,
    ambient,
    loss,
    until: (top) => top - (steadyTop - within),
    // On a thin plate the top is near enough before the sensor is at its setpoint.
    runOn: RUN_ON,
    longest: DAY,
    ...(cells === undefined ? {} : { cells }),
  });
  // The start may already be near enough.
  const near = ambient >= steadyTop - within;
  return {
    seconds: near ? 0 : done.metAt,
    steadyTop,
    setpointAt: done.setpointAt,
    holdsSetpoint,
    curve: { time: done.time, bottom: done.bottom, top: done.top },
    energy: done.energy,
  };
}

function guardCells(who: string, cells: number | undefined): void {
  if (cells !== undefined && !(Number.isInteger(cells) && cells >= 2 && cells <= 200))
    throw new RangeError(`${who} needs 2 to 200 cells a layer, got ${cells}`);
}

/** Steady temperature of the top, and whether the heater can hold the setpoint there. */
export function steadyTopOf({ layers, flux, setpoint, ambient, loss }: Omit<SoakInput, 'within' | 'cells'>) {
  const resistance = resistanceOf(layers);
  const need = loss === 0 ? 0 : (setpoint - ambient) / (resistance + 1 / loss);
  const holdsSetpoint = need <= flux;
  const through = Math.min(need, flux);
  return { holdsSetpoint, steadyTop: loss === 0 ? setpoint : ambient + through / loss };
}

/**
 * The setpoint that gives a wanted top in the steady state: bottom = ambient + (top − ambient)·(1 + loss·R).
 * @returns °C, and what the heater must give to hold it, W/m²
 * Resistances in series (Incropera & DeWitt, section 3.1).
 */
export function setpointForTop({
  layers,
  ambient,
  loss,
  top,
}: {
  layers: readonly HeatLayer[];
  ambient: number;
  loss: number;
  top: number;
}): { setpoint: number; flux: number } {
  needNumbers('setpointForTop', { layers, ambient, loss, top });
  guardLayers('setpointForTop', layers);
  if (!(top > ambient)) throw new RangeError(`setpointForTop needs a top above ambient, got ${top} and ${ambient}`);
  if (!(loss >= 0)) throw new RangeError(`setpointForTop needs a loss of 0 or more, got ${loss}`);
  return { setpoint: ambient + (top - ambient) * (1 + loss * resistanceOf(layers)), flux: loss * (top - ambient) };
}

/** °C below which any material may be touched for as long as one likes. Source: ISO 13732-1 (burn threshold for 8 h and longer: 43 °C), from memory. */
export const SAFE_TO_HANDLE = 43;

/**
 * How long a stack cools with its heater off until its top is down to a temperature.
 * It starts with the steady slope between bottom and top. The underside loses nothing here, so that the true time is
 * shorter: for "safe to handle" that errs to the safe side.
 * @returns seconds, null when not within a day; and the curve
 * @throws RangeError as `soak`; a wanted temperature that is not above ambient
 */
export function coolDown({
  layers,
  bottom,
  top,
  ambient,
  loss,
  to,
  cells,
}: {
  layers: readonly HeatLayer[];
  bottom: number;
  top: number;
  ambient: number;
  loss: number;
  to: number;
  cells?: number;
}): { seconds: number | null; curve: HeatCurve } {
  needNumbers('coolDown', { layers, bottom, top, ambient, loss, to });
  guardCells('coolDown', cells);
  guardLayers('coolDown', layers);
  if (!(to > ambient)) throw new RangeError(`coolDown needs a temperature above ambient, got ${to} and ${ambient}`);
  if (!(loss > 0)) throw new RangeError(`coolDown needs a loss above 0, got ${loss}`);
  if (top <= to) return { seconds: 0, curve: { time: [0], bottom: [bottom], top: [top] } };
  const done = conduct({
    layers,
    start: { bottom, top },
    flux: 0,
    setpoint: null,
    ambient,
    loss,
    until: (face) => to - face,
    longest: DAY,
    ...(cells === undefined ? {} : { cells }),
  });
  return { seconds: done.metAt, curve: { time: done.time, bottom: done.bottom, top: done.top } };
}
