import { View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { lengthUnit, signedLength, sizeFigure } from './formatHeight';
import { FAMILY, usePalette } from './theme';
import { Words } from './Words';

export interface ComparedLayer {
  name: string;
  /** mm */
  thickness: number;
}

interface Props {
  /** Bottom first. */
  before: readonly ComparedLayer[];
  after: readonly ComparedLayer[];
  label: string;
}

const HEIGHT = 190;
const LEAST = 16;
const COLUMN = 104;
const LEFT = [2, 196] as const;
const VIEW = 350;

/** Two stacks side by side on one ground, with the change between their tops as a dimension line. */
export function StackCompare({ before, after, label }: Props) {
  const palette = usePalette();
  const total = (layers: readonly ComparedLayer[]) => layers.reduce((sum, { thickness }) => sum + thickness, 0);
  const change = total(after) - total(before);
  const scale = HEIGHT / Math.max(total(before), total(after), 0.01);
  const drawn = (layers: readonly ComparedLayer[]) =>
    layers.map(({ thickness }) => Math.max(thickness === 0 ? 0 : LEAST, thickness * scale));
  const heights = [drawn(before), drawn(after)];
  const sums = heights.map((list) => list.reduce((sum, height) => sum + height, 0));
  const ground = Math.max(...sums) + 26;
  const [topBefore, topAfter] = sums.map((sum) => ground - sum) as [number, number];
  const tone = Math.abs(change) < 0.005 ? palette.steel : palette.stop;
  return (
    <View role="img" aria-label={label} testID="stack-compare">
      <Svg width="100%" height={ground + 26} viewBox={`0 0 ${VIEW} ${ground + 26}`} preserveAspectRatio="xMinYMid meet">
        {[before, after].map((layers, side) => (
          <G key={side}>
            {layers.map((layer, i) => {
              const height = heights[side]![i]!;
              const below = heights[side]!.slice(0, i).reduce((sum, h) => sum + h, 0);
              const y = ground - below - height;
              const x = LEFT[side]!;
              return (
                <G key={i}>
                  <Rect
                    x={x}
                    y={y}
                    width={COLUMN}
                    height={height}
                    fill={palette.raised}
                    stroke={palette.ink}
                    strokeWidth={1.2}
                  />
                  {i % 2 === 1
                    ? Array.from({ length: 5 }, (_, n) => (
                        <Line
                          key={n}
                          x1={x + COLUMN - 34 + n * 7}
                          y1={y + height}
                          x2={x + COLUMN - 28 + n * 7}
                          y2={y}
                          stroke={palette.hairline}
                          strokeWidth={1}
                        />
                      ))
                    : null}
                  <SvgText
                    x={x + 6}
                    y={y + height / 2 + 4.5}
                    fontFamily={FAMILY.regular}
                    fontSize={12.5}
                    fill={palette.ink}
                  >
                    {layer.name.length > 15 ? `${layer.name.slice(0, 14)}…` : layer.name}
                  </SvgText>
                  <SvgText
                    x={x + COLUMN + 6}
                    y={y + height / 2 + 4.5}
                    fontFamily={FAMILY.bold}
                    fontSize={12.5}
                    fill={palette.ink}
                  >
                    {sizeFigure(layer.thickness, 3)}
                  </SvgText>
                </G>
              );
            })}
            <SvgText x={LEFT[side]!} y={ground + 20} fontFamily={FAMILY.bold} fontSize={13.5} fill={palette.ink}>
              {`${side === 0 ? 'Now' : 'Planned'} ${sizeFigure(total(layers), 3)}`}
            </SvgText>
          </G>
        ))}
        <Line x1={0} y1={ground} x2={VIEW} y2={ground} stroke={palette.ink} strokeWidth={1.4} />
        {Math.abs(change) < 0.005 ? null : (
          <G>
            <Line
              x1={LEFT[0] + COLUMN}
              y1={topBefore}
              x2={LEFT[1] - 4}
              y2={topBefore}
              stroke={tone}
              strokeDasharray="3 3"
            />
            <Line x1={LEFT[1] - 16} y1={topAfter} x2={LEFT[1]} y2={topAfter} stroke={tone} strokeDasharray="3 3" />
            <Line x1={LEFT[1] - 10} y1={topBefore} x2={LEFT[1] - 10} y2={topAfter} stroke={tone} strokeWidth={2} />
            <SvgText
              x={change < 0 ? LEFT[1] + 2 : LEFT[0]}
              y={(topBefore + topAfter) / 2 + (Math.abs(topBefore - topAfter) < 24 ? -14 : 5)}
              fontFamily={FAMILY.bold}
              fontSize={16}
              fill={tone}
            >
              {signedLength(change, 3)
                .replace(/(\.\d{0,6}?)0{1,6} /, '$1 ')
                .replace(/[.,] /, ' ')}
            </SvgText>
            {[topBefore, topAfter].map((y, i) => (
              <Line key={i} x1={LEFT[1] - 15} y1={y} x2={LEFT[1] - 5} y2={y} stroke={tone} strokeWidth={2} />
            ))}
          </G>
        )}
      </Svg>
      <Words size="small" tone="steel">
        {`${lengthUnit()}, bottom to top; thickness drawn larger than width, thin layers thicker than they are.`}
      </Words>
    </View>
  );
}
