import { Fragment, lazy, Suspense, useEffect, type ReactNode } from 'react';
import { errorOf } from '../api/errorOf';
import { sendPending, useAppDispatch, useAppSelector } from '../state/store';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { useSessionQuery } from './peopleApi';
import { sessionKnown } from '../state/peopleSlice';
import { SignInView } from './SignInView';
import { useAutoLock } from './useAutoLock';

/** Once in a shop's life: nobody else fetches it. */
const FirstStart = lazy(() => import('./greeting').then((room) => ({ default: room.FirstStart })));

/** Lets in whoever is signed in. Without a signal, the one who was signed in last on this device. */
export function Gate({ children }: { children: ReactNode }) {
  const dispatch = useAppDispatch();
  const { person, lockedHere, manner } = useAppSelector((state) => state.people);
  const { data, error, refetch } = useSessionQuery(undefined, { refetchOnFocus: true });
  useAutoLock();
  useEffect(() => {
    if (data) dispatch(sessionKnown(data));
  }, [data, dispatch]);
  useEffect(() => {
    if (person && !lockedHere) sendPending();
  }, [person, lockedHere]);

  if (data?.state === 'first-start')
    return (
      <Suspense fallback={<Page title="Even Bed">{null}</Page>}>
        <FirstStart />
      </Suspense>
    );
  // What is on screen is drawn anew when the shop reads otherwise.
  if (person && !lockedHere) return <Fragment key={JSON.stringify(manner)}>{children}</Fragment>;
  if (data || person) return <SignInView locked={lockedHere && person !== null} demo={data?.demo ?? null} />;
  const failure = errorOf(error);
  return (
    <Page title="Even Bed">
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the shop" />}
    </Page>
  );
}
