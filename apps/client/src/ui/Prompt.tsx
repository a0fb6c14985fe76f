import { View } from 'react-native';
import { ActionButton } from './ActionButton';
import { DialogFrame } from './DialogFrame';
import { Words } from './Words';

interface Props {
  open: boolean;
  title: string;
  text: string;
  confirm: string;
  cancel?: string;
  onConfirm: () => void;
  onCancel: () => void;
}

/** Asks before something that can't be undone. */
export function Prompt({ open, title, text, confirm, cancel = 'Keep it', onConfirm, onCancel }: Props) {
  return (
    <DialogFrame open={open} title={title} onClose={onCancel}>
      <Words>{text}</Words>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label={cancel} onPress={onCancel} grow testID="prompt-cancel" />
        <ActionButton label={confirm} kind="main" onPress={onConfirm} grow testID="prompt-confirm" />
      </View>
    </DialogFrame>
  );
}
