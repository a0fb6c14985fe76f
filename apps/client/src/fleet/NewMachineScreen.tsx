import { useRouter } from 'expo-router';
import { lazy, Suspense, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { useAreasQuery } from './fleetApi';
import { EMPTY_FORM } from './machineForm';
import { useSaveFacts } from './useSaveFacts';
import { Loading } from '../ui/Loading';
import { Page } from '../ui/Page';

// The form brings its own kit along: only who opens it loads it.
const MachineFormView = lazy(() => import('./MachineFormView'));

const CRUMBS = [{ label: 'Floor', href: '/floor' as const }];

/** Adds a machine. */
export function NewMachineScreen() {
  const router = useRouter();
  const [id] = useState(() => uuid());
  const { data: areas, isLoading } = useAreasQuery();
  const { save, busy, failure } = useSaveFacts(id, 0);
  if (isLoading) {
    return (
      <Page title="Add a machine" crumbs={CRUMBS}>
        <Loading what="the areas" />
      </Page>
    );
  }
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
        onSubmit={async (facts, newArea) => {
          const done = await save(facts, newArea);
          if (done) router.replace(`/floor/${id}`);
          return done;
        }}
      />
    </Suspense>
  );
}
