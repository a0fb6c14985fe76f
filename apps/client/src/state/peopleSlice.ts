import type { Manner, Person, SessionState } from '@even-bed/contract';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Who has this device in hand. Kept on the device, so that it opens without a signal and stays locked over a reload. */
export interface PeopleState {
  person: Person | null;
  shared: boolean;
  lockedHere: boolean;
  /** How the shop reads, as it said last. */
  manner: Manner | null;
  /** Names that were used on this device, the last one first: for switching in two taps. */
  names: string[];
}

const MOST_NAMES = 8;
const initialState: PeopleState = { person: null, shared: false, lockedHere: false, manner: null, names: [] };

export const peopleSlice = createSlice({
  name: 'people',
  initialState,
  reducers: {
    deviceRemembered: (_, { payload }: PayloadAction<PeopleState>) => payload,
    sessionKnown(state, { payload: { state: stands, person, shared, manner } }: PayloadAction<SessionState>) {
      state.shared = shared;
      if (manner) state.manner = manner;
      if (stands === 'locked') state.lockedHere = true;
      if (stands === 'signed-out' || stands === 'first-start') {
        state.person = null;
        state.lockedHere = false;
      }
      if (person) state.person = person;
    },
    signedIn(state, { payload: { person, shared, manner } }: PayloadAction<SessionState>) {
      state.person = person;
      state.manner = manner;
      state.shared = shared;
      state.lockedHere = false;
      if (person)
        state.names = [person.name, ...state.names.filter((name) => name !== person.name)].slice(0, MOST_NAMES);
    },
    deviceLocked(state) {
      state.lockedHere = true;
    },
    nameForgotten(state, { payload }: PayloadAction<string>) {
      state.names = state.names.filter((name) => name !== payload);
    },
  },
});

export const { deviceRemembered, sessionKnown, signedIn, deviceLocked, nameForgotten } = peopleSlice.actions;
