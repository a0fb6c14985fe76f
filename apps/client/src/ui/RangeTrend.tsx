import { useState } from 'react';
import { View } from 'react-native';
import { LineChart } from 'react-native-chart-kit';
import { evenSteps, type TimedValue } from './evenSteps';
import { lengthFigure } from './formatHeight';
import { shortDate } from './formatTime';
import { FAMILY, usePalette } from './theme';
import { usePrinting } from './usePrinting';
import { useNow } from './useNow';

/** Width of a chart that is first drawn for paper, px: it can't be measured there. */
const ON_PAPER = 640;
/** Dates under the line. */
const DATES = 4;

interface Props {
  /** Ranges in mm, in order of time. */
  points: readonly TimedValue[];
  /** mm */
  aim: number;
  label: string;
}

/** Ranges over time as a line in the shop's unit, dates to scale, with the aim as a dashed line. */
export default function RangeTrend({ points, aim, label }: Props) {
  const palette = usePalette();
  const now = useNow();
  const [width, setWidth] = useState(usePrinting() ? ON_PAPER : 0);
  const { line, times, taken } = evenSteps(points);
  const every = Math.ceil(line.length / DATES);
  return (
    <View
      role="img"
      aria-label={label}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height: 172 }}
    >
      {width > 0 ? (
        <LineChart
          width={width}
          height={172}
          data={{
            labels: times.map((at, i) => (i % every === 0 ? shortDate(at, now) : '')),
            datasets: [
              { data: line, color: () => palette.ink, strokeWidth: 2 },
              {
                data: line.map(() => aim),
                color: () => palette.ready,
                strokeWidth: 2,
                strokeDashArray: [5, 5],
                withDots: false,
              },
            ],
          }}
          fromZero
          withShadow={false}
          withVerticalLines={false}
          segments={3}
          yAxisSuffix=""
          formatYLabel={(mm) => lengthFigure(Number(mm))}
          getDotProps={(_: number, step: number) => ({ r: taken.has(step) ? '3' : '0', fill: palette.ink })}
          chartConfig={{
            backgroundGradientFrom: palette.paper,
            backgroundGradientTo: palette.paper,
            backgroundGradientFromOpacity: 0,
            backgroundGradientToOpacity: 0,
            decimalPlaces: 6,
            color: () => palette.ink,
            labelColor: () => palette.steel,
            propsForLabels: { fontFamily: FAMILY.regular, fontSize: 12 },
            propsForBackgroundLines: { stroke: palette.hairline, strokeDasharray: '' },
          }}
          style={{ marginLeft: -12 }}
        />
      ) : null}
    </View>
  );
}
