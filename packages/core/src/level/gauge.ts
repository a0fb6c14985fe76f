import { needNumbers } from '../needNumbers';
import { roundTurn } from './roundTurn';

/** What a gap is felt with. */
export const GAUGE_KINDS = ['paper', 'card', 'leaflet', 'film', 'shim'] as const;
export type GaugeKind = (typeof GAUGE_KINDS)[number];

/** Usual thickness of a single one, mm, until somebody has put calipers to it. Common practice; office paper 80 g/m². */
export const USUAL_GAUGE: Record<GaugeKind, number> = {
  paper: 0.1,
  card: 0.25,
  leaflet: 0.12,
  film: 0.127,
  shim: 0.1,
};

/** A gauge as a shop describes it: how many were put between the calipers at once, what they said, how many are felt with. */
export interface GaugeAsk {
  kind: GaugeKind;
  /** Pieces between the calipers, and what they said, mm; null: nobody has measured it. */
  caliper: { pieces: number; reading: number } | null;
  /** Layers that go under the nozzle: folded once is two. */
  layers: number;
}

export interface Gauge {
  /** mm */
  thickness: number;
  /** One standard deviation, mm. */
  uncertainty: number;
}

/** Calipers are read so well, one standard deviation, mm: a twentieth of a 0.02 scale's width, by hand. Common practice. */
const CALIPER = 0.01;
/** A piece differs from its neighbours by so much of its thickness. Common practice for office paper. */
const PIECE = 0.02;
/** What is only known by its name may be off by so much of it. */
const BY_NAME = 0.2;

/**
 * Thickness of a gauge and how well it is known. Ten between the calipers and divided are known ten times better than one.
 * @throws RangeError fewer than one piece or layer, a reading that is not above 0
 * @example gaugeOf({ kind: 'paper', caliper: { pieces: 10, reading: 1.04 }, layers: 2 }) // { thickness: 0.208, … }
 */
export function gaugeOf({ kind, caliper, layers }: GaugeAsk): Gauge {
  needNumbers('gaugeOf', { layers, ...(caliper ?? {}) });
  if (!(Number.isInteger(layers) && layers >= 1 && layers <= 50))
    throw new RangeError(`gaugeOf needs 1 to 50 whole layers, got ${layers}`);
  if (caliper === null) {
    const thickness = layers * USUAL_GAUGE[kind];
    return { thickness, uncertainty: BY_NAME * thickness };
  }
  const { pieces, reading } = caliper;
  if (!(Number.isInteger(pieces) && pieces >= 1 && pieces <= 1000))
    throw new RangeError(`gaugeOf needs at least one whole piece between the calipers, got ${pieces}`);
  if (!(reading > 0 && reading < 100)) throw new RangeError(`gaugeOf needs a reading above 0 mm, got ${reading}`);
  const one = reading / pieces;
  const own = PIECE * one * Math.sqrt(layers);
  return { thickness: layers * one, uncertainty: Math.hypot((layers * CALIPER) / pieces, own) };
}

/** The gauge that a first layer's height is usually set by: a sheet of office paper. */
export const COMMON_GAUGE = 0.1;

/**
 * What it means that a bed was levelled with this gauge and not with a common sheet: how much higher the nozzle stands, as
 * an offset and as turns of a stop screw.
 * @param pitch of the stop screw, mm a turn; null: there is none
 * @returns higher mm, + the nozzle stands higher · offset mm to set, − nearer · turns of the screw, to the safe side: rounded
 *   towards leaving the nozzle higher; null without a screw
 */
export function gaugeEffect({
  thickness,
  common = COMMON_GAUGE,
  pitch,
}: {
  thickness: number;
  common?: number;
  pitch: number | null;
}): { higher: number; offset: number; turns: number | null } {
  needNumbers('gaugeEffect', { thickness, common });
  if (pitch !== null && !(pitch > 0)) throw new RangeError(`gaugeEffect needs a pitch above 0 mm, got ${pitch}`);
  const higher = thickness - common;
  // Lowering the nozzle by less than it stands too high is safe; lowering it by more scrapes.
  const exact = pitch === null ? null : higher / pitch;
  const said = exact === null ? null : roundTurn(exact);
  const turns = said === null || exact === null ? null : said > exact ? said - 1 / 16 : said;
  return { higher, offset: 0 - higher, turns };
}
