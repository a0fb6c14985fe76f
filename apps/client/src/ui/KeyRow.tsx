import { Pressable, useWindowDimensions, View } from 'react-native';
import { RADIUS, usePalette } from './theme';
import { Words } from './Words';

export interface RowKey {
  id: string;
  label: string;
  hint?: string;
}

interface Props {
  /** In the order of what they say: of the gap, of the light. */
  keys: readonly RowKey[];
  /** The one that was said last; not given: none is shown as chosen. */
  chosen?: string | null;
  /** Left out: they only show what was found. */
  onPress?: (id: string) => void;
  /** Before the id of a key, for tests. */
  testID: string;
}

/** A few large keys side by side, in an order, for a gloved thumb. */
export function KeyRow({ keys, chosen, onPress, testID }: Props) {
  const palette = usePalette();
  const narrow = useWindowDimensions().width < 380;
  return (
    <View style={{ flexDirection: 'row', gap: 6 }}>
      {keys.map(({ id, label, hint }) => (
        <Pressable
          key={id}
          role={onPress ? 'button' : 'img'}
          aria-label={hint === undefined ? label : `${label}: ${hint}`}
          {...(chosen === undefined || !onPress ? {} : { 'aria-pressed': chosen === id })}
          disabled={!onPress}
          onPress={() => onPress?.(id)}
          testID={`${testID}-${id}`}
          style={{
            flex: 1,
            minWidth: 0,
            minHeight: 92,
            alignItems: 'center',
            justifyContent: 'center',
            gap: 4,
            borderWidth: chosen === id ? 4 : 1.5,
            borderColor: onPress || chosen === id ? palette.ink : palette.hairline,
            borderRadius: RADIUS,
            backgroundColor: palette.raised,
            paddingVertical: 8,
            paddingHorizontal: 2,
          }}
        >
          <Words bold align="center" size={narrow ? 'small' : 'body'}>
            {label}
          </Words>
          {hint === undefined ? null : (
            <Words size="small" tone="steel" align="center">
              {hint}
            </Words>
          )}
        </Pressable>
      ))}
    </View>
  );
}
