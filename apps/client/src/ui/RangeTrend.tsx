import { useState } from 'react';
import { View } from 'react-native';
import { LineChart } from 'react-native-chart-kit';
import { FAMILY, usePalette } from './theme';

export interface RangeTrendPoint {
  label: string;
  range: number;
}

interface Props {
  points: readonly RangeTrendPoint[];
  aim: number;
  label: string;
}

/** Ranges over time as a line, with the aim as a dashed one. */
export default function RangeTrend({ points, aim, label }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const every = Math.ceil(points.length / 4);
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
            labels: points.map((point, i) => (i % every === 0 ? point.label : '')),
            datasets: [
              { data: points.map(({ range }) => range), color: () => palette.ink, strokeWidth: 2 },
              {
                data: points.map(() => aim),
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
          chartConfig={{
            backgroundGradientFrom: palette.paper,
            backgroundGradientTo: palette.paper,
            backgroundGradientFromOpacity: 0,
            backgroundGradientToOpacity: 0,
            decimalPlaces: 2,
            color: () => palette.ink,
            labelColor: () => palette.steel,
            propsForLabels: { fontFamily: FAMILY.regular, fontSize: 12 },
            propsForBackgroundLines: { stroke: palette.hairline, strokeDasharray: '' },
            propsForDots: { r: '3', fill: palette.ink },
          }}
          style={{ marginLeft: -12 }}
        />
      ) : null}
    </View>
  );
}
