import { Component, type ReactNode } from 'react';
import { View } from 'react-native';
import { ActionButton } from './ActionButton';
import { SPACE } from './theme';
import { Words } from './Words';

interface Props {
  children: ReactNode;
  /** Another view: what broke before is looked at anew. */
  view: string;
}

/** A piece of the app that could not be fetched: it was taken away by a newer version. */
const isMissingPiece = (error: Error) =>
  /loading.*(chunk|module|script)|dynamically imported|failed to fetch|importing a module|ChunkLoadError|AsyncRequire/i.test(
    `${error.name} ${error.message}`,
  );

/** What stands in the place of a view that broke: what happened, and what to do. */
export function BrokenView({ error, retry }: { error: Error; retry: () => unknown }) {
  const missing = isMissingPiece(error);
  return (
    <View style={{ flex: 1, padding: SPACE.l, gap: SPACE.m, maxWidth: 560 }} testID="crashed" role="alert">
      <Words size="title" bold heading={1}>
        {missing ? 'A piece of the app is missing' : 'This view broke'}
      </Words>
      <Words>
        {missing
          ? 'The shop’s server has a newer version, or the signal went while the view was being fetched. Load the app anew: what you typed and what waits to be sent is kept on this device.'
          : 'The other rooms still work, and what waits to be sent is kept on this device. Load the app anew; if it breaks again, tell whoever runs the server what you did.'}
      </Words>
      {missing ? null : (
        <Words size="small" tone="steel">
          {error.message.slice(0, 200)}
        </Words>
      )}
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Load anew" kind="main" onPress={() => window.location.reload()} testID="load-anew" />
        <ActionButton label="Look again" onPress={() => void retry()} testID="look-again" />
      </View>
    </View>
  );
}

/** Catches what no single view caught, so that the rooms round it stay usable. */
export class CrashGuard extends Component<Props, { error: Error | null; view: string }> {
  override state: { error: Error | null; view: string } = { error: null, view: this.props.view };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  static getDerivedStateFromProps(props: Props, state: { error: Error | null; view: string }) {
    return props.view === state.view ? null : { error: null, view: props.view };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return <BrokenView error={error} retry={() => this.setState({ error: null })} />;
  }
}
