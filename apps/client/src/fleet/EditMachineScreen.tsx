import type { MachineOverview } from '@even-bed/contract';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { Suspense, useState } from 'react';
import { errorOf } from '../api/errorOf';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { useAreasQuery, useMachineQuery } from './fleetApi';
import MachineFormView from './MachineFormView';
import { formOf } from './machineForm';
import { useSaveFacts } from './useSaveFacts';

/** Changes the facts of a machine, from the version that was opened. */
export function EditMachineScreen() {
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const machine = useMachineQuery({ id: machineId }, { refetchOnMountOrArgChange: true });
  const areas = useAreasQuery();
  // The machine as it was opened: a refresh behind the form must neither move its version nor take the form away.
  const [opened, setOpened] = useState<MachineOverview | null>(null);
  if (!opened && machine.data && !machine.isFetching) setOpened(machine.data);
  const failure = errorOf(machine.error ?? areas.error);
  if (opened && areas.data) return <Opened key={opened.id} opened={opened} areas={areas.data} />;
  return (
    <Page title="Edit facts" crumbs={[{ label: 'Floor', href: '/floor' }]}>
      {failure ? <Failed message={failure.message} onRetry={machine.refetch} /> : <Loading what="the machine" />}
    </Page>
  );
}

function Opened({ opened, areas }: { opened: MachineOverview; areas: { id: string; name: string }[] }) {
  const router = useRouter();
  const [theirs, setTheirs] = useState<MachineOverview | null>(null);
  const { save, busy, failure } = useSaveFacts(opened.id, theirs?.version ?? opened.version);
  const stale = failure?.code === 'stale' ? (failure.current as MachineOverview) : null;
  // Once both versions have been shown, saving again means it.
  if (stale && stale.version !== theirs?.version) setTheirs(stale);
  const told = stale
    ? {
        ...failure!,
        message: `Somebody else changed ${opened.name} meanwhile: ${changedWords(opened, stale)}. Save again to put yours over it, or go back to keep theirs.`,
      }
    : failure;
  return (
    <Suspense fallback={<Loading what="the form" />}>
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
    </Suspense>
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
