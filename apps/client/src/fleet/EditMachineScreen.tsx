import type { MachineOverview } from '@even-bed/contract';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { errorOf } from '../api/errorOf';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { useAreasQuery, useMachineQuery } from './fleetApi';
import { formOf } from './machineForm';
import { MachineFormView } from './MachineFormView';
import { useSaveFacts } from './useSaveFacts';

/** Changes the facts of a machine, from the version that was opened. */
export function EditMachineScreen() {
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const machine = useMachineQuery(machineId, { refetchOnMountOrArgChange: true });
  const areas = useAreasQuery();
  const failure = errorOf(machine.error ?? areas.error);
  if (machine.data && areas.data && !machine.isFetching) return <Loaded machine={machine.data} areas={areas.data} />;
  return (
    <Page title="Edit facts" crumbs={[{ label: 'Floor', href: '/floor' }]}>
      {failure ? <Failed message={failure.message} onRetry={machine.refetch} /> : <Loading what="the machine" />}
    </Page>
  );
}

function Loaded({ machine, areas }: { machine: MachineOverview; areas: { id: string; name: string }[] }) {
  const router = useRouter();
  // The machine as it was opened: a refresh behind the form must not move the version it began with.
  const [opened] = useState(machine);
  const { save, busy, failure } = useSaveFacts(opened.id, opened.version);
  const current = failure?.code === 'stale' ? (failure.current as MachineOverview | null) : null;
  const told = current
    ? { ...failure!, message: `${failure!.message} Theirs: ${changedWords(opened, current)}.` }
    : failure;
  return (
    <MachineFormView
      title={`Edit ${opened.name}`}
      crumbs={[{ label: opened.name, href: `/floor/${opened.id}` }]}
      initial={formOf(opened)}
      areas={areas}
      draftName={`${opened.id}-${opened.version}`}
      busy={busy}
      failure={told}
      onSubmit={async (facts, newArea) => {
        const done = await save(facts, newArea);
        if (done) router.replace(`/floor/${opened.id}`);
        return done;
      }}
    />
  );
}

/** What somebody else changed since the form was opened: names and new values. */
function changedWords(opened: MachineOverview, current: MachineOverview): string {
  const keys = (Object.keys(formOf(opened)) as (keyof ReturnType<typeof formOf>)[]).filter((key) => key !== 'newArea');
  const [was, is] = [formOf(opened), formOf(current)];
  const changed = keys.filter((key) => JSON.stringify(was[key]) !== JSON.stringify(is[key]));
  return (
    changed.map((key) => `${key} ${typeof is[key] === 'object' ? 'changed' : `“${String(is[key])}”`}`).join(', ') ||
    'saved without a change'
  );
}
