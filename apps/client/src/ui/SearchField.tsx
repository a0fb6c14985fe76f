import { withType } from './typeScale';
import { useRef } from 'react';
import { View, type TextInput as NativeInput } from 'react-native';
import { TextInput } from 'react-native-paper';
import { Icon } from './Icon';
import { FAMILY, RADIUS, TYPE, usePalette } from './theme';
import { useKeys } from './useKeys';

interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  testID?: string;
}

/** The search of a list; "/" goes to it. */
export function SearchField({ label, value, onChange, testID }: Props) {
  const palette = usePalette();
  const input = useRef<NativeInput>(null);
  useKeys({ '/': () => input.current?.focus() });
  return (
    <View style={{ flexGrow: 1, flexShrink: 1, minWidth: 180 }}>
      <TextInput
        ref={input}
        mode="outlined"
        value={value}
        onChangeText={onChange}
        placeholder={label}
        placeholderTextColor={palette.steel}
        aria-label={label}
        testID={testID}
        autoCorrect={false}
        left={<TextInput.Icon icon={() => <Icon name="search" color={palette.steel} />} aria-hidden tabIndex={-1} />}
        outlineStyle={{ borderRadius: RADIUS }}
        style={{ backgroundColor: palette.raised, fontSize: TYPE.body, height: Math.max(48, withType(34)) }}
        contentStyle={{ fontFamily: FAMILY.regular }}
      />
    </View>
  );
}
