import { useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import Svg, { Circle, G, Line, Polygon, Rect, Text } from 'react-native-svg';
import { FAMILY, SPACE, usePalette } from './theme';
import { DIAL_RADIUS, TurnDial } from './TurnDial';

export interface FeltPlace {
  id: string;
  /** In print coordinates, mm. */
  x: number;
  y: number;
  /** ok: likely within · open: not known yet · out: likely out. */
  stands: 'ok' | 'open' | 'out';
  /** As the technician sees it, + clockwise; where one is to be made. */
  turns?: number;
  motor?: boolean;
  middle?: boolean;
}

interface Props {
  places: readonly FeltPlace[];
  /** The place that is meant now. */
  at: string | null;
  /** A slip of paper lies there: it is felt; otherwise it is turned. */
  feels: boolean;
  label: string;
  testID?: string;
}

const SIGNS = { ok: 'ok', open: '?', out: '!' } as const;
const HEIGHT = 250;

/** The bed from above with its adjusters where they are: the one meant now stands out, a slip of paper lies at it. */
export function FeelPlan({ places, at, feels, label, testID }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  const room = Math.min(420, measured ?? window - 2 * SPACE.m);
  const [left, right] = [Math.min(...places.map(({ x }) => x)), Math.max(...places.map(({ x }) => x))];
  const [front, rear] = [Math.min(...places.map(({ y }) => y)), Math.max(...places.map(({ y }) => y))];
  const margin = DIAL_RADIUS + 10;
  const scale = Math.min(
    (room - 2 * margin) / Math.max(1, right - left),
    (HEIGHT - 2 * margin) / Math.max(1, rear - front),
  );
  const [width, height] = [(right - left) * scale, (rear - front) * scale];
  const px = (x: number) => margin + (x - left) * scale;
  const py = (y: number) => margin + (rear - y) * scale;
  const middle = margin + width / 2;
  const bottom = margin + height;
  return (
    <View
      onLayout={({ nativeEvent: { layout } }) => setRoom(layout.width)}
      role="img"
      aria-label={label}
      testID={testID}
      style={{ alignItems: 'center' }}
    >
      <Svg width={width + 2 * margin} height={height + 2 * margin + 8}>
        <Rect
          x={margin}
          y={margin}
          width={width}
          height={height}
          fill={palette.raised}
          stroke={palette.ink}
          strokeWidth={1.6}
        />
        <Polygon
          points={`${middle - 26},${bottom} ${middle + 26},${bottom} ${middle + 18},${bottom + 15} ${middle - 18},${bottom + 15}`}
          fill={palette.ink}
        />
        <Text
          x={middle}
          y={bottom + 11.5}
          fontSize={9}
          fontFamily={FAMILY.bold}
          fill={palette.paper}
          textAnchor="middle"
        >
          FRONT
        </Text>
        {places
          .filter(({ middle: inner }) => !inner)
          .map(({ id, x, y }, i, all) => {
            const next = all[(i + 1) % all.length]!;
            return (
              <Line
                key={`line ${id}`}
                x1={px(x)}
                y1={py(y)}
                x2={px(next.x)}
                y2={py(next.y)}
                stroke={palette.hairline}
                strokeDasharray="5 5"
              />
            );
          })}
        {places.map((place) => (
          <G key={place.id}>
            {place.id === at && feels ? (
              <Rect
                x={-26}
                y={-15}
                width={66}
                height={30}
                fill={palette.paper}
                stroke={palette.ink}
                strokeWidth={1.2}
                transform={`translate(${px(place.x)}, ${py(place.y)}) rotate(14)`}
              />
            ) : null}
            {place.turns !== undefined ? (
              <TurnDial x={px(place.x)} y={py(place.y)} turns={place.turns} made={false} motor={place.motor ?? false} />
            ) : (
              <G x={px(place.x)} y={py(place.y)}>
                <Circle
                  r={place.middle ? 12 : place.id === at ? DIAL_RADIUS - 3 : DIAL_RADIUS - 8}
                  fill={palette.raised}
                  stroke={place.id === at ? palette.accent : palette.ink}
                  strokeWidth={place.id === at ? 5 : 1.5}
                />
                <Text
                  textAnchor="middle"
                  y={5}
                  fontSize={place.middle ? 12 : 16}
                  fontFamily={FAMILY.bold}
                  fill={place.stands === 'out' ? palette.stop : palette.ink}
                >
                  {SIGNS[place.stands]}
                </Text>
              </G>
            )}
          </G>
        ))}
      </Svg>
    </View>
  );
}
