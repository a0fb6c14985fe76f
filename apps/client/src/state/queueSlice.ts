import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { PendingWrite } from '../api/outbox';

/** A write that was made here and waits for the server: a print, an inspection, an offset. */
export interface QueuedWrite extends PendingWrite {
  /** What it is, for people. */
  what: string;
  /** Who made it: it is sent in nobody else's name. */
  personId: string | null;
  /** What the server said when it refused it. */
  refusal: string | null;
}

interface QueueState {
  writes: QueuedWrite[];
}

const initialState: QueueState = { writes: [] };

export const queueSlice = createSlice({
  name: 'queue',
  initialState,
  reducers: {
    queueRemembered: (_, { payload }: PayloadAction<QueueState>) => payload,
    /** What another tab has queued comes beside what is here; sent twice it changes nothing. */
    queueMerged(state, { payload }: PayloadAction<QueueState>) {
      for (const write of payload.writes)
        if (!state.writes.some(({ key }) => key === write.key)) state.writes.push(write);
    },
    writeQueued: {
      prepare: (write: PendingWrite & { what: string }) => ({
        payload: { ...write, personId: null, refusal: null } as QueuedWrite,
      }),
      reducer(state, { payload }: PayloadAction<QueuedWrite>) {
        if (!state.writes.some(({ key }) => key === payload.key)) state.writes.push(payload);
      },
    },
    queuedSent(state, { payload: key }: PayloadAction<string>) {
      state.writes = state.writes.filter((write) => write.key !== key);
    },
    queuedRefused(state, { payload: { key, message } }: PayloadAction<{ key: string; message: string }>) {
      const write = state.writes.find((known) => known.key === key);
      if (write) write.refusal = message;
    },
    queuedTriedAgain(state, { payload: key }: PayloadAction<string>) {
      const write = state.writes.find((known) => known.key === key);
      if (write) write.refusal = null;
    },
    queuedOwned(state, { payload: personId }: PayloadAction<string>) {
      for (const write of state.writes) write.personId ??= personId;
    },
  },
});

export const { queueMerged, queueRemembered, writeQueued, queuedSent, queuedRefused, queuedTriedAgain, queuedOwned } =
  queueSlice.actions;
