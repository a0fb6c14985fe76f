import { Pressable, View } from 'react-native';
import { Icon } from './Icon';
import { RADIUS, TOUCH, usePalette } from './theme';
import { Words } from './Words';

interface Props {
  words: string;
  ticked: boolean;
  /** It was asked for and is not ticked. */
  missing?: boolean;
  onPress: () => void;
  testID?: string;
}

/** A line with a box to tick, large enough for a glove. */
export function TickRow({ words, ticked, missing = false, onPress, testID }: Props) {
  const palette = usePalette();
  return (
    <Pressable
      role="checkbox"
      aria-checked={ticked}
      aria-label={words}
      onPress={onPress}
      testID={testID}
      style={{ flexDirection: 'row', gap: 12, alignItems: 'center', minHeight: TOUCH + 8, paddingVertical: 6 }}
    >
      <View
        style={{
          width: 32,
          height: 32,
          borderRadius: RADIUS,
          borderWidth: 2,
          borderColor: missing && !ticked ? palette.stop : palette.ink,
          backgroundColor: ticked ? palette.ink : 'transparent',
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {ticked ? <Icon name="check" size={24} color={palette.paper} /> : null}
      </View>
      <View style={{ flex: 1 }}>
        <Words tone={missing && !ticked ? 'stop' : 'ink'}>{words}</Words>
      </View>
    </Pressable>
  );
}
