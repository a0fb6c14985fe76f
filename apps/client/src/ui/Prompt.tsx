import { View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import { ActionButton } from './ActionButton';
import { RADIUS, SPACE, usePalette } from './theme';
import { useKeys } from './useKeys';
import { Words } from './Words';

interface Props {
  open: boolean;
  title: string;
  text: string;
  confirm: string;
  cancel?: string;
  onConfirm: () => void;
  onCancel: () => void;
  testID?: string;
}

/** Asks before something that can't be undone. */
export function Prompt({ open, title, text, confirm, cancel = 'Keep it', onConfirm, onCancel, testID }: Props) {
  const palette = usePalette();
  useKeys(open ? { Escape: onCancel } : {});
  return (
    <Portal>
      <Dialog
        visible={open}
        onDismiss={onCancel}
        style={{
          backgroundColor: palette.raised,
          borderRadius: RADIUS,
          maxWidth: 480,
          width: '90%',
          alignSelf: 'center',
        }}
      >
        <View style={{ padding: SPACE.l, paddingTop: 0, gap: SPACE.m }} testID={testID}>
          <Words size="lead" bold heading={2}>
            {title}
          </Words>
          <Words>{text}</Words>
          <View style={{ flexDirection: 'row', gap: 12 }}>
            <ActionButton label={cancel} onPress={onCancel} grow testID="prompt-cancel" />
            <ActionButton label={confirm} kind="main" onPress={onConfirm} grow testID="prompt-confirm" />
          </View>
        </View>
      </Dialog>
    </Portal>
  );
}
