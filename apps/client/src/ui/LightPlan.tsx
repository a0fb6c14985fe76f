import { useRef, useState } from 'react';
import { useWindowDimensions, View, type GestureResponderEvent } from 'react-native';
import Svg, { Circle, Line, Path, Rect, Text } from 'react-native-svg';
import { FAMILY, SPACE, usePalette } from './theme';

/** A line under a straightedge with where light shows on it, as shares of the line. Places in mm. */
export interface DrawnLine {
  id: string;
  from: { x: number; y: number };
  to: { x: number; y: number };
  lit: readonly { from: number; to: number; strong: boolean }[];
  /** It was looked along. */
  seen: boolean;
  /** It has to be looked at again. */
  doubted: boolean;
}

interface Props {
  plate: { width: number; depth: number };
  lines: readonly DrawnLine[];
  /** The one meant now; null: none, it is only shown. */
  at: string | null;
  /** A part of the line meant was slid along. */
  onLit?: (from: number, to: number) => void;
  label: string;
}

const MARGIN = 14;
const NOTCH = 16;
const MOST_HEIGHT = 320;
/** A slide shorter than this share of the line is a slip. */
const LEAST_SLIDE = 0.05;

/** The plate from above with the straightedge's lines: a finger slides along the part of the line meant where light shows. */
export function LightPlan({ plate, lines, at, onLit, label }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  const room = Math.min(460, measured ?? window - 2 * SPACE.m);
  const scale = Math.max(
    0.01,
    Math.min((room - 2 * MARGIN) / plate.width, (MOST_HEIGHT - MARGIN - NOTCH) / plate.depth),
  );
  const [width, height] = [plate.width * scale, plate.depth * scale];
  const px = (x: number) => MARGIN + x * scale;
  const py = (y: number) => MARGIN + height - y * scale;
  const meant = lines.find(({ id }) => id === at) ?? null;
  const begun = useRef<number | null>(null);
  const [slide, setSlide] = useState<{ from: number; to: number } | null>(null);

  /** How far along the line meant a touch lies, 0 to 1. */
  const shareOf = ({ nativeEvent: { locationX, locationY } }: GestureResponderEvent): number => {
    const [ax, ay, bx, by] = [px(meant!.from.x), py(meant!.from.y), px(meant!.to.x), py(meant!.to.y)];
    const [dx, dy] = [bx - ax, by - ay];
    const t = ((locationX - ax) * dx + (locationY - ay) * dy) / (dx * dx + dy * dy);
    // To a hundredth; whether an end is meant the sum decides, by what shows at the other.
    return Math.round(Math.min(1, Math.max(0, t)) * 100) / 100;
  };
  const slides = meant !== null && onLit !== undefined;
  const end = (event: GestureResponderEvent) => {
    const from = begun.current;
    begun.current = null;
    setSlide(null);
    if (from === null) return;
    const to = shareOf(event);
    if (Math.abs(to - from) >= LEAST_SLIDE) onLit!(Math.min(from, to), Math.max(from, to));
  };
  const part = (line: DrawnLine, from: number, to: number) => {
    const x = (t: number) => px(line.from.x + (line.to.x - line.from.x) * t);
    const y = (t: number) => py(line.from.y + (line.to.y - line.from.y) * t);
    return { x1: x(from), y1: y(from), x2: x(to), y2: y(to) };
  };
  const [totalWidth, totalHeight] = [width + 2 * MARGIN, height + MARGIN + NOTCH + 4];
  return (
    <View
      onLayout={({ nativeEvent: { layout } }) => setRoom(layout.width)}
      style={{ alignItems: 'center' }}
      role="img"
      aria-label={label}
      testID="light-plan"
    >
      <View
        style={{
          width: totalWidth,
          height: totalHeight,
          ...({
            touchAction: slides ? 'none' : 'auto',
            userSelect: 'none',
            cursor: slides ? 'crosshair' : 'auto',
          } as object),
        }}
        {...(slides
          ? {
              onStartShouldSetResponder: () => true,
              onMoveShouldSetResponder: () => true,
              onResponderTerminationRequest: () => false,
              onResponderGrant: (event: GestureResponderEvent) => {
                begun.current = shareOf(event);
                setSlide({ from: begun.current, to: begun.current });
              },
              onResponderMove: (event: GestureResponderEvent) =>
                begun.current === null ? undefined : setSlide({ from: begun.current, to: shareOf(event) }),
              onResponderRelease: end,
            }
          : {})}
        testID="light-touch"
      >
        <View pointerEvents="none">
          <Svg width={totalWidth} height={totalHeight} viewBox={`0 0 ${totalWidth} ${totalHeight}`}>
            <Rect
              x={MARGIN}
              y={MARGIN}
              width={width}
              height={height}
              fill={palette.raised}
              stroke={palette.ink}
              strokeWidth={1.6}
            />
            {lines.map((line) => (
              <Line
                key={line.id}
                {...part(line, 0, 1)}
                stroke={
                  line.id === at
                    ? palette.ink
                    : line.doubted
                      ? palette.stop
                      : line.seen
                        ? palette.steel
                        : palette.hairline
                }
                strokeWidth={line.id === at ? 3 : 2}
                {...(line.doubted ? { strokeDasharray: '7 5' } : {})}
              />
            ))}
            {lines.flatMap((line) =>
              line.lit.map(({ from, to, strong }) => (
                <Line
                  key={`${line.id} ${from}`}
                  {...part(line, from, to)}
                  stroke={strong ? palette.stop : palette.due}
                  strokeWidth={line.id === at ? 13 : strong ? 8 : 6}
                  strokeLinecap="round"
                />
              )),
            )}
            {slide && meant ? (
              <>
                <Line
                  {...part(meant, slide.from, slide.to)}
                  stroke={palette.accent}
                  strokeWidth={15}
                  strokeOpacity={0.6}
                  strokeLinecap="round"
                />
                <Circle
                  cx={part(meant, 0, slide.to).x2}
                  cy={part(meant, 0, slide.to).y2}
                  r={20}
                  fill={palette.accent}
                  fillOpacity={0.85}
                />
              </>
            ) : null}
            <Path d={`M${MARGIN + width / 2 - 34} ${MARGIN + height}h68l-8 ${NOTCH}h-52z`} fill={palette.ink} />
            <Text
              x={MARGIN + width / 2}
              y={MARGIN + height + 12}
              textAnchor="middle"
              fontSize={11}
              fontFamily={FAMILY.bold}
              fill={palette.paper}
            >
              FRONT
            </Text>
          </Svg>
        </View>
      </View>
    </View>
  );
}
