import { useEffect, useRef, useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Menu } from 'react-native-paper';
import { Icon } from './Icon';
import { FAMILY, RADIUS, TOUCH, TYPE, usePalette } from './theme';
import { withType } from './typeScale';
import { useOver } from './useOver';
import { Words } from './Words';

interface Props {
  label: string;
  options: readonly { value: string; label: string }[];
  value: string | null;
  onChange: (value: string) => void;
  /** Shown while nothing is taken. */
  placeholder?: string;
  error?: string;
  hideLabel?: boolean;
  testID?: string;
}

/** One of a longer list, behind a button. */
export function Pick({ label, options, value, onChange, placeholder = 'Choose', error, hideLabel, testID }: Props) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  // The kit's menu takes the focus when it is drawn, and one that still fades out neither closes nor opens well: it is
  // there while it is open, and then taken away whole.
  const button = useRef<View>(null);
  const wasOpen = useRef(false);
  useEffect(() => {
    if (wasOpen.current && !open) button.current?.focus();
    wasOpen.current = open;
  }, [open]);
  const close = () => setOpen(false);
  useOver(open, close);
  const taken = options.find((option) => option.value === value)?.label ?? placeholder;
  const anchor = (
    <Pressable
      role="button"
      aria-label={`${label}: ${taken}`}
      aria-haspopup="menu"
      aria-expanded={open}
      ref={button}
      onPress={() => setOpen(true)}
      testID={testID}
      style={{
        minHeight: TOUCH,
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'space-between',
        borderWidth: 1,
        borderColor: error ? palette.stop : palette.edge,
        borderRadius: RADIUS,
        backgroundColor: palette.raised,
        paddingHorizontal: 14,
        gap: 8,
      }}
    >
      <Words>{taken}</Words>
      <Icon name="down" size={20} color={palette.steel} />
    </Pressable>
  );
  return (
    <View style={{ gap: 4, flexGrow: 1, flexShrink: 1, minWidth: 120 }}>
      {hideLabel ? null : (
        <Words size="small" tone="steel">
          {label}
        </Words>
      )}
      {open ? (
        <Menu
          visible
          onDismiss={close}
          anchorPosition="bottom"
          contentStyle={{
            backgroundColor: palette.raised,
            borderRadius: RADIUS,
            borderWidth: 1,
            borderColor: palette.edge,
          }}
          anchor={anchor}
        >
          <ScrollView style={{ maxHeight: 320 }}>
            {options.map((option) => (
              <Menu.Item
                key={option.value}
                title={option.label}
                onPress={() => {
                  close();
                  onChange(option.value);
                }}
                titleStyle={{
                  fontFamily: option.value === value ? FAMILY.bold : FAMILY.regular,
                  fontSize: TYPE.body,
                  color: palette.ink,
                }}
                style={{ height: Math.max(TOUCH, withType(34)) }}
                testID={testID ? `${testID}-${option.value}` : undefined}
              />
            ))}
          </ScrollView>
        </Menu>
      ) : (
        anchor
      )}
      {error ? (
        <Words size="small" tone="stop">
          {error}
        </Words>
      ) : null}
    </View>
  );
}
