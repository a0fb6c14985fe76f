import { useEffect } from 'react';
import { jobApi } from '../care/jobApi';
import { fleetApi } from '../fleet/fleetApi';
import { levelApi } from '../level/levelApi';
import { useAppDispatch, useAppSelector } from '../state/store';
import { surfacesApi } from '../surfaces/surfacesApi';

/** The view that was opened comes first. */
const AFTER_MS = 4_000;

/**
 * Fetches what a round needs, so that this device has it where there is no signal: machines, surfaces with their tags and
 * places, jobs under way with their steps, checks under way. Once for each person on each page.
 */
export function useTakeAlong(): void {
  const dispatch = useAppDispatch();
  const personId = useAppSelector(({ people }) => people.person?.id ?? null);
  useEffect(() => {
    // Only where a service worker keeps what comes.
    if (personId === null || typeof navigator === 'undefined' || !navigator.serviceWorker?.controller) return;
    const once = { subscribe: false } as const;
    const fetchAll = async () => {
      const { endpoints: fleet } = fleetApi;
      const { endpoints: surfaces } = surfacesApi;
      const { endpoints: jobs } = jobApi;
      void dispatch(fleet.machines.initiate(undefined, once));
      void dispatch(fleet.areas.initiate(undefined, once));
      void dispatch(levelApi.endpoints.checks.initiate({ state: 'open' }, once));
      void dispatch(jobs.procedures.initiate(undefined, once));
      void dispatch(surfaces.kinds.initiate(undefined, once));
      void dispatch(surfaces.places.initiate(undefined, once));
      void dispatch(surfaces.surfaces.initiate(undefined, once));
      const { data: open = [] } = await dispatch(jobs.jobs.initiate({ open: true }, once));
      for (const { id } of open) await dispatch(jobs.job.initiate({ id }, once));
    };
    const timer = setTimeout(() => void fetchAll(), AFTER_MS);
    return () => clearTimeout(timer);
  }, [dispatch, personId]);
}
