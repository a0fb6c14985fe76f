import { View } from 'react-native';
import { usePalette } from './theme';

const DOT = 9;

interface Props {
  /** px */
  width: number;
  depth: number;
  /** Where adjusters lie, as shares of width and depth from the front left. */
  knobs?: readonly (readonly [number, number])[];
}

/** A plate from above, small: its front edge is the thick one. */
export function PlateGlyph({ width, depth, knobs = [] }: Props) {
  const palette = usePalette();
  return (
    <View
      style={{
        width,
        height: depth,
        borderWidth: 1.5,
        borderBottomWidth: 4,
        borderColor: palette.ink,
        borderRadius: 2,
        backgroundColor: palette.paper,
      }}
    >
      {knobs.map(([x, y]) => (
        <View
          key={`${x} ${y}`}
          style={{
            position: 'absolute',
            left: x * width - DOT / 2 - 1.5,
            bottom: y * depth - DOT / 2 - 1.5,
            width: DOT,
            height: DOT,
            borderRadius: DOT,
            backgroundColor: palette.ink,
          }}
        />
      ))}
    </View>
  );
}
