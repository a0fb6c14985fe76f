import { needNumbers } from '../needNumbers';
import modeling from '@jscad/modeling';
import type { Geom3 } from '@jscad/modeling/src/geometries/types';
import { tidyLength } from './tidyLength';
import { wholeLayers } from './wholeLayers';

const { booleans, extrusions, primitives, transforms } = modeling;

/** What calipers found, and how it is printed. mm throughout. */
export type SpacerAsk = {
  /** What it has to make up, from the change of the stack. */
  thickness: number;
  /** Printed layer height: the thickness becomes whole layers. Null: as it is. */
  layer: number | null;
} & (
  | {
      /** A flat pad with a hole for a screw (0: none). */
      shape: 'pad';
      width: number;
      depth: number;
      hole: number;
    }
  | {
      /** A pad with two cheeks that grip the body of a switch. `play`: room on each side. */
      shape: 'clip-over';
      bodyWidth: number;
      depth: number;
      cheek: number;
      wall: number;
      play: number;
    }
  | {
      /** A pad with a slot open to one end: slides in under a loosened screw. */
      shape: 'slide-in';
      width: number;
      depth: number;
      screw: number;
      play: number;
    }
  | {
      /** A stair of three: one layer less, the thickness, one layer more. The first goes in, the last doesn't. */
      shape: 'gauge';
      step: number;
      depth: number;
    }
);

export interface SpacerSolid {
  solid: Geom3;
  /** Thickness as printed and the layers that make it; 0 layers when no layer height was given. */
  printed: number;
  layers: number;
  /** printed − thickness, 0 or more: nothing is printed thinner than what keeps home safe. */
  leftover: number;
  /** Outer size as it lies on the bed that prints it. */
  size: { width: number; depth: number; height: number };
  /** mm³, by the formula of the shape: what a reader of the file must find. */
  volume: number;
}

const SPACER_SHAPES: readonly SpacerAsk['shape'][] = ['pad', 'clip-over', 'slide-in', 'gauge'];
const SEGMENTS = 64;
/** Steps of a gauge printed without whole layers. */
const PLAIN_STEP = 0.1;

/**
 * The solid of a spacer or gauge, closed, lying on z = 0 with its thickness upward: so that it prints in whole layers.
 * @throws RangeError sizes that are not above 0, a hole or slot wider than its pad
 */
export function spacerSolid(ask: SpacerAsk): SpacerSolid {
  needNumbers('A spacer', ask);
  if (!SPACER_SHAPES.includes(ask.shape))
    throw new RangeError(
      `A spacer knows the shapes ${SPACER_SHAPES.join(', ')}, got ${String((ask as SpacerAsk).shape)}`,
    );
  const positive = (name: string, value: number) => {
    if (!(value >= 0.01 && value <= 10_000)) throw new RangeError(`A spacer needs a ${name} above 0 mm, got ${value}`);
  };
  const { printed, layers, leftover } = wholeLayers(ask.thickness, ask.layer);
  const built = build(ask, printed, positive);
  return { ...built, printed, layers, leftover };
}

function build(
  ask: SpacerAsk,
  t: number,
  positive: (name: string, value: number) => void,
): Pick<SpacerSolid, 'solid' | 'size' | 'volume'> {
  positive('depth', ask.depth);
  switch (ask.shape) {
    case 'pad': {
      positive('width', ask.width);
      if (!(ask.hole >= 0 && ask.hole < Math.min(ask.width, ask.depth)))
        throw new RangeError(
          `The hole must be narrower than the pad of ${ask.width} × ${ask.depth} mm, got ${ask.hole}`,
        );
      const plate = primitives.rectangle({ size: [ask.width, ask.depth] });
      const outline =
        ask.hole > 0
          ? booleans.subtract(plate, primitives.circle({ radius: ask.hole / 2, segments: SEGMENTS }))
          : plate;
      return {
        solid: extrusions.extrudeLinear({ height: t }, outline),
        size: { width: ask.width, depth: ask.depth, height: t },
        volume: t * (ask.width * ask.depth - polygonArea(ask.hole / 2)),
      };
    }
    case 'slide-in': {
      positive('width', ask.width);
      const slot = ask.screw + ask.play;
      positive('screw', ask.screw);
      if (!(ask.play >= 0 && slot < ask.width && slot < ask.depth))
        throw new RangeError(`The slot must be narrower than the pad of ${ask.width} × ${ask.depth} mm, got ${slot}`);
      // From the front edge to the middle, ended by a half circle.
      const outline = booleans.subtract(
        primitives.rectangle({ size: [ask.width, ask.depth] }),
        booleans.union(
          primitives.rectangle({ size: [slot, ask.depth / 2], center: [0, -ask.depth / 4] }),
          primitives.circle({ radius: slot / 2, segments: SEGMENTS }),
        ),
      );
      return {
        solid: extrusions.extrudeLinear({ height: t }, outline),
        size: { width: ask.width, depth: ask.depth, height: t },
        volume: t * (ask.width * ask.depth - slot * (ask.depth / 2) - polygonArea(slot / 2) / 2),
      };
    }
    case 'clip-over': {
      for (const [name, value] of Object.entries({ 'body width': ask.bodyWidth, cheek: ask.cheek, wall: ask.wall }))
        positive(name, value);
      if (!(ask.play >= 0)) throw new RangeError(`A spacer needs a play of 0 or more, got ${ask.play}`);
      const inner = ask.bodyWidth + 2 * ask.play;
      const width = inner + 2 * ask.wall;
      const [half, outer, height] = [inner / 2, width / 2, t + ask.cheek];
      const profile = primitives.polygon({
        points: [
          [-outer, 0],
          [outer, 0],
          [outer, height],
          [half, height],
          [half, t],
          [-half, t],
          [-half, height],
          [-outer, height],
        ],
      });
      return {
        solid: upright(profile, ask.depth),
        size: { width, depth: ask.depth, height },
        volume: ask.depth * (width * t + 2 * ask.wall * ask.cheek),
      };
    }
    case 'gauge': {
      positive('step', ask.step);
      const rise = ask.layer ?? PLAIN_STEP;
      const heights = [t - rise, t, t + rise].map(tidyLength).filter((height) => height > 0);
      const points: [number, number][] = [
        [0, 0],
        [heights.length * ask.step, 0],
      ];
      // Back along the top, from the highest step down.
      for (let i = heights.length - 1; i >= 0; i--)
        points.push([(i + 1) * ask.step, heights[i]!], [i * ask.step, heights[i]!]);
      const profile = primitives.polygon({
        points: points.filter(([x, y], i) => i < 2 || x !== points[1]![0] || y > 0),
      });
      return {
        solid: upright(profile, ask.depth),
        size: { width: heights.length * ask.step, depth: ask.depth, height: heights.at(-1)! },
        volume: ask.depth * ask.step * heights.reduce((sum, height) => sum + height, 0),
      };
    }
  }
}

/** A profile drawn across and up, drawn out from front to rear. */
const upright = (profile: ReturnType<typeof primitives.polygon>, depth: number) =>
  transforms.translate(
    [0, depth, 0],
    transforms.rotateX(Math.PI / 2, extrusions.extrudeLinear({ height: depth }, profile)),
  );

/** A printed circle is a polygon. */
const polygonArea = (radius: number) => (SEGMENTS / 2) * radius ** 2 * Math.sin((2 * Math.PI) / SEGMENTS);
