import { useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import Svg, { G, Line, Polygon, Rect, Text as SvgText } from 'react-native-svg';
import { FAMILY, SPACE, usePalette } from './theme';

export interface DrawnShape {
  /** Corners in mm; 0, 0 is the front-left corner of the sheet. */
  points: readonly (readonly [number, number])[];
  /** solid: a thing · dashed: a limit · hatched: what must stay free · cut: a line to cut along. */
  kind: 'solid' | 'dashed' | 'hatched' | 'cut';
  words?: string;
  /** Turns the words with a tall shape. */
  tall?: boolean;
}

interface Props {
  /** mm */
  width: number;
  depth: number;
  shapes: readonly DrawnShape[];
  label: string;
  /** Room beyond the sheet that shapes may take, mm. */
  beyond?: number;
  highest?: number;
  testID?: string;
}

const MARGIN = 6;
/** About what a column of a wide screen leaves it, px. */
const MOST = 700;

/** A sheet or plate from above, FRONT edge at the bottom, with what lies on it, true to scale. */
export function SheetDrawing({ width, depth, shapes, label, beyond = 0, highest = 420, testID }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  // Drawn at once in about its size: what stands below it stays where it is.
  const room = measured ?? Math.min(window - 2 * SPACE.m, MOST);
  const w = width + 2 * beyond;
  const d = depth + 2 * beyond;
  const scale = room > 0 ? Math.min((room - 2 * MARGIN) / w, highest / d) : 0;
  const x = (mm: number) => MARGIN + (mm + beyond) * scale;
  const y = (mm: number) => MARGIN + (depth + beyond - mm) * scale;
  return (
    <View
      role="img"
      aria-label={label}
      testID={testID}
      onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)}
      style={{ minHeight: 60 }}
    >
      {scale > 0 ? (
        <Svg width={2 * MARGIN + w * scale} height={2 * MARGIN + d * scale + 14}>
          <Rect
            x={x(0)}
            y={y(depth)}
            width={width * scale}
            height={depth * scale}
            fill={palette.middle}
            fillOpacity={0.5}
            stroke={palette.ink}
            strokeWidth={1.4}
          />
          {shapes.map((shape, i) => (
            <Shape key={i} shape={shape} x={x} y={y} scale={scale} />
          ))}
          <SvgText
            x={x(width / 2)}
            y={y(-beyond) + 16}
            fontFamily={FAMILY.bold}
            fontSize={11}
            fill={palette.steel}
            textAnchor="middle"
          >
            FRONT
          </SvgText>
        </Svg>
      ) : null}
    </View>
  );
}

function Shape({
  shape,
  x,
  y,
  scale,
}: {
  shape: DrawnShape;
  x: (mm: number) => number;
  y: (mm: number) => number;
  scale: number;
}) {
  const palette = usePalette();
  const { points, kind, words, tall } = shape;
  const xs = points.map(([px]) => px);
  const ys = points.map(([, py]) => py);
  const [left, right, front, rear] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  if (kind === 'cut')
    return (
      <Line
        x1={x(xs[0]!)}
        y1={y(ys[0]!)}
        x2={x(xs[1]!)}
        y2={y(ys[1]!)}
        stroke={palette.stop}
        strokeWidth={1.4}
        strokeDasharray="7 4"
      />
    );
  const cx = x((left + right) / 2);
  const cy = y((front + rear) / 2);
  const across = tall ? (rear - front) * scale : (right - left) * scale;
  const size = Math.min(14, across / ((words?.length ?? 1) * 0.58));
  return (
    <G>
      <Polygon
        points={points.map(([px, py]) => `${x(px)},${y(py)}`).join(' ')}
        fill={kind === 'solid' ? palette.raised : 'none'}
        fillOpacity={kind === 'solid' ? 0.92 : 1}
        stroke={kind === 'hatched' ? palette.stop : kind === 'dashed' ? palette.accent : palette.ink}
        strokeWidth={kind === 'solid' ? 1.3 : 1.6}
        strokeDasharray={kind === 'dashed' ? '6 4' : undefined}
      />
      {kind === 'hatched' ? (
        <Hatch left={x(left)} right={x(right)} top={y(rear)} bottom={y(front)} color={palette.stop} />
      ) : null}
      {words && size >= 7 ? (
        <SvgText
          x={cx}
          y={cy + size * 0.35}
          fontFamily={FAMILY.bold}
          fontSize={size}
          fill={palette.ink}
          textAnchor="middle"
          transform={tall ? `rotate(-90 ${cx} ${cy})` : undefined}
        >
          {words}
        </SvgText>
      ) : null}
    </G>
  );
}

function Hatch({
  left,
  right,
  top,
  bottom,
  color,
}: {
  left: number;
  right: number;
  top: number;
  bottom: number;
  color: string;
}) {
  const lines = [];
  const height = bottom - top;
  for (let at = left - height; at < right; at += 6) {
    const x1 = Math.max(left, at);
    const x2 = Math.min(right, at + height);
    if (x2 > x1)
      lines.push(
        <Line
          key={at}
          x1={x1}
          y1={bottom - (x1 - at)}
          x2={x2}
          y2={bottom - (x2 - at)}
          stroke={color}
          strokeWidth={1}
        />,
      );
  }
  return <>{lines}</>;
}
