import { View } from 'react-native';
import { isOf } from '../offline/waiting';
import { ParkedHere } from '../state/ParkedHere';
import { dropRecord, sendAgain, useAppSelector, useParked } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Words } from '../ui/Words';
import type { CheckDraft } from './levelSlice';
import { checkRecord } from './levelWaits';

/** A check that has ended here and is on its way to the server. */
export function CheckSending({ draft }: { draft: CheckDraft }) {
  const crumbs = [{ label: draft.machineName, href: `/floor/${draft.machineId}` as const }];
  const parked = useParked(checkRecord(draft.id));
  return (
    <Page
      title={draft.end?.outcome === 'finished' ? 'Check finished' : 'Check dropped'}
      crumbs={crumbs}
      testID="check-sending"
    >
      <Refusal draft={draft} />
      {parked ? null : (
        <Words tone="steel">It is kept on this device and goes to the server as soon as that answers.</Words>
      )}
    </Page>
  );
}

/** What to do when the server will not take a part of a check. */
export function Refusal({ draft }: { draft: CheckDraft }) {
  const parked = useParked(checkRecord(draft.id));
  const personId = useAppSelector(({ people }) => people.person?.id ?? null);
  if (!parked) return null;
  if (!isOf(parked, personId)) return <ParkedHere of={parked.of} />;
  return (
    <Notice kind="stop" title="The server refused a part of this check" testID="refusal">
      <Words>{parked.parked.reason}</Words>
      <Words>Your readings are still here. Try again, or let them go.</Words>
      <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap' }}>
        <ActionButton label="Send again" onPress={() => sendAgain(parked.key)} />
        <ActionButton label="Let this copy go" kind="quiet" onPress={() => dropRecord(parked.of)} />
      </View>
    </Notice>
  );
}
