import { useState } from 'react';
import { View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { lengthFigure } from './formatHeight';
import { shortDate } from './formatTime';
import { FAMILY, usePalette } from './theme';
import { usePrinting } from './usePrinting';
import { useNow } from './useNow';

/** A value that is known to lie between two, at a time. */
export interface TimedSpan {
  id: string;
  at: number;
  /** mm */
  least: number;
  /** mm; null: as far as can be. */
  most: number | null;
  /** A letter under it: how it was found. */
  mark: string;
  /** It was found to be as it should. */
  good: boolean;
}

interface Props {
  /** In order of time. */
  spans: readonly TimedSpan[];
  /** mm; null: none is wanted of it. */
  aim: number | null;
  label: string;
}

/** Width of a drawing that is first made for paper, px: it can't be measured there. */
const ON_PAPER = 640;
const HEIGHT = 220;
const LEFT = 44;
const BOTTOM = 44;
const TOP = 10;
const DATES = 5;

/** What lies between two values over time: a bar from the least to the most it can be, open above where that isn't known, and the aim. */
export function SpanTrend({ spans, aim, label }: Props) {
  const palette = usePalette();
  const now = useNow();
  const [width, setWidth] = useState(usePrinting() ? ON_PAPER : 0);
  const highest = 1.15 * Math.max(aim ?? 0, ...spans.map(({ least, most }) => most ?? least));
  const [from, to] = [spans[0]?.at ?? 0, spans.at(-1)?.at ?? 1];
  const x = (at: number) => LEFT + 10 + ((at - from) / Math.max(1, to - from)) * (width - LEFT - 30);
  const y = (mm: number) => TOP + (1 - mm / highest) * (HEIGHT - TOP - BOTTOM);
  // Dates stand where the ones before them leave room.
  const dated = spans.reduce<TimedSpan[]>((taken, span) => {
    const last = taken.at(-1);
    return !last || x(span.at) - x(last.at) > Math.max(64, width / DATES / 2) ? [...taken, span] : taken;
  }, []);
  const text = { fontFamily: FAMILY.regular, fontSize: 12, fill: palette.steel };
  return (
    <View
      role="img"
      aria-label={label}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height: HEIGHT }}
      testID="span-trend"
    >
      {width > 0 ? (
        <Svg width={width} height={HEIGHT}>
          {[0, highest / 2, highest].map((mm) => (
            <G key={mm}>
              <Line x1={LEFT} x2={width} y1={y(mm)} y2={y(mm)} stroke={palette.hairline} />
              <SvgText x={LEFT - 6} y={y(mm) + 4} textAnchor="end" {...text}>
                {lengthFigure(mm)}
              </SvgText>
            </G>
          ))}
          {aim === null ? null : (
            <Line
              x1={LEFT}
              x2={width}
              y1={y(aim)}
              y2={y(aim)}
              stroke={palette.ready}
              strokeWidth={2}
              strokeDasharray="5 5"
            />
          )}
          {spans.map(({ id, at, least, most, mark, good }) => {
            const high = most ?? highest;
            return (
              <G key={id}>
                <Rect
                  x={x(at) - 4}
                  y={y(high)}
                  width={8}
                  height={Math.max(3, y(least) - y(high))}
                  fill={good ? palette.ink : palette.due}
                  fillOpacity={most === null ? 0.35 : 1}
                />
                <SvgText x={x(at)} y={HEIGHT - BOTTOM + 16} textAnchor="middle" {...text} fill={palette.ink}>
                  {mark}
                </SvgText>
              </G>
            );
          })}
          {dated.map(({ id, at }) => (
            <SvgText key={id} x={x(at)} y={HEIGHT - 8} textAnchor="middle" {...text}>
              {shortDate(at, now)}
            </SvgText>
          ))}
        </Svg>
      ) : null}
    </View>
  );
}
