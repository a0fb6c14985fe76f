import { PLACE_WORDS, PLATE_PLACES, type PlatePlace } from '@even-bed/core/wear/platePlaces';
import { Pressable, View } from 'react-native';
import { FrontEdge } from './FrontEdge';
import { TOUCH, usePalette } from './theme';
import { Words } from './Words';

interface Props {
  /** Of the plate, mm: its proportions are drawn. */
  plate: { width: number; depth: number };
  taken: readonly PlatePlace[];
  /** Without it the places are only shown. */
  onToggle?: (place: PlatePlace) => void;
}

const MOST = 300;

/** The plate from above in nine places, front edge down; those that are meant are marked. */
export function NinePlaces({ plate, taken, onToggle }: Props) {
  const palette = usePalette();
  const scale = MOST / Math.max(plate.width, plate.depth);
  const least = onToggle ? TOUCH * 3 : 0;
  const size = { width: Math.max(least, plate.width * scale), height: Math.max(least, plate.depth * scale) };
  return (
    <View style={{ alignItems: 'center' }} role="group" aria-label="Where on the plate" testID="nine-places">
      <View
        style={{
          ...size,
          maxWidth: '100%',
          flexDirection: 'row',
          flexWrap: 'wrap',
          borderWidth: 1.6,
          borderColor: palette.ink,
          backgroundColor: palette.raised,
        }}
      >
        {PLATE_PLACES.map((place) => {
          const on = taken.includes(place);
          return (
            <Pressable
              key={place}
              role="checkbox"
              aria-checked={on}
              aria-label={PLACE_WORDS[place]}
              disabled={!onToggle}
              onPress={() => onToggle?.(place)}
              testID={`place-${place}`}
              style={{
                width: '33.33%',
                height: '33.33%',
                alignItems: 'center',
                justifyContent: 'center',
                borderWidth: on ? 3 : 0.5,
                borderColor: on ? palette.due : palette.hairline,
              }}
            >
              <Words size="small" bold={on} tone={on ? 'ink' : 'steel'} align="center">
                {PLACE_WORDS[place]}
              </Words>
            </Pressable>
          );
        })}
      </View>
      <FrontEdge />
    </View>
  );
}
