import { Pressable, View } from 'react-native';
import { usePalette } from './theme';
import { Words } from './Words';

export interface GridPiece {
  id: string;
  /** Where it lies, for a reader that speaks. */
  name: string;
  /** How it came out; null: not looked at yet. */
  look: string | null;
  good: boolean;
}

interface Props {
  /** Row by row from the rear, each from the left. */
  pieces: readonly GridPiece[];
  columns: number;
  onPress: (id: string) => void;
  label: string;
}

const HEIGHT = 64;

/** A platform from above with a thin piece at each of its places: a tap goes on to the next word. */
export function PieceGrid({ pieces, columns, onPress, label }: Props) {
  const palette = usePalette();
  const rows = Array.from({ length: pieces.length / columns }, (_, r) => pieces.slice(r * columns, (r + 1) * columns));
  return (
    <View role="group" aria-label={label} testID="piece-grid" style={{ alignItems: 'center', maxWidth: 440 }}>
      <View style={{ alignSelf: 'stretch', borderWidth: 1.6, borderColor: palette.ink, padding: 8, gap: 8 }}>
        {rows.map((row, r) => (
          <View key={r} style={{ flexDirection: 'row', gap: 8 }}>
            {row.map(({ id, name, look, good }) => (
              <Pressable
                key={id}
                role="button"
                aria-label={`${name}: ${look ?? 'not looked at yet'}`}
                onPress={() => onPress(id)}
                testID={`piece-${id}`}
                style={{
                  flex: 1,
                  minWidth: 0,
                  height: HEIGHT,
                  alignItems: 'center',
                  justifyContent: 'center',
                  borderWidth: look !== null && !good ? 3 : 1.5,
                  borderColor: look === null ? palette.steel : good ? palette.ready : palette.stop,
                  borderStyle: look === null ? 'dashed' : 'solid',
                  backgroundColor: palette.raised,
                }}
              >
                <Words bold={look !== null} align="center" size="small">
                  {look ?? '?'}
                </Words>
              </Pressable>
            ))}
          </View>
        ))}
      </View>
      <Words size="small" bold>
        FRONT
      </Words>
    </View>
  );
}
