import { View } from 'react-native';
import Svg, { Defs, Line, LinearGradient, Rect, Stop, Text as SvgText } from 'react-native-svg';
import { FAMILY, usePalette } from './theme';

export interface Notch {
  /** In the unit of the strip, since its beginning. */
  at: number;
  mark: string;
}

interface Props {
  used: number;
  expected: number;
  spread: number;
  notches?: readonly Notch[];
  label: string;
  /** Without figures, for rows of a list. */
  small?: boolean;
}

const WIDTH = 330;

/** A rule of what was used: the past solid, the expected end as a fading band, notches where something was done. */
export function LifeStrip({ used, expected, spread, notches = [], label, small }: Props) {
  const palette = usePalette();
  const end = Math.max(expected + spread, used) * 1.04;
  const x = (value: number) => (Math.min(Math.max(value, 0), end) / end) * (WIDTH - 2) + 1;
  const top = small ? 4 : 18;
  const [from, to] = [x(expected - spread), x(expected + spread)];
  return (
    <View role="img" aria-label={label}>
      <Svg width="100%" height={small ? 14 : 54} viewBox={`0 0 ${WIDTH} ${small ? 14 : 54}`} preserveAspectRatio="none">
        <Defs>
          <LinearGradient id="fade" x1="0" y1="0" x2="1" y2="0">
            <Stop offset="0" stopColor={palette.ink} stopOpacity={0.5} />
            <Stop offset="1" stopColor={palette.ink} stopOpacity={0.04} />
          </LinearGradient>
        </Defs>
        <Line x1={1} y1={top + 3} x2={WIDTH - 1} y2={top + 3} stroke={palette.hairline} strokeWidth={2} />
        <Rect x={from} y={top} width={Math.max(2, to - from)} height={6} fill="url(#fade)" />
        <Rect x={1} y={top} width={Math.max(1, x(used) - 1)} height={6} fill={palette.ink} />
        {notches.map(({ at, mark }, i) => (
          <Line
            key={`${i}-${mark}`}
            x1={x(at)}
            y1={top - 4}
            x2={x(at)}
            y2={top + 10}
            stroke={palette.accent}
            strokeWidth={2}
          />
        ))}
        {small
          ? null
          : notches.map(({ at, mark }, i) => (
              <SvgText
                key={`${i}-${mark}-m`}
                x={x(at)}
                y={11}
                fontFamily={FAMILY.regular}
                fontSize={11}
                fill={palette.steel}
                textAnchor="middle"
              >
                {mark}
              </SvgText>
            ))}
        {small ? null : (
          <>
            <SvgText x={1} y={46} fontFamily={FAMILY.regular} fontSize={12} fill={palette.steel}>
              0
            </SvgText>
            <SvgText
              x={x(expected)}
              y={46}
              fontFamily={FAMILY.regular}
              fontSize={12}
              fill={palette.steel}
              textAnchor="middle"
            >
              {String(Math.round(expected))}
            </SvgText>
          </>
        )}
      </Svg>
    </View>
  );
}
