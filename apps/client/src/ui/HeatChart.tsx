import { useState } from 'react';
import { View } from 'react-native';
import { LineChart } from 'react-native-chart-kit';
import { temperatureFigure, temperatureUnit } from './formatHeight';
import { FAMILY, usePalette } from './theme';
import { Words } from './Words';

export interface HeatLine {
  name: string;
  /** °C at equal steps of time. */
  values: readonly number[];
  dashed: boolean;
}

interface Props {
  lines: readonly HeatLine[];
  /** Under the curve, at equal distances. */
  labels: readonly string[];
  label: string;
}

/** Temperatures over time in the shop's unit: full and dashed lines, each named below with its line. */
export default function HeatChart({ lines, labels, label }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const colors = [palette.ink, palette.stop, palette.accent, palette.hold];
  return (
    <View role="img" aria-label={label} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}>
      <View style={{ height: 200 }}>
        {width > 0 ? (
          <LineChart
            width={width}
            height={200}
            data={{
              labels: [...labels],
              datasets: lines.map(({ values, dashed }, i) => ({
                data: values.map(temperatureFigure),
                color: () => colors[i % colors.length]!,
                strokeWidth: 2.5,
                withDots: false,
                ...(dashed ? { strokeDashArray: [6, 5] } : {}),
              })),
            }}
            withShadow={false}
            withVerticalLines={false}
            segments={4}
            yAxisSuffix={` ${temperatureUnit()}`}
            chartConfig={{
              backgroundGradientFrom: palette.paper,
              backgroundGradientTo: palette.paper,
              backgroundGradientFromOpacity: 0,
              backgroundGradientToOpacity: 0,
              decimalPlaces: 0,
              color: () => palette.ink,
              labelColor: () => palette.steel,
              propsForLabels: { fontFamily: FAMILY.regular, fontSize: 12 },
              propsForBackgroundLines: { stroke: palette.hairline, strokeDasharray: '' },
            }}
            style={{ marginLeft: -12 }}
          />
        ) : null}
      </View>
      {lines.map(({ name, dashed }, i) => (
        <View key={name} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <View
            style={{
              width: 28,
              borderTopWidth: 3,
              borderTopColor: colors[i % colors.length],
              borderStyle: dashed ? 'dashed' : 'solid',
            }}
          />
          <Words size="small">{name}</Words>
        </View>
      ))}
    </View>
  );
}
