import { View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { lengthUnit, sizeFigure } from './formatHeight';
import { FAMILY, usePalette } from './theme';
import { Words } from './Words';

export interface SectionLayer {
  name: string;
  /** mm */
  thickness: number;
  measured: boolean;
  /** Lies loose: may be lifted off. */
  loose: boolean;
  /** The one that the page is about. */
  marked?: boolean;
}

interface Props {
  /** Bottom first. */
  layers: readonly SectionLayer[];
  /** Width of what lies there, mm: for saying how much larger the thickness is drawn. */
  width: number;
  label: string;
}

const BAND = 176;
const DRAWN = 190;
const LEAST = 17;
const GAP = 5;

/** The layers of a stack as a section, thickness at the side; the loose ones stand a little off. */
export function StackSection({ layers, width, label }: Props) {
  const palette = usePalette();
  const total = layers.reduce((sum, { thickness }) => sum + thickness, 0);
  const scale = total > 0 ? BAND / total : 1;
  const heights = layers.map(({ thickness }) => Math.max(LEAST, thickness * scale));
  const gaps = layers.filter(({ loose }, i) => loose && i > 0).length;
  const full = heights.reduce((sum, height) => sum + height, 0) + gaps * GAP;
  const times = Math.max(1, Math.round(scale / (DRAWN / width)));
  // From the bottom up: each layer's top edge.
  const tops = heights.reduce<number[]>((all, height, i) => {
    const below = i === 0 ? full + 4 : all[i - 1]!;
    return [...all, below - height - (layers[i]!.loose && i > 0 ? GAP : 0)];
  }, []);
  return (
    <View role="img" aria-label={label} testID="stack-section">
      <Svg width="100%" height={full + 8} viewBox={`0 0 330 ${full + 8}`} preserveAspectRatio="xMinYMid meet">
        {layers.map((layer, i) => {
          const height = heights[i]!;
          const bottom = tops[i]!;
          const middle = bottom + height / 2 + 5;
          return (
            <G key={i}>
              <Rect
                x={1}
                y={bottom}
                width={DRAWN}
                height={height}
                fill={palette.raised}
                stroke={layer.marked ? palette.accent : palette.ink}
                strokeWidth={layer.marked ? 3 : 1.2}
              />
              {hatch(i, { y: bottom, height }).map((x) => (
                <Line
                  key={x}
                  x1={x}
                  y1={bottom + height}
                  x2={x + 6}
                  y2={bottom}
                  stroke={palette.hairline}
                  strokeWidth={1}
                />
              ))}
              <SvgText x={10} y={middle} fontFamily={FAMILY.regular} fontSize={14} fill={palette.ink}>
                {short(layer.name)}
              </SvgText>
              <SvgText x={DRAWN + 12} y={middle} fontFamily={FAMILY.bold} fontSize={14} fill={palette.ink}>
                {`${sizeFigure(layer.thickness, 3)}${layer.measured ? '' : ' nominal'}`}
              </SvgText>
            </G>
          );
        })}
        <Line x1={0} y1={full + 5} x2={330} y2={full + 5} stroke={palette.ink} strokeWidth={1.2} />
      </Svg>
      <Words size="small" tone="steel">
        {`${lengthUnit()}, bottom to top; thickness drawn about ${times} times larger than width.`}
      </Words>
    </View>
  );
}

/** Every second layer is hatched at its right end, so that neighbours are told apart without colour. */
function hatch(index: number, { height }: { y: number; height: number }): number[] {
  if (index % 2 === 0 || height < LEAST) return [];
  return Array.from({ length: 6 }, (_, i) => DRAWN - 46 + i * 7);
}

const short = (name: string) => (name.length > 22 ? `${name.slice(0, 21)}…` : name);
