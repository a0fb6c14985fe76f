import { useState } from 'react';
import { Pressable, useWindowDimensions, View } from 'react-native';
import { FrontEdge } from './FrontEdge';
import { SPACE, usePalette } from './theme';
import { Words } from './Words';

export interface PlacedPad {
  id: string;
  /** Its middle, mm on the plate. */
  x: number;
  y: number;
  /** What was read there, short; null: nothing yet. */
  read: string | null;
  /** What the map says there, short. */
  height: string;
  odd: boolean;
}

interface Props {
  plate: { width: number; depth: number };
  pads: readonly PlacedPad[];
  at: string | null;
  onPick: (id: string) => void;
  label: string;
}

const MOST = 330;
const PAD = 62;

/** The test print from above: its pads where they lie, each with what calipers said and what the map says. */
export function PadPlan({ plate, pads, at, onPick, label }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  const room = Math.min(MOST, measured ?? window - 2 * SPACE.m);
  const scale = Math.min(room / plate.width, MOST / plate.depth);
  const [width, height] = [plate.width * scale, plate.depth * scale];
  const inside = (value: number, most: number) => Math.min(most - PAD, Math.max(0, value - PAD / 2));
  return (
    <View
      role="group"
      aria-label={label}
      onLayout={({ nativeEvent: { layout } }) => setRoom(layout.width)}
      style={{ alignItems: 'center' }}
      testID="pad-plan"
    >
      <View style={{ width, height, borderWidth: 1.6, borderColor: palette.ink, backgroundColor: palette.raised }}>
        {pads.map((pad, i) => (
          <Pressable
            key={pad.id}
            role="button"
            aria-label={`Pad ${i + 1}: ${pad.read ?? 'not read yet'}, map ${pad.height}`}
            aria-pressed={pad.id === at}
            onPress={() => onPick(pad.id)}
            testID={`pad-${i + 1}`}
            style={{
              position: 'absolute',
              left: inside(pad.x * scale, width),
              top: inside(height - pad.y * scale, height),
              width: PAD,
              height: PAD,
              alignItems: 'center',
              justifyContent: 'center',
              borderWidth: pad.id === at ? 4 : 1.5,
              borderColor:
                pad.id === at
                  ? palette.accent
                  : pad.odd
                    ? palette.stop
                    : pad.read === null
                      ? palette.edge
                      : palette.ink,
              backgroundColor: palette.paper,
            }}
          >
            <Words bold>{pad.read ?? '?'}</Words>
            <Words size="small" tone="steel">
              {pad.height}
            </Words>
          </Pressable>
        ))}
      </View>
      <FrontEdge />
    </View>
  );
}
