import { forgetKept as forgetViews } from '../ui/useKept';
import type { Operation } from '@even-bed/contract';
import { combineSlices, configureStore, type Reducer, type UnknownAction } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { api } from '../api/api';
import { connectionSlice } from '../api/connectionSlice';
import { deviceStore } from '../offline/deviceStore';
import { createSender } from '../offline/sender';
import { isOf, waitingFor, type Said, type Waiting } from '../offline/waiting';
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
import { readAs } from '../ui/manner';
import { deviceRemembered, peopleSlice, type PeopleState } from './peopleSlice';

const DEVICE = 'device';
const PEOPLE = 'people';

/** The slices of areas; each area adds its own here by type, and by `addArea` before the first view. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface AreaSlices {}

const reducer = combineSlices(api, peopleSlice, waitingSlice, connectionSlice).withLazyLoadedSlices<AreaSlices>();

export const store = configureStore({
  reducer,
  middleware: (getDefault) => getDefault({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState> & AreaSlices;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
/** The state as it stands, those of the areas with it. */
export const stateNow = () => store.getState() as RootState;

/** Records of an area that this device keeps: written when they change, taken away when they go, shared by its tabs. */
export interface KeptRecords<T> {
  kind: string;
  of: (state: RootState) => Record<string, T>;
  /** What the device kept; `waits` tells whether something of a record waits to be sent. */
  loaded: (records: T[], waits: (id: string) => boolean) => UnknownAction;
  /** Another tab changed one, or took it away. */
  elsewhere: (id: string, record: T | null) => UnknownAction;
}

/** What an area brings to the state of this device. */
export interface Area<T> {
  slice: { reducerPath: keyof AreaSlices; reducer: Reducer };
  kept: KeptRecords<T>;
  /** What the records owe the server that does not wait yet. Asked after each change of them. */
  owes?: (now: Record<string, T>, before: Record<string, T> | null) => Waiting[];
  /** The server has it: what the device knows counts it as done before it is let go of. */
  onSent?: (one: Waiting) => void;
  /** A person lets go of it. */
  onLetGo?: (one: Waiting) => void;
  /** Of which records nothing may go alone: they are nothing without one of their parts. */
  isWhole?: (recordId: string) => boolean;
}

const areas: Area<unknown>[] = [];

/** Adds an area to the state, before anything is drawn. */
export function addArea<T>(area: Area<T>): void {
  areas.push(area as Area<unknown>);
  reducer.inject(area.slice as Parameters<typeof reducer.inject>[0]);
  store.dispatch({ type: `${area.slice.reducerPath}/added` });
}

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
function isMine(one: Waiting): boolean {
  const { person, lockedHere } = store.getState().people;
  return !lockedHere && isOf(one, person?.id ?? null);
}

