import { ActionButton } from '../ui/ActionButton';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { RackRow } from './RackRow';
import { useSurfacesQuery } from './surfacesApi';

const SHOWN = 50;

/** What of the rack waits: on hold, the next to be free first, and for work. */
export function RackWaits() {
  const now = useNow();
  const router = useRouter();
  const { data: onHold = [], isLoading: holdsCome } = useSurfacesQuery({ state: 'on-hold', limit: SHOWN });
  const { data: waiting = [], isLoading: workComes } = useSurfacesQuery({ state: 'awaiting-work', limit: SHOWN });
  const held = onHold
    .filter(({ state }) => state.hold && state.hold.until > now)
    .sort((p, q) => p.state.hold!.until - q.state.hold!.until);
  const rows = (surfaces: typeof held) =>
    surfaces.map((surface) => (
      <RackRow key={surface.id} surface={surface} now={now} selected={false} chosen={null} onChoose={() => undefined} />
    ));
  if (holdsCome || workComes)
    return (
      <Page title="What waits">
        <Loading what="what waits" />
      </Page>
    );
  return (
    <Page title="What waits" testID="rack-waits">
      <Section title="COMES OFF HOLD NEXT">
        {held.length === 0 ? <Words tone="steel">Nothing cures, dries or soaks.</Words> : rows(held)}
      </Section>
      <Section title="WAITS FOR WORK">
        {waiting.length === 0 ? <Words tone="steel">Nothing waits to be cleaned or renewed.</Words> : rows(waiting)}
      </Section>
      <Words tone="steel">Choose a surface at the left: its page stands here.</Words>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Kinds" icon="list" onPress={() => router.push('/kinds')} />
        <ActionButton label="Labels" icon="label" onPress={() => router.push('/labels')} />
      </View>
    </Page>
  );
}
