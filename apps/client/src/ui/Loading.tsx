import { View } from 'react-native';
import { ActionButton } from './ActionButton';
import { Notice } from './Notice';
import { SPACE } from './theme';
import { Words } from './Words';

/** While something comes. */
export function Loading({ what }: { what: string }) {
  return (
    <View style={{ paddingVertical: SPACE.l }} role="status">
      <Words tone="steel">{`Getting ${what} …`}</Words>
    </View>
  );
}

/** When something doesn't come: what the server said, and another try. */
export function Failed({ message, onRetry }: { message: string; onRetry: () => void }) {
  return (
    <Notice kind="stop" title="This could not be fetched" testID="fetch-failed">
      <Words>{message}</Words>
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton label="Try again" onPress={onRetry} />
      </View>
    </Notice>
  );
}
