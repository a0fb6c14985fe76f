import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Line } from 'react-native-svg';
import { usePalette } from './theme';

const STEP = 6;

/** The shop's steel rule under a page title: the only ornament. */
export function RuleLine() {
  const { ink } = usePalette();
  const [width, setWidth] = useState(0);
  const ticks = Array.from({ length: Math.floor(width / STEP) }, (_, i) => i);
  return (
    <View style={{ height: 8 }} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)} aria-hidden>
      <Svg width={width} height={8}>
        {ticks.map((i) => (
          <Line
            key={i}
            x1={i * STEP + 0.5}
            x2={i * STEP + 0.5}
            y1={0}
            y2={i % 10 === 0 ? 8 : 5}
            stroke={ink}
            strokeWidth={1}
          />
        ))}
      </Svg>
    </View>
  );
}
