import { View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import { ActionButton } from '../ui/ActionButton';
import { RADIUS, SPACE, usePalette } from '../ui/theme';
import { useKeys } from '../ui/useKeys';
import { Words } from '../ui/Words';

const KEYS: readonly [string, string][] = [
  ['b, f, k', 'Go to the bench, the floor, the book'],
  ['/', 'Go to the search field'],
  ['arrows, Enter', 'Move through a grid of readings'],
  ['u', 'Use the heights that were read'],
  ['1 to 9', 'Tick a turn as made'],
  ['t', 'I have made these turns'],
  ['m', 'Measure again'],
  ['e', 'End the check'],
  ['?', 'Show this list'],
];

/** The keys of a wide screen. */
export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const palette = usePalette();
  useKeys(open ? { Escape: onClose } : {});
  return (
    <Portal>
      <Dialog
        visible={open}
        onDismiss={onClose}
        style={{
          backgroundColor: palette.raised,
          borderRadius: RADIUS,
          width: '90%',
          maxWidth: 460,
          alignSelf: 'center',
        }}
      >
        <View style={{ padding: SPACE.l, paddingTop: 0, gap: SPACE.s }} testID="keys-help">
          <Words size="lead" bold heading={2}>
            Keys
          </Words>
          {KEYS.map(([key, use]) => (
            <View key={key} style={{ flexDirection: 'row', gap: SPACE.m }}>
              <View style={{ width: 120 }}>
                <Words bold>{key}</Words>
              </View>
              <View style={{ flex: 1 }}>
                <Words>{use}</Words>
              </View>
            </View>
          ))}
          <ActionButton label="Close" kind="main" onPress={onClose} testID="close-keys" />
        </View>
      </Dialog>
    </Portal>
  );
}
