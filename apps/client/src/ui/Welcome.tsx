import { View } from 'react-native';
import Svg, { Circle, Ellipse, Line, Path, Rect } from 'react-native-svg';
import { useIsWide, usePalette } from './theme';
import { Words } from './Words';

/** Whoever opens the app for the first time: what it is called, what it is for, and its sign. */
export function Welcome() {
  const wide = useIsWide();
  return (
    <View style={wide ? { gap: 16 } : { flexDirection: 'row', alignItems: 'center', gap: 16 }} testID="welcome">
      <View style={{ flexShrink: 0 }}>
        <Sign width={wide ? 380 : 96} />
      </View>
      <View style={{ flexShrink: 1, maxWidth: 420 }}>
        <Words size={wide ? 'lead' : 'body'}>
          The bench book for the build plates of a print shop: what to measure, how far to turn which screw, and what is
          due next.
        </Words>
      </View>
    </View>
  );
}

/** A plate from above with the lines of its heights, and one screw with how far it is turned. */
function Sign({ width }: { width: number }) {
  const palette = usePalette();
  const rings = [16, 30, 45, 61];
  return (
    <Svg width={width} height={width} viewBox="0 0 200 200" role="img" aria-label="A plate in plan, one screw turned">
      <Rect x={12} y={12} width={176} height={166} fill={palette.raised} stroke={palette.ink} strokeWidth={3} />
      {rings.map((r, i) => (
        <Ellipse
          key={r}
          cx={82}
          cy={88}
          rx={r * 1.05}
          ry={r * 0.82}
          fill="none"
          stroke={palette.steel}
          strokeWidth={i === 0 ? 2.4 : 1.4}
        />
      ))}
      {[
        [30, 30],
        [170, 30],
        [30, 160],
      ].map(([x, y]) => (
        <Circle key={`${x} ${y}`} cx={x} cy={y} r={8} fill={palette.paper} stroke={palette.ink} strokeWidth={2} />
      ))}
      <Circle cx={158} cy={148} r={30} fill={palette.paper} stroke={palette.ink} strokeWidth={2.4} />
      <Path d="M158 118 A30 30 0 0 1 188 148" fill="none" stroke={palette.accent} strokeWidth={9} />
      <Path d="M182 150 L188 164 L195 150 Z" fill={palette.accent} />
      <Line x1={158} y1={148} x2={158} y2={126} stroke={palette.ink} strokeWidth={3} />
      <Rect x={84} y={178} width={32} height={10} fill={palette.ink} />
    </Svg>
  );
}
