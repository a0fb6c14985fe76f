import { tidyLength } from './tidyLength';

/** A printed thickness: what is wanted, what whole layers make of it, and what is over. mm. */
export interface WholeLayers {
  printed: number;
  /** 0: printed as it is wanted. */
  layers: number;
  /** printed − wanted, never below 0. */
  leftover: number;
}

/** A part of a layer that is float dust and no layer: 3.2 / 0.2 is 16.000000000000004. */
const DUST = 1e-6;

/**
 * Whole layers for a thickness that home depends on: always up, since what is thinner lets home trip too late.
 * @param thickness mm, above 0
 * @param layer height of a printed layer, mm; null: no layers, the thickness as it is
 * @throws RangeError a thickness or layer that is not above 0, more than 100,000 layers
 * @example wholeLayers(3.3, 0.2) // { printed: 3.4, layers: 17, leftover: 0.1 }
 */
export function wholeLayers(thickness: number, layer: number | null): WholeLayers {
  if (!(thickness > 0 && thickness < Infinity))
    throw new RangeError(`A spacer needs a thickness above 0 mm, got ${thickness}`);
  if (layer === null) return { printed: thickness, layers: 0, leftover: 0 };
  if (!(layer > 0 && layer < Infinity)) throw new RangeError(`A spacer needs a layer above 0 mm, got ${layer}`);
  const layers = Math.max(1, Math.ceil(thickness / layer - DUST));
  if (layers > 100_000) throw new RangeError(`A spacer has at most 100,000 layers, got ${layers}`);
  const printed = tidyLength(layers * layer);
  return { printed, layers, leftover: Math.max(0, tidyLength(printed - thickness)) };
}
