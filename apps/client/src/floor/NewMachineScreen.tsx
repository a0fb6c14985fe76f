import type { MachineFacts } from '@even-bed/contract';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { Suspense, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { useAreasQuery, useLazyMachineQuery } from '../fleet/fleetApi';
import MachineFormView from '../fleet/MachineFormView';
import { EMPTY_FORM } from '../fleet/machineForm';
import { ShortMachineForm } from '../fleet/ShortMachineForm';
import { useNewCheck } from '../level/useBeginCheck';
import { useSaveFacts } from '../fleet/useSaveFacts';

const CRUMBS = [{ label: 'Floor', href: '/floor' as const }];

/** Adds a machine: in a few taps, or with all its facts at once. */
export function NewMachineScreen() {
  const router = useRouter();
  const { all } = useLocalSearchParams<{ all?: string }>();
  const [id] = useState(() => uuid());
  const { data: areas, isLoading } = useAreasQuery();
  const { save, busy, failure } = useSaveFacts(id, 0);
  const [getMachine] = useLazyMachineQuery();
  const newCheck = useNewCheck();
  const keep = async (facts: MachineFacts, newArea: string | null, andCheck = false) => {
    const done = await save(facts, newArea);
    if (!done) return false;
    // Asked while this view is here: of one that is gone, an answer is let go of when somebody changes a machine meanwhile.
    const machine = andCheck ? (await getMachine({ id })).data : undefined;
    router.replace(`/floor/${id}`);
    if (machine) router.push(newCheck(machine));
    return true;
  };
  if (isLoading) {
    return (
      <Page title="Add a machine" crumbs={CRUMBS}>
        <Loading what="the areas" />
      </Page>
    );
  }
  if (all === undefined)
    return (
      <ShortMachineForm
        crumbs={CRUMBS}
        areas={areas ?? []}
        busy={busy}
        failure={failure}
        onAll={() => router.setParams({ all: '1' })}
        onSubmit={keep}
      />
    );
  return (
    <Suspense fallback={<Loading what="the form" />}>
      <MachineFormView
        title="Add a machine"
        crumbs={CRUMBS}
        initial={EMPTY_FORM}
        areas={areas ?? []}
        draftName="new"
        busy={busy}
        failure={failure}
        onSubmit={keep}
      />
    </Suspense>
  );
}
