import { useEffect, useRef } from 'react';
import { timerOf } from '@even-bed/core/care/runProcedure';
import { useAppSelector } from '../state/store';
import { useJobsQuery } from './jobApi';
import { localEvents, setupOf, stateOf } from './jobsSlice';
import { notifyOf, ringOut } from './ringOut';

/** Timers move between devices: the list is fetched anew this often, ms. */
const POLL_MS = 30_000;
/** The longest that a browser's own timer holds, ms. */
const LONGEST = 2 ** 31 - 1;

/** Sounds, and notifies where it may, when the time of a step of any job under way is up. */
export function useJobAlarms(): void {
  const signedIn = useAppSelector(({ people }) => people.person !== null);
  const { data: listed = [] } = useJobsQuery({ open: true }, { pollingInterval: POLL_MS, skip: !signedIn });
  const known = useAppSelector(({ jobs }) => jobs.jobs);
  const waiting = useAppSelector((state) => state.waiting.list);
  const rung = useRef(new Set<string>());
  const waits = new Map<string, { at: number; words: string }>();
  for (const { id, waitUntil, machineName, title, stepTitle, ended } of listed)
    if (waitUntil !== null && ended === null)
      waits.set(id, { at: waitUntil, words: `${machineName}: ${stepTitle ?? title}` });
  // What was done here counts before the server's list does.
  for (const [id, one] of Object.entries(known)) {
    const state = stateOf(one, localEvents(one, waiting));
    const until = timerOf(setupOf(one), state)?.until ?? null;
    const title = one.procedure.steps.find((step) => step.id === state.at)?.title;
    if (until === null) waits.delete(id);
    else waits.set(id, { at: until, words: `${one.machineName}: ${title}` });
  }
  const key = JSON.stringify([...waits].sort());
  useEffect(() => {
    const now = Date.now();
    const timers = (JSON.parse(key) as [string, { at: number; words: string }][]).flatMap(([id, { at, words }]) => {
      const once = `${id} ${at}`;
      if (at <= now || at - now > LONGEST || rung.current.has(once)) return [];
      return [
        setTimeout(() => {
          rung.current.add(once);
          ringOut();
          void notifyOf('The time is up', words);
        }, at - now),
      ];
    });
    return () => timers.forEach(clearTimeout);
  }, [key]);
}
