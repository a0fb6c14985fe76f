import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { api } from '../api/api';
import { createOutbox } from '../api/outbox';
import {
  draftChangedElsewhere,
  draftsLoaded,
  levelSlice,
  serverAnswered,
  writeRefused,
  writeSent,
  type CheckDraft,
} from '../level/levelSlice';
import { pendingWrites, type DraftWrite } from '../level/pendingWrites';
import { jobEventRefused, jobsMerged, jobsRemembered, jobsSlice, type JobsState } from '../care/jobsSlice';
import { deviceRemembered, peopleSlice, type PeopleState } from '../people/peopleSlice';
import { readAs } from '../ui/manner';
import { deviceStore } from './deviceStore';
import {
  queuedOwned,
  queuedRefused,
  queuedSent,
  queueMerged,
  queueRemembered,
  queueSlice,
  type QueuedWrite,
} from './queueSlice';

const DRAFTS = 'level-check';
const DEVICE = 'device';
const PEOPLE = 'people';
const QUEUE = 'queue';
const JOBS = 'jobs';

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    level: levelSlice.reducer,
    people: peopleSlice.reducer,
    queue: queueSlice.reducer,
    jobs: jobsSlice.reducer,
  },
  middleware: (getDefault) => getDefault({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

/** Keys that this tab has sent: another tab's older list must not bring them back. */
const sentHere = new Set<string>();

type Waiting = DraftWrite | QueuedWrite;

/** Everything that waits on this device: check after check, then what was queued. */
export const selectPending = ({ level, queue }: RootState): Waiting[] => [
  ...Object.values(level.drafts).flatMap(pendingWrites),
  ...queue.writes.filter(({ refusal }) => refusal === null),
];

/** What may be sent now: the work of the person who is signed in, never in somebody else's name. */
const selectSendable = ({ level, people, queue }: RootState): Waiting[] => {
  const me = people.person?.id;
  if (me === undefined || people.lockedHere) return [];
  const mine = ({ personId }: { personId: string | null }) => personId === null || personId === me;
  return [
    ...Object.values(level.drafts).filter(mine).flatMap(pendingWrites),
    ...queue.writes.filter((write) => mine(write) && write.refusal === null),
  ];
};

const outbox = createOutbox({
  next: () => selectSendable(store.getState())[0] ?? null,
  done: (write, result) => {
    if (!('draftId' in write)) {
      const { key, path } = write;
      const [, jobId, id] = /^\/jobs\/([^/]+)\/events\/([^/]+)$/.exec(path) ?? [];
      if (result.kind === 'refused' && jobId && id) store.dispatch(jobEventRefused({ jobId, id }));
      if (result.kind === 'sent') sentHere.add(key);
      store.dispatch(result.kind === 'refused' ? queuedRefused({ key, message: result.message }) : queuedSent(key));
      if (result.kind === 'sent')
        store.dispatch(
          api.util.invalidateTags(['Print', 'Surface', 'Offset', 'Inspection', 'Plan', 'Job', 'Stack', 'Book']),
        );
      return;
    }
    const { draftId: id, part } = write as DraftWrite;
    if (result.kind === 'refused') {
      store.dispatch(writeRefused({ id, message: result.message }));
      return;
    }
    store.dispatch(writeSent({ id, part }));
    store.dispatch(api.util.invalidateTags(['Machine', 'Check', 'Book']));
  },
  reachable: (answers) => {
    if (store.getState().level.serverAnswers !== answers) store.dispatch(serverAnswered(answers));
  },
});

/** Sends what waits, now. */
export const sendPending = () => outbox.nudge();

/** Resolves when nothing of a check waits any more (true), or when it can't be sent now (false). */
export async function allSent(id: string, withinMs: number): Promise<boolean> {
  const waits = () => selectPending(store.getState()).some((write) => 'draftId' in write && write.draftId === id);
  sendPending();
  for (const start = Date.now(); waits();) {
    if (Date.now() - start > withinMs) return false;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return true;
}

/** Resolves when a queued write has reached the server (true), or when it can't be sent now (false). */
export async function allQueuedSent(key: string, withinMs: number): Promise<boolean> {
  sendPending();
  for (const start = Date.now(); ;) {
    const write = store.getState().queue.writes.find((known) => known.key === key);
    if (!write) return true;
    if (write.refusal !== null || Date.now() - start > withinMs) return false;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** Loads what the device kept, then keeps every change and sends it. */
export async function openDevice(): Promise<void> {
  const kept = await deviceStore.load<CheckDraft>(DRAFTS);
  store.dispatch(draftsLoaded([...kept.values()]));
  const people = await deviceStore.get<PeopleState>(DEVICE, PEOPLE);
  if (people) store.dispatch(deviceRemembered(people));
  let known = store.getState().level.drafts;
  let knownPeople = store.getState().people;
  readAs(knownPeople.manner);
  const queue = await deviceStore.get<ReturnType<typeof queueSlice.reducer>>(DEVICE, QUEUE);
  if (queue) store.dispatch(queueRemembered(queue));
  let knownQueue = store.getState().queue;
  const jobs = await deviceStore.get<JobsState>(DEVICE, JOBS);
  if (jobs) store.dispatch(jobsRemembered(jobs));
  let knownJobs = store.getState().jobs;
  store.subscribe(() => {
    if (store.getState().people !== knownPeople) {
      const { person: before } = knownPeople;
      knownPeople = store.getState().people;
      readAs(knownPeople.manner);
      void deviceStore.set(DEVICE, PEOPLE, knownPeople);
      // Another person sees with other rights: nothing that was fetched before counts any more.
      if (before?.id !== knownPeople.person?.id) store.dispatch(api.util.resetApiState());
    }
    if (store.getState().queue !== knownQueue) {
      knownQueue = store.getState().queue;
      const me = store.getState().people.person?.id;
      if (me !== undefined && knownQueue.writes.some(({ personId }) => personId === null)) {
        store.dispatch(queuedOwned(me));
        return;
      }
      void deviceStore.set(DEVICE, QUEUE, knownQueue);
      if (selectSendable(store.getState()).length > 0) sendPending();
    }
    if (store.getState().jobs !== knownJobs) {
      knownJobs = store.getState().jobs;
      void deviceStore.set(DEVICE, JOBS, knownJobs);
    }
    const { drafts } = store.getState().level;
    if (drafts === known) return;
    for (const [id, draft] of Object.entries(drafts)) if (known[id] !== draft) void deviceStore.set(DRAFTS, id, draft);
    for (const id of Object.keys(known)) if (!drafts[id]) void deviceStore.remove(DRAFTS, id);
    known = drafts;
    if (selectSendable(store.getState()).length > 0) sendPending();
  });
  deviceStore.watch<CheckDraft>(DRAFTS, (id, draft) => store.dispatch(draftChangedElsewhere({ id, draft })));
  deviceStore.watch<PeopleState>(DEVICE, (id, state) => {
    if (id === PEOPLE && state) store.dispatch(deviceRemembered(state));
  });
  deviceStore.watch<ReturnType<typeof queueSlice.reducer>>(DEVICE, (id, state) => {
    if (id === QUEUE && state)
      store.dispatch(queueMerged({ writes: state.writes.filter(({ key }) => !sentHere.has(key)) }));
  });
  deviceStore.watch<JobsState>(DEVICE, (id, state) => {
    if (id === JOBS && state) store.dispatch(jobsMerged(state));
  });
  // Looked at again, or with a signal again, views are fetched anew.
  setupListeners(store.dispatch);
  void navigator.storage?.persist?.().catch(() => false);
  if (typeof window !== 'undefined' && window.addEventListener) window.addEventListener('online', sendPending);
  sendPending();
}
