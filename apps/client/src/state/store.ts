import type { Job, JobEventWrite, Operation } from '@even-bed/contract';
import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { api } from '../api/api';
import { connectionSlice } from '../api/connectionSlice';
import { jobEventSent, jobForgotten, jobsRemembered, jobsSlice } from '../care/jobsSlice';
import {
  draftChangedElsewhere,
  draftRemoved,
  draftsLoaded,
  levelSlice,
  partSent,
  type CheckDraft,
} from '../level/levelSlice';
import { levelWaits } from '../level/levelWaits';
import { createSender } from '../offline/sender';
import { waitingFor, type Said, type Waiting } from '../offline/waiting';
import {
  keptOrNot,
  parkedOf,
  serverAnswered,
  typedKeptOrNot,
  waitingGone,
  waitingPut,
  waitingRead,
  waitingSlice,
} from '../offline/waitingSlice';
import { WaitingStore } from '../offline/waitingStore';
import { deviceRemembered, peopleSlice, type PeopleState } from '../people/peopleSlice';
import { readAs } from '../ui/manner';
import { deviceStore } from './deviceStore';

const DRAFTS = 'level-check';
const DEVICE = 'device';
const PEOPLE = 'people';
const JOBS = 'job';

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    level: levelSlice.reducer,
    people: peopleSlice.reducer,
    waiting: waitingSlice.reducer,
    jobs: jobsSlice.reducer,
    connection: connectionSlice.reducer,
  },
  middleware: (getDefault) => getDefault({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

const kept = new WaitingStore();
const list = () => store.getState().waiting.list;

/** Keeps an operation on the device; one that can't be kept stays on this page, which says so. */
async function keep(waiting: Waiting): Promise<void> {
  store.dispatch(waitingPut(waiting));
  store.dispatch(keptOrNot({ key: waiting.key, keeping: await kept.put(waiting) }));
}

async function letGo(key: string): Promise<void> {
  store.dispatch(waitingGone(key));
  await kept.remove(key);
  // There may be room again for what was not kept before.
  const { unkept } = store.getState().waiting;
  const [next] = list().filter((one) => unkept.includes(one.key));
  if (next) await keep(next);
}

/** Only in the name of the person who did it, and not on a locked device. */
function isMine({ personId }: Waiting): boolean {
  const { person, lockedHere } = store.getState().people;
  return person !== null && !lockedHere && (personId === null || personId === person.id);
}

const sender = createSender({
  list,
  mine: isMine,
  onSent: async (one) => {
    const { operation, params, body, key, touches } = one;
    // What the device knows of the record counts it as done before it is let go of: nothing on screen goes back.
    if (operation === 'takeJobOn')
      store.dispatch(
        jobEventSent({ jobId: params['id']!, id: params['eventId']!, event: (body as JobEventWrite).event }),
      );
    if (store.getState().level.drafts[params['id']!]) store.dispatch(partSent({ id: params['id']!, key }));
    await letGo(key);
    store.dispatch(api.util.invalidateTags(touches));
  },
  onPark: (one, parked) => keep({ ...one, parked }),
  onTry: (one, tries) => keep({ ...one, tries }),
  onAnswers: (answers) => {
    if (store.getState().waiting.answers !== answers) store.dispatch(serverAnswered(answers));
  },
  // One tab of this device sends; the others wait for their turn.
  inTurn: (run) =>
    typeof navigator !== 'undefined' && navigator.locks
      ? navigator.locks.request('even-bed-sending', async () => {
          await readKept();
          await run();
        })
      : run(),
});

/** Sends what waits, now. */
export const sendPending = () => sender.nudge();

function begin(waiting: Waiting): void {
  const personId = store.getState().people.person?.id ?? null;
  void keep({ ...waiting, personId }).then(sendPending);
}

/** Does an operation as soon as the server answers; until then it is kept on this device, and shown as done. */
export function later<Op extends Operation & { waits: { of: string } }>(operation: Op, said: Said<Op>): void {
  begin(waitingFor(operation, said));
}

/** Tries a parked operation anew. */
export function sendAgain(key: string): void {
  const one = list().find((known) => known.key === key);
  if (one) void keep({ ...one, tries: 0, parked: null }).then(sendPending);
}

/** Lets go of what waits of a record: of one operation and what came after it, or of everything. */
export function dropRecord(of: string, from?: string): void {
  const all = list().filter((one) => one.of === of);
  const [{ params } = { params: {} as Record<string, string> }] = all;
  const check = store.getState().level.drafts[params['id'] ?? ''];
  // A check without one of its parts is none: it goes as a whole.
  const at = from === undefined || check ? 0 : all.findIndex(({ key }) => key === from);
  if (check) store.dispatch(draftRemoved({ id: check.id }));
  for (const { key, operation } of all.slice(Math.max(at, 0))) {
    if (operation === 'startJob') store.dispatch(jobForgotten(params['id']!));
    void letGo(key);
  }
}

/** Why a record goes no further, or null. */
export const useParked = (of: string) => useAppSelector((state) => parkedOf(state.waiting.list, of));

const POLL_MS = 50;

/** Resolves when nothing of a record waits any more (true), or when it can't be sent now (false). */
export async function allSent(of: string, withinMs: number): Promise<boolean> {
  sendPending();
  for (const start = Date.now(); list().some((one) => one.of === of);) {
    if (parkedOf(list(), of) || Date.now() - start > withinMs) return false;
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
  }
  return true;
}

/** What other tabs have done or let go of meanwhile. */
async function readKept(): Promise<void> {
  try {
    store.dispatch(waitingRead(await kept.all()));
  } catch {
    // This device keeps nothing: what is done here stays on this page, which says so when something is.
  }
}

/** Records of the device that follow a part of the state: kept when they change, taken away when they go. */
function keepChanges<T>(kind: string, of: (state: RootState) => Record<string, T>): () => void {
  let known = of(store.getState());
  return () => {
    const now = of(store.getState());
    if (now === known) return;
    const before = known;
    known = now;
    for (const [id, value] of Object.entries(now)) if (before[id] !== value) void deviceStore.set(kind, id, value);
    for (const id of Object.keys(before)) if (!now[id]) void deviceStore.remove(kind, id);
  };
}

/** What a check under way owes the server is kept as it comes about. */
function followDrafts(): () => void {
  let known: RootState['level']['drafts'] | null = null;
  return () => {
    const { drafts } = store.getState().level;
    if (drafts === known) return;
    const before = known;
    known = drafts;
    for (const [id, draft] of Object.entries(drafts)) {
      if (before?.[id] === draft) continue;
      const waits = new Set(list().map(({ key }) => key));
      for (const part of levelWaits(draft))
        if (!waits.has(part.key)) void keep({ ...part, personId: draft.personId }).then(sendPending);
    }
  };
}

/** Loads what the device kept, then keeps every change and sends it. */
export async function openDevice(): Promise<void> {
  const [people, drafts, jobs] = await Promise.all([
    deviceStore.get<PeopleState>(DEVICE, PEOPLE),
    deviceStore.load<CheckDraft>(DRAFTS),
    deviceStore.load<Job>(JOBS),
    readKept(),
  ]);
  if (people) store.dispatch(deviceRemembered(people));
  let knownPeople = store.getState().people;
  readAs(knownPeople.manner);
  store.dispatch(draftsLoaded([...drafts.values()]));
  const waits = new Set(list().map(({ params }) => params['id']));
  for (const { id, ended } of jobs.values()) if (ended !== null && !waits.has(id)) void deviceStore.remove(JOBS, id);
  store.dispatch(jobsRemembered([...jobs.values()].filter(({ id, ended }) => ended === null || waits.has(id))));
  deviceStore.whenKept((typed) => {
    if (store.getState().waiting.typedKept !== typed) store.dispatch(typedKeptOrNot(typed));
  });
  const followers = [
    keepChanges(DRAFTS, ({ level }) => level.drafts),
    keepChanges(JOBS, (state) => state.jobs.jobs),
    followDrafts(),
  ];
  const follow = () => {
    if (store.getState().people !== knownPeople) {
      const { person: before } = knownPeople;
      knownPeople = store.getState().people;
      readAs(knownPeople.manner);
      void deviceStore.set(DEVICE, PEOPLE, knownPeople);
      // Another person sees with other rights: nothing that was fetched before counts any more.
      if (before?.id !== knownPeople.person?.id) store.dispatch(api.util.resetApiState());
      sendPending();
    }
    for (const keepUp of followers) keepUp();
  };
  store.subscribe(follow);
  follow();
  deviceStore.watch<CheckDraft>(DRAFTS, (id, draft) => store.dispatch(draftChangedElsewhere({ id, draft })));
  deviceStore.watch<Job>(JOBS, (id, job) => store.dispatch(job ? jobsRemembered([job]) : jobForgotten(id)));
  deviceStore.watch<PeopleState>(DEVICE, (id, state) => {
    if (id === PEOPLE && state) store.dispatch(deviceRemembered(state));
  });
  kept.watch({
    onPut: (waiting) => {
      store.dispatch(waitingPut(waiting));
      sendPending();
    },
    onGone: (key) => store.dispatch(waitingGone(key)),
  });
  // Looked at again, or with a signal again, views are fetched anew.
  setupListeners(store.dispatch);
  void navigator.storage?.persist?.().catch(() => false);
  if (typeof window !== 'undefined' && window.addEventListener) {
    window.addEventListener('online', sendPending);
    // What only this page has is lost with it: the browser asks.
    window.addEventListener('beforeunload', (event) => {
      if (store.getState().waiting.unkept.length > 0) event.preventDefault();
    });
  }
  sendPending();
}
