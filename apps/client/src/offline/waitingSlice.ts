import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Parked, Waiting } from './waiting';

/** kept: on this device · full: it has no room · gone: it keeps nothing. What isn't kept is on this page alone. */
export type Keeping = 'kept' | 'full' | 'gone';

export interface WaitingState {
  /** In the order in which it was done. */
  list: Waiting[];
  /** Keys of those that only this page has. */
  unkept: string[];
  keeping: Keeping;
  /** Whether what is typed is kept on the device too. */
  typedKept: boolean;
  /** Whether the server answered the last time. */
  answers: boolean;
}

const initialState: WaitingState = { list: [], unkept: [], keeping: 'kept', typedKept: true, answers: true };

const inOrder = (list: Waiting[]) => list.sort((p, q) => p.order - q.order || (p.key < q.key ? -1 : 1));

export const waitingSlice = createSlice({
  name: 'waiting',
  initialState,
  reducers: {
    /** What the device has kept; beside it stays what only this page has. */
    waitingRead(state, { payload }: PayloadAction<Waiting[]>) {
      const here = state.list.filter(({ key }) => state.unkept.includes(key));
      const known = new Set(payload.map(({ key }) => key));
      state.list = inOrder([...payload, ...here.filter(({ key }) => !known.has(key))]);
    },
    /** Something was done here, or changed in another tab. Done twice it waits once. */
    waitingPut(state, { payload }: PayloadAction<Waiting>) {
      const at = state.list.findIndex(({ key }) => key === payload.key);
      if (at >= 0) state.list[at] = payload;
      else state.list = inOrder([...state.list, payload]);
    },
    waitingGone(state, { payload: key }: PayloadAction<string>) {
      state.list = state.list.filter((one) => one.key !== key);
      state.unkept = state.unkept.filter((one) => one !== key);
    },
    keptOrNot(state, { payload: { key, keeping } }: PayloadAction<{ key: string; keeping: Keeping }>) {
      state.unkept = state.unkept.filter((one) => one !== key);
      if (keeping !== 'kept' && state.list.some((one) => one.key === key)) state.unkept.push(key);
      state.keeping = keeping;
    },
    typedKeptOrNot(state, { payload }: PayloadAction<boolean>) {
      state.typedKept = payload;
    },
    serverAnswered(state, { payload }: PayloadAction<boolean>) {
      state.answers = payload;
    },
  },
});

export const { waitingRead, waitingPut, waitingGone, keptOrNot, typedKeptOrNot, serverAnswered } = waitingSlice.actions;

interface WithWaiting {
  waiting: WaitingState;
}

/** Of one record, what will be done: up to what is parked. */
export const goesOn = (list: readonly Waiting[], of: string): Waiting[] => {
  const all = list.filter((one) => one.of === of);
  const stop = all.findIndex(({ parked }) => parked !== null);
  return stop < 0 ? all : all.slice(0, stop);
};

/** Why a record goes no further, or null. */
export const parkedOf = (list: readonly Waiting[], of: string): (Waiting & { parked: Parked }) | null =>
  (list.find((one) => one.of === of && one.parked !== null) as (Waiting & { parked: Parked }) | undefined) ?? null;

/** How many operations wait to be sent. */
export const selectWaitingCount = ({ waiting }: WithWaiting): number =>
  waiting.list.filter(({ parked }) => parked === null).length;

export const selectParked = ({ waiting }: WithWaiting): (Waiting & { parked: Parked })[] =>
  waiting.list.filter((one): one is Waiting & { parked: Parked } => one.parked !== null);
