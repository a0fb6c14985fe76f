import { useState } from 'react';
import { Pressable, useWindowDimensions, View } from 'react-native';
import Svg, { Line } from 'react-native-svg';
import { FrontEdge } from './FrontEdge';
import { SPACE, usePalette } from './theme';
import { Words } from './Words';

export interface ScratchPart {
  id: 'front-left' | 'front-right' | 'rear-left' | 'rear-right' | 'middle';
  name: string;
  /** How much of it is scratched, %; null: not looked at yet. */
  touched: number | null;
}

interface Props {
  parts: readonly ScratchPart[];
  at: string | null;
  onPick: (id: ScratchPart['id']) => void;
  label: string;
}

const MOST = 300;

/** A platform's face in four quarters and its middle, hatched as far as it is scratched. */
export function ScratchMap({ parts, at, onPick, label }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  const size = Math.min(MOST, measured ?? window - 2 * SPACE.m);
  const half = size / 2;
  const inner = size * 0.38;
  const place = (id: ScratchPart['id']) =>
    id === 'middle'
      ? { left: (size - inner) / 2, top: (size - inner) / 2, width: inner, height: inner }
      : {
          [id.endsWith('left') ? 'left' : 'right']: 0,
          [id.startsWith('rear') ? 'top' : 'bottom']: 0,
          width: half,
          height: half,
        };
  return (
    <View
      role="group"
      aria-label={label}
      onLayout={({ nativeEvent: { layout } }) => setRoom(layout.width)}
      testID="scratch-map"
      style={{ alignItems: 'center' }}
    >
      <View
        style={{
          width: size,
          height: size,
          borderWidth: 1.6,
          borderColor: palette.ink,
          backgroundColor: palette.raised,
        }}
      >
        {[...parts]
          .sort((p, q) => +(p.id === 'middle') - +(q.id === 'middle'))
          .map((part) => {
            const room = part.id === 'middle' ? inner : half;
            return (
              <Pressable
                key={part.id}
                role="button"
                aria-label={`${part.name}: ${part.touched === null ? 'not looked at yet' : `${part.touched} % touched`}`}
                aria-pressed={part.id === at}
                onPress={() => onPick(part.id)}
                testID={`scratch-${part.id}`}
                style={{
                  position: 'absolute',
                  ...place(part.id),
                  borderWidth: part.id === at ? 4 : 1,
                  borderColor: part.id === at ? palette.accent : palette.edge,
                  backgroundColor: palette.raised,
                  alignItems: part.id.endsWith('left')
                    ? 'flex-start'
                    : part.id.endsWith('right')
                      ? 'flex-end'
                      : 'center',
                  justifyContent: part.id.startsWith('rear')
                    ? 'flex-start'
                    : part.id === 'middle'
                      ? 'center'
                      : 'flex-end',
                  padding: 10,
                  overflow: 'hidden',
                }}
              >
                <View style={{ position: 'absolute', left: 0, top: 0 }} pointerEvents="none">
                  <Svg width={room} height={room}>
                    {hatch(part.touched ?? 0, room).map((x) => (
                      <Line key={x} x1={x} y1={0} x2={x - room} y2={room} stroke={palette.steel} strokeWidth={1} />
                    ))}
                  </Svg>
                </View>
                <View style={{ backgroundColor: palette.raised, paddingHorizontal: 4 }}>
                  <Words bold>{part.touched === null ? '?' : `${part.touched} %`}</Words>
                </View>
              </Pressable>
            );
          })}
      </View>
      <FrontEdge />
    </View>
  );
}

/** Where slanting lines begin: the more is touched, the closer they lie. */
function hatch(touched: number, room: number): number[] {
  if (touched <= 0) return [];
  const step = 26 - 0.21 * touched;
  return Array.from({ length: Math.floor((2 * room) / step) }, (_, i) => (i + 1) * step);
}
