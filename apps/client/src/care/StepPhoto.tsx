import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { ActionButton } from '../ui/ActionButton';
import { pickFile } from '../ui/pickFile';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useSendPhotoMutation } from './careApi';

/** A photo of how it looked at this step; it is kept with the machine. */
export function StepPhoto({ machineId, note }: { machineId: string; note: string }) {
  const [send, { isLoading, error }] = useSendPhotoMutation();
  const [sent, setSent] = useState(0);
  const take = async () => {
    const file = await pickFile('image/*', { camera: true });
    if (!file) return;
    const result = await send({ id: uuid(), file, machineId, at: rightNow(), note });
    if (!result.error) setSent((n) => n + 1);
  };
  return (
    <View style={{ gap: 4, alignItems: 'flex-start' }}>
      <ActionButton
        label={sent > 0 ? `Another photo (${sent} kept)` : 'Take a photo'}
        icon="camera"
        busy={isLoading}
        onPress={() => void take()}
        testID="step-photo"
      />
      {error ? <Words tone="stop">{errorOf(error)?.message ?? 'The photo was not sent.'}</Words> : null}
    </View>
  );
}
