import { View } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { FAMILY, usePalette } from './theme';

interface Props {
  /** What stands at the line of home: where the switch trips. */
  home: string;
  /** What stands at the line of zero: where a print starts. */
  zero: string;
  /** never: no line yet · expired: broken, and its words in rust */
  state: 'never' | 'stands' | 'expired';
  label: string;
}

const HEIGHT = 132;

/** Home and zero over the film, drawn apart: the switch's line dashed with its flag, zero's line full, broken when it no longer holds. */
export function HomeZero({ home, zero, state, label }: Props) {
  const palette = usePalette();
  const text = { fontFamily: FAMILY.regular, fontSize: 14 };
  return (
    <View role="img" aria-label={label} testID="home-zero">
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 340 ${HEIGHT}`} preserveAspectRatio="xMinYMid meet">
        <G>
          <Path d="M 6 14 L 18 20 L 6 26 Z" fill={palette.ink} />
          <Line x1={18} y1={20} x2={120} y2={20} stroke={palette.ink} strokeWidth={2} strokeDasharray="6 5" />
          <SvgText x={0} y={46} {...text} fill={palette.ink}>
            {home}
          </SvgText>
        </G>
        <G>
          <Line
            x1={0}
            y1={70}
            x2={120}
            y2={70}
            stroke={state === 'stands' ? palette.accent : palette.stop}
            strokeWidth={4}
            {...(state === 'stands' ? {} : { strokeDasharray: state === 'never' ? '2 10' : '22 12' })}
          />
          <SvgText
            x={0}
            y={92}
            {...text}
            fontFamily={FAMILY.bold}
            fill={state === 'stands' ? palette.ink : palette.stop}
          >
            {zero}
          </SvgText>
        </G>
        <Line x1={0} y1={108} x2={340} y2={108} stroke={palette.steel} strokeWidth={1.4} />
        <Rect x={0} y={111} width={340} height={8} fill={palette.raised} stroke={palette.ink} strokeWidth={1} />
        <SvgText x={300} y={104} fontFamily={FAMILY.regular} fontSize={12} fill={palette.steel}>
          film
        </SvgText>
        <SvgText x={287} y={131} fontFamily={FAMILY.regular} fontSize={12} fill={palette.steel}>
          screen
        </SvgText>
      </Svg>
    </View>
  );
}
