import type { BedContours, HeightPoint, Position, SmallMap } from '@even-bed/core';
import { useId, useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import Svg, { Circle, ClipPath, Defs, G, Line, Path, Rect, Text } from 'react-native-svg';
import { signedFine } from './formatHeight';
import { heightTint } from './mixColors';
import { FAMILY, SPACE, useIsWide, usePalette, type Palette } from './theme';
import { DIAL_RADIUS, TurnDial } from './TurnDial';

/** The plate from above, mm; the origin is where the print area's front-left corner lies on it. */
export interface PlanPlate {
  width: number;
  depth: number;
  originX: number;
  originY: number;
  printWidth: number;
  printDepth: number;
}

export interface PlanAdjuster extends Position {
  id: string;
  /** As the technician sees it, + clockwise; left out where no turn is planned. */
  turns?: number;
  motor?: boolean;
  made?: boolean;
}

export interface PlanTouch {
  x: number;
  y: number;
  plane: 'upper' | 'lower';
}
export interface PlanStrip {
  x: number;
  y: number;
  width: number;
  depth: number;
  layer: number;
  /** It is the one meant now. */
  now?: boolean;
}

interface Props {
  plate: PlanPlate;
  adjusters?: readonly PlanAdjuster[];
  points?: readonly HeightPoint[];
  contours?: BedContours | null;
  /** Heights as a few cells, for lists. */
  cells?: SmallMap | null;
  /** Largest range wanted of this bed, mm: heights are tinted against it, so that a colour always means the same height. */
  aim?: number;
  /** What a reader that speaks says instead of the drawing; left out where the words stand beside it. */
  label?: string;
  /** Largest height of the drawing, px. */
  maxHeight?: number;
  /** Without dials and figures, for lists. */
  small?: boolean;
  /** Where the two planes touch that hold all readings between them. */
  touches?: readonly PlanTouch[];
  /** Strips of tape as they lie, mm on the plan; denser where they lie on each other. */
  strips?: readonly PlanStrip[];
  testID?: string;
}

/** An aim where none is known, mm. Common practice. */
const USUAL_AIM = 0.1;
/** Tints are full at this many aims from the mean: a bed within its aim stays within a quarter of them. */
const FULL_TINT = 2;
const MOST_LABELS = 5;
const MARGIN = DIAL_RADIUS + 4;
const NOTCH = 16;
/** A figure nearer than this to an adjuster's dot gives way, px. */
const CLEAR_OF_DOT = 16;

/** The width that small plans had last: in lists they are all alike. */
let roomOfSmall = 32;
/** About the share of a wide screen that a column has. */
const COLUMN = 0.3;

/** The plate in plan: true proportions, FRONT at the bottom, heights as tints with contours, adjusters where they are. */
export function BedPlan({
  plate,
  adjusters = [],
  points = [],
  contours,
  cells,
  aim = USUAL_AIM,
  label,
  maxHeight = 420,
  small,
  touches = [],
  strips = [],
  testID,
}: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const wide = useIsWide();
  // Before it is laid out it takes about the room that it will have, so that nothing below it moves.
  const [measured, setRoom] = useState<number | null>(null);
  const room = measured ?? (small ? roomOfSmall : wide ? COLUMN * window : window - 2 * SPACE.m);
  const clip = useId();
  const showDials = !small && adjusters.some(({ turns }) => turns !== undefined);
  const margin = small ? 3 : showDials ? MARGIN : 8;
  const foot = small ? 5 : NOTCH;
  const scale = Math.max(0, Math.min((room - 2 * margin) / plate.width, (maxHeight - 2 * margin - foot) / plate.depth));
  const width = plate.width * scale;
  const height = plate.depth * scale;
  const px = (x: number) => margin + (x + plate.originX) * scale;
  const py = (y: number) => margin + (plate.depth - plate.originY - y) * scale;
  const ringPath = (ring: readonly [number, number][]) =>
    `M${ring.map(([x, y]) => `${px(x).toFixed(1)} ${py(y).toFixed(1)}`).join('L')}Z`;
  const dials = adjusters.map((adjuster) => ({
    ...adjuster,
    ...dialPlace(px(adjuster.x), py(adjuster.y), { margin, width, height }),
  }));

  return (
    <View
      onLayout={({ nativeEvent: { layout } }) => {
        setRoom(layout.width);
        if (small) roomOfSmall = layout.width;
      }}
      {...(label ? { role: 'img' as const, 'aria-label': label } : { 'aria-hidden': true })}
      testID={testID}
      style={{ alignItems: 'center' }}
    >
      <Svg
        width={width + 2 * margin}
        height={height + 2 * margin + foot}
        viewBox={`0 0 ${width + 2 * margin} ${height + 2 * margin + foot}`}
      >
        <Rect x={margin} y={margin} width={width} height={height} fill={palette.raised} />
        {cells && !contours ? <Cells cells={cells} full={FULL_TINT * aim} px={px} py={py} scale={scale} /> : null}
        {contours ? (
          <>
            <Defs>
              <ClipPath id={clip}>
                <Path d={ringPath(contours.outline)} />
              </ClipPath>
            </Defs>
            <G clipPath={`url(#${clip})`}>
              <Bands contours={contours} full={FULL_TINT * aim} ringPath={ringPath} palette={palette} lines={!small} />
            </G>
          </>
        ) : (
          <Rect
            x={px(0)}
            y={py(plate.printDepth)}
            width={plate.printWidth * scale}
            height={plate.printDepth * scale}
            fill="none"
            stroke={palette.edge}
            strokeDasharray="4 4"
            strokeWidth={small ? 0 : 1}
          />
        )}
        <Rect
          x={margin}
          y={margin}
          width={width}
          height={height}
          fill="none"
          stroke={palette.ink}
          strokeWidth={small ? 1.2 : 1.6}
        />
        {strips.map((strip) => (
          <Strip
            key={`${strip.x} ${strip.y} ${strip.layer}`}
            strip={strip}
            px={px}
            py={py}
            scale={scale}
            palette={palette}
          />
        ))}
        <FrontNotch x={margin + width / 2} y={margin + height} small={small} palette={palette} />
        {small
          ? null
          : labelled(points).map(({ x, y, z }) => {
              const covered = dials.some(
                (dial) =>
                  Math.hypot(px(dial.x) - px(x), py(dial.y) - py(y)) < CLEAR_OF_DOT ||
                  (showDials && Math.hypot(dial.dialX - px(x), dial.dialY - py(y)) < DIAL_RADIUS + 14),
              );
              if (covered) return null;
              return (
                <Text
                  key={`${x} ${y}`}
                  x={px(x)}
                  y={py(y) + 5}
                  textAnchor="middle"
                  fontSize={15}
                  fontFamily={FAMILY.bold}
                  fill={palette.ink}
                >
                  {signedFine(z - (contours?.mean ?? 0))}
                </Text>
              );
            })}
        {touches.map(({ x, y, plane }) => {
          const [cx, cy] = [px(x), py(y)];
          // A wedge that stands on the upper plane, or hangs under the lower one; moved off the figure.
          const tip = plane === 'upper' ? -1 : 1;
          return (
            <Path
              key={`${plane} ${x} ${y}`}
              d={`M${cx - 8} ${cy + 20 * tip}L${cx + 8} ${cy + 20 * tip}L${cx} ${cy + 8 * tip}Z`}
              fill={plane === 'upper' ? palette.ink : palette.raised}
              stroke={palette.ink}
              strokeWidth={2}
            />
          );
        })}
        {small
          ? null
          : dials.map(({ id, x, y, turns, motor, made, dialX, dialY }) => (
              <G key={id}>
                {turns === undefined ? null : (
                  <Line x1={px(x)} y1={py(y)} x2={dialX} y2={dialY} stroke={palette.ink} strokeWidth={1} />
                )}
                <Circle cx={px(x)} cy={py(y)} r={4} fill={palette.ink} />
                {turns === undefined ? null : (
                  <TurnDial x={dialX} y={dialY} turns={turns} made={made ?? false} motor={motor ?? false} />
                )}
              </G>
            ))}
      </Svg>
    </View>
  );
}

/** A strip of tape: hatched along its length, twice as close as a second layer. */
function Strip({
  strip: { x, y, width, depth, layer, now },
  px,
  py,
  scale,
  palette,
}: {
  strip: PlanStrip;
  px: (x: number) => number;
  py: (y: number) => number;
  scale: number;
  palette: Palette;
}) {
  const [left, top] = [px(x), py(y + depth)];
  const [w, h] = [width * scale, depth * scale];
  const inset = layer > 1 ? 4 : 0;
  const step = 12 / layer;
  const lines: string[] = [];
  for (let at = step; at < w + h; at += step) {
    // Slanting lines cut off at the strip's edges.
    const [x0, y0] = at <= h ? [0, at] : [at - h, h];
    const [x1, y1] = at <= w ? [at, 0] : [w, at - w];
    lines.push(
      `M${(left + x0).toFixed(1)} ${(top + y0).toFixed(1)}L${(left + x1).toFixed(1)} ${(top + y1).toFixed(1)}`,
    );
  }
  return (
    <G>
      <Path d={lines.join('')} stroke={palette.accent} strokeWidth={1} strokeOpacity={0.75} />
      <Rect
        x={left + inset}
        y={top + inset}
        width={Math.max(0, w - 2 * inset)}
        height={Math.max(0, h - 2 * inset)}
        fill="none"
        stroke={palette.accent}
        strokeWidth={now ? 4 : 1.8}
      />
    </G>
  );
}

/** Isobands, each painted over the one below, and their edges as contour lines. */
function Bands({
  contours,
  full,
  ringPath,
  palette,
  lines,
}: {
  contours: BedContours;
  /** The height about the mean at which a tint is full, mm. */
  full: number;
  ringPath: (ring: readonly [number, number][]) => string;
  palette: Palette;
  lines: boolean;
}) {
  const { bands, step, outline } = contours;
  const share = (from: number) => Math.max(-1, Math.min(1, (from + step / 2) / full));
  return (
    <>
      <Path d={ringPath(outline)} fill={heightTint(palette, bands.length > 0 ? share(bands[0]!.from - step) : 0)} />
      {bands.map(({ from, rings }) => (
        <Path
          key={from}
          d={rings.map(ringPath).join('')}
          fill={heightTint(palette, share(from))}
          fillRule="evenodd"
          stroke={palette.ink}
          strokeOpacity={lines ? 0.4 : 0}
          strokeWidth={0.8}
        />
      ))}
    </>
  );
}

/** Each cell in the tint of its height; unread ones stay bare. */
function Cells({
  cells: { extent, columns, rows, hundredths },
  full,
  px,
  py,
  scale,
}: {
  cells: SmallMap;
  full: number;
  px: (x: number) => number;
  py: (y: number) => number;
  scale: number;
}) {
  const palette = usePalette();
  const [width, depth] = [(extent.x1 - extent.x0) / columns, (extent.y1 - extent.y0) / rows];
  return (
    <>
      {hundredths.map((height, i) =>
        height === null ? null : (
          <Rect
            key={i}
            x={px(extent.x0 + (i % columns) * width)}
            y={py(extent.y0 + (Math.floor(i / columns) + 1) * depth)}
            width={width * scale + 0.4}
            height={depth * scale + 0.4}
            fill={heightTint(palette, Math.max(-1, Math.min(1, height / 100 / full)))}
          />
        ),
      )}
    </>
  );
}

function FrontNotch({ x, y, small, palette }: { x: number; y: number; small: boolean | undefined; palette: Palette }) {
  if (small) return <Path d={`M${x - 7} ${y} H${x + 7} L${x + 4} ${y + 5} H${x - 4} Z`} fill={palette.ink} />;
  return (
    <>
      <Path d={`M${x - 34} ${y} H${x + 34} L${x + 27} ${y + NOTCH} H${x - 27} Z`} fill={palette.ink} />
      <Text
        x={x}
        y={y + 12}
        textAnchor="middle"
        fontSize={11}
        letterSpacing={0.8}
        fontFamily={FAMILY.bold}
        fill={palette.paper}
      >
        FRONT
      </Text>
    </>
  );
}

/** Dials of adjusters near an edge move out to it, so that they cover as little of the plate as they can. */
function dialPlace(x: number, y: number, { margin, width, height }: { margin: number; width: number; height: number }) {
  const near = 0.25;
  const out = (value: number, length: number) => {
    const share = (value - margin) / length;
    if (share < near) return margin;
    return share > 1 - near ? margin + length : value;
  };
  return { dialX: out(x, width), dialY: out(y, height) };
}

/** Readings that get a figure: all of them, or every so many rows and columns of a large map. */
function labelled(points: readonly HeightPoint[]): readonly HeightPoint[] {
  const pick = (values: number[]) => {
    const lines = [...new Set(values)].sort((p, q) => p - q);
    const every = Math.max(1, Math.ceil((lines.length - 1) / (MOST_LABELS - 1)));
    return new Set(lines.filter((_, i) => i % every === 0 || lines.length <= MOST_LABELS));
  };
  if (points.length <= MOST_LABELS * MOST_LABELS) return points;
  const xs = pick(points.map(({ x }) => x));
  const ys = pick(points.map(({ y }) => y));
  return points.filter(({ x, y }) => xs.has(x) && ys.has(y));
}
