import { useState } from 'react';
import { Pressable, useWindowDimensions, View } from 'react-native';
import { SPACE, usePalette } from './theme';
import { Words } from './Words';

export interface PlanSide {
  id: 'front' | 'right' | 'rear' | 'left';
  /** How its lines look; null: not looked at yet. */
  look: string | null;
  good: boolean;
}

interface Props {
  sides: readonly PlanSide[];
  /** The one that is meant now. */
  at: string | null;
  onPick: (id: PlanSide['id']) => void;
  label: string;
}

const BAR = 44;

/** A skirt from above: its four sides as bars round the print area, each with how its lines look. */
export function SkirtPlan({ sides, at, onPick, label }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  const size = Math.min(236, measured ?? window - 2 * SPACE.m);
  const place = (id: PlanSide['id']) => {
    const along = size - 2 * BAR - 8;
    switch (id) {
      case 'front':
        return { left: BAR + 4, bottom: 0, width: along, height: BAR };
      case 'rear':
        return { left: BAR + 4, top: 0, width: along, height: BAR };
      case 'left':
        return { left: 0, top: BAR + 4, width: BAR, height: along };
      case 'right':
        return { right: 0, top: BAR + 4, width: BAR, height: along };
    }
  };
  return (
    <View
      role="group"
      aria-label={label}
      onLayout={({ nativeEvent: { layout } }) => setRoom(layout.width)}
      testID="skirt-plan"
      style={{ alignItems: 'center' }}
    >
      <View style={{ width: size, height: size }}>
        <View
          style={{
            position: 'absolute',
            left: BAR + 8,
            right: BAR + 8,
            top: BAR + 8,
            bottom: BAR + 8,
            borderWidth: 1,
            borderStyle: 'dashed',
            borderColor: palette.steel,
            alignItems: 'center',
            justifyContent: 'center',
          }}
        >
          <Words size="small" tone="steel">
            print area
          </Words>
        </View>
        {sides.map(({ id, look, good }) => (
          <Pressable
            key={id}
            role="button"
            aria-label={`${id}: ${look ?? 'not looked at yet'}`}
            aria-pressed={id === at}
            onPress={() => onPick(id)}
            testID={`side-${id}`}
            style={{
              position: 'absolute',
              ...place(id),
              borderWidth: id === at ? 4 : 1.6,
              borderColor:
                id === at ? palette.accent : look === null ? palette.steel : good ? palette.ready : palette.due,
              backgroundColor: palette.raised,
              alignItems: 'center',
              justifyContent: 'center',
            }}
          >
            <View style={id === 'left' || id === 'right' ? { transform: [{ rotate: '-90deg' }], width: 104 } : {}}>
              <Words bold align="center" size="small">
                {look === null ? `${id}: ?` : `${id}: ${look}`}
              </Words>
            </View>
          </Pressable>
        ))}
      </View>
      <Words size="small" bold>
        FRONT
      </Words>
    </View>
  );
}