const sender = createSender({
  list,
  mine: isMine,
  onSent: async (one) => {
    for (const { onSent } of areas) onSent?.(one);
    await letGo(one.key);
    store.dispatch(api.util.invalidateTags(one.touches));
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
  if (one && isMine(one)) void keep({ ...one, tries: 0, parked: null }).then(sendPending);
}

/** Sends a parked operation with what its person has put right. */
export function sendChanged(one: Waiting): void {
  if (isMine(one)) void keep(one).then(sendPending);
}

/** Whether what waits of a record is one thing, of which no part is changed or dropped alone. */
export const isOneThing = ({ params }: Waiting) => areas.some(({ isWhole }) => isWhole?.(params['id'] ?? ''));

/**
 * Lets go of what waits of a record: of one operation and what came after it, or of everything. What another person has
 * left here is theirs, and then nothing is let go of.
 */
export function dropRecord(of: string, from?: string): void {
  const all = list().filter((one) => one.of === of);
  if (!all.every(isMine)) return;
  const whole = from === undefined || (all[0] !== undefined && isOneThing(all[0]));
  const at = whole ? 0 : all.findIndex(({ key }) => key === from);
  for (const one of all.slice(Math.max(at, 0))) {
    for (const { onLetGo } of areas) onLetGo?.(one);
    void letGo(one.key);
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

/** Keeps an area's records as they change, and what they come to owe the server. */
function following<T>({ kept: { kind, of }, owes }: Area<T>): () => void {
  let known = of(stateNow());
  const owe = (before: Record<string, T> | null) => {
    const waits = new Set(list().map(({ key }) => key));
    for (const part of owes?.(known, before) ?? []) if (!waits.has(part.key)) void keep(part).then(sendPending);
  };
  owe(null);
  return () => {
    const now = of(stateNow());
    if (now === known) return;
    const before = known;
    known = now;
    for (const [id, value] of Object.entries(now)) if (before[id] !== value) void deviceStore.set(kind, id, value);
    for (const id of Object.keys(before)) if (!now[id]) void deviceStore.remove(kind, id);
    owe(before);
  };
}

/** Loads what the device kept of an area; what it needs no longer leaves the device. */
async function openArea<T>({ kept: { kind, of, loaded } }: Area<T>, records: Map<string, T>): Promise<void> {
  const waits = new Set(list().map(({ params }) => params['id']));
  store.dispatch(loaded([...records.values()], (id) => waits.has(id)));
  const now = of(stateNow());
  for (const id of records.keys()) if (!now[id]) void deviceStore.remove(kind, id);
}

/** Takes what was kept of the server's answers from the device: the next person may see other things. */
function forgetKept(): void {
  forgetViews();
  if (typeof caches === 'undefined') return;
  // As the service worker names it.
  void caches.delete('records').catch(() => false);
}

/** Takes over what other tabs of this device change. @param hear decides when */
function listenToTabs(hear: (act: () => void) => void): void {
  for (const { kept: records } of areas)
    deviceStore.watch(records.kind, (id, record) => hear(() => store.dispatch(records.elsewhere(id, record))));
  deviceStore.watch<PeopleState>(DEVICE, (id, state) => {
    if (id === PEOPLE && state) hear(() => store.dispatch(deviceRemembered(state)));
  });
  kept.watch({
    onPut: (waiting) =>
      hear(() => {
        store.dispatch(waitingPut(waiting));
        sendPending();
      }),
    onGone: (key) => hear(() => store.dispatch(waitingGone(key))),
  });
}

/** Loads what the device kept, then keeps every change and sends it. */
export async function openDevice(): Promise<void> {
  // What another tab does while this one reads what there is comes after it.
  const early: (() => void)[] = [];
  let heard = (act: () => void): void => void early.push(act);
  listenToTabs((act) => heard(act));
  const [people, records] = await Promise.all([
    deviceStore.get<PeopleState>(DEVICE, PEOPLE),
    Promise.all(areas.map((area) => deviceStore.load(area.kept.kind))),
    readKept(),
  ]);
  if (people) store.dispatch(deviceRemembered(people));
  let knownPeople = store.getState().people;
  readAs(knownPeople.manner);
  await Promise.all(areas.map((area, i) => openArea(area, records[i]!)));
  deviceStore.whenKept((typed) => {
    if (store.getState().waiting.typedKept !== typed) store.dispatch(typedKeptOrNot(typed));
  });
  const followers = areas.map((area) => following(area));
  const follow = () => {
    if (store.getState().people !== knownPeople) {
      const { person: before } = knownPeople;
      knownPeople = store.getState().people;
      readAs(knownPeople.manner);
      void deviceStore.set(DEVICE, PEOPLE, knownPeople);
      // Another person sees with other rights: nothing that was fetched before counts any more.
      if (before && before.id !== knownPeople.person?.id) {
        store.dispatch(api.util.resetApiState());
        forgetKept();
      }
      sendPending();
    }
    for (const keepUp of followers) keepUp();
  };
  store.subscribe(follow);
  follow();
  heard = (act) => act();
  for (const act of early) act();
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
