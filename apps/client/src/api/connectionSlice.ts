import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export interface ConnectionState {
  /** Since when what is on screen is old, epoch ms: the server doesn't answer now. Null: it does. */
  oldSince: number | null;
}

const initialState: ConnectionState = { oldSince: null };

/** Whether what is seen is what the server has now. */
export const connectionSlice = createSlice({
  name: 'connection',
  initialState,
  reducers: {
    /** A view came from what this device has kept, or didn't come: the oldest of them counts. */
    viewIsOld(state, { payload: since }: PayloadAction<number>) {
      state.oldSince = Math.min(state.oldSince ?? since, since);
    },
    viewsAreNew(state) {
      state.oldSince = null;
    },
  },
});

export const { viewIsOld, viewsAreNew } = connectionSlice.actions;
