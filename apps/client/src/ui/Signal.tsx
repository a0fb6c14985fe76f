import { View } from 'react-native';
import Svg, { Circle, Path, Rect } from 'react-native-svg';
import { usePalette, type Palette } from './theme';
import { Words } from './Words';

export type SignalKind = 'ready' | 'due' | 'stop' | 'hold';

interface Props {
  kind: SignalKind;
  /** The word is part of the signal; left out only where the words stand right beside it. */
  word?: string;
  size?: number;
}

/** A state by shape, colour and word: ready a ring, due a wedge, stop a square with a bar, hold an hourglass. */
export function Signal({ kind, word, size = 18 }: Props) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <Svg width={size} height={size} viewBox="0 0 18 18" style={{ flexShrink: 0 }} aria-hidden>
        <Shape kind={kind} color={palette[kind]} palette={palette} />
      </Svg>
      {word ? (
        <Words bold size="small">
          {word}
        </Words>
      ) : null}
    </View>
  );
}

function Shape({ kind, color, palette }: { kind: SignalKind; color: string; palette: Palette }) {
  switch (kind) {
    case 'ready':
      return <Circle cx={9} cy={9} r={6} stroke={color} strokeWidth={3.5} fill="none" />;
    case 'due':
      return <Path d="M1 3 H17 L12 15 H6 Z" fill={color} />;
    case 'stop':
      return (
        <>
          <Rect x={1} y={1} width={16} height={16} fill={color} />
          <Rect x={4} y={7.5} width={10} height={3} fill={palette.paper} />
        </>
      );
    case 'hold':
      return <Path d="M3 1 H15 V4 L10.5 9 L15 14 V17 H3 V14 L7.5 9 L3 4 Z" fill={color} />;
  }
}
