import type { CheckEnd, CheckSetup, HeightSource, MadeTurn, RoundWrite } from '@even-bed/contract';
import type { ParseOptions } from '@even-bed/core';
import type { FeelEvent } from '@even-bed/core/level/feel';
import type { GaugeAsk } from '@even-bed/core/level/gauge';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { PlanPlate } from '../ui/BedPlan';

export type HeightWay = HeightSource;

/** What a person types into the grid: cells as typed, front row first. */
export interface TypedGrid {
  xs: number[];
  ys: number[];
  cells: string[][];
}

/** A level by paper and feel that is under way. */
export interface FeltEntry {
  /** Gates that are ticked. */
  ready: number[];
  begun: boolean;
  gauge: GaugeAsk;
  history: FeelEvent[];
}

/** A reading that is being made. Kept with the draft, so that a reload in the middle loses nothing. */
export interface HeightEntry {
  way: HeightWay;
  text: string;
  fileName: string;
  typed: TypedGrid | null;
  scanId: string | null;
  /** Left out in drafts from before levels were felt. */
  felt?: FeltEntry | null;
  reading: ParseOptions;
}

export interface DraftRound extends RoundWrite {
  id: string;
  /** Highest minus lowest, mm, as it was worked out when the heights were taken. */
  range: number;
  /** Adjusters whose planned turn is ticked as made. */
  ticked: string[];
  /** The turns as noted when the technician went on; null until then. */
  made: MadeTurn[] | null;
  madeAt: number | null;
}

/** A level check on this device, from its first reading until the server has its end. */
export interface CheckDraft {
  id: string;
  /** Who began it: it is sent in nobody else's name. Null in drafts from before there were accounts. */
  personId: string | null;
  machineId: string;
  machineName: string;
  areaName: string;
  startedAt: number;
  setup: CheckSetup;
  adjusterNames: Record<string, string>;
  plate: PlanPlate;
  hasConsole: boolean;
  stage: 'reading' | 'turning';
  entry: HeightEntry;
  rounds: DraftRound[];
  note: string;
  end: CheckEnd | null;
  /** Keys of its parts that the server has. */
  sent: string[];
}

export interface LevelState {
  drafts: Record<string, CheckDraft>;
}

const initialState: LevelState = { drafts: {} };

type For<T = unknown> = PayloadAction<{ id: string } & T>;

/** Under which keys the parts of a check are sent: by its ids, so that a part sent twice is the same part. */
export const partKeys = {
  start: (checkId: string) => `${checkId}-start`,
  round: (roundId: string) => `${roundId}-read`,
  turns: (roundId: string) => `${roundId}-turns`,
  end: (checkId: string) => `${checkId}-end`,
};

/** Level checks under way on this device. */
export const levelSlice = createSlice({
  name: 'level',
  initialState,
  reducers: {
    draftsLoaded(state, { payload }: PayloadAction<CheckDraft[]>) {
      for (const draft of payload) state.drafts[draft.id] = draft;
    },
    draftChangedElsewhere(state, { payload: { id, draft } }: For<{ draft: CheckDraft | null }>) {
      if (draft) state.drafts[id] = draft;
      else delete state.drafts[id];
    },
    checkBegun(state, { payload }: PayloadAction<CheckDraft>) {
      state.drafts[payload.id] = payload;
    },
    /** The threads as they are written down are taken, while nothing was read yet. */
    threadsTrusted(state, { payload: { id } }: For) {
      const draft = state.drafts[id];
      if (!draft?.setup.said || draft.rounds.length > 0) return;
      const { said, ...setup } = draft.setup;
      draft.setup = { ...setup, adjusters: said };
      // What was felt rests on what turns were thought to do.
      if (draft.entry.felt) draft.entry.felt = null;
    },
    entryChanged(state, { payload: { id, change } }: For<{ change: Partial<HeightEntry> }>) {
      const draft = state.drafts[id];
      if (!draft) return;
      // Other text asks its own questions: what was answered to the old one goes.
      if (change.text !== undefined && change.text !== draft.entry.text) {
        const { answers: _, ...reading } = draft.entry.reading;
        draft.entry.reading = reading;
      }
      Object.assign(draft.entry, change);
    },
    heightsTaken(
      state,
      { payload: { id, round } }: For<{ round: Omit<DraftRound, 'seq' | 'ticked' | 'made' | 'madeAt'> }>,
    ) {
      const draft = state.drafts[id];
      if (!draft || draft.end) return;
      const last = draft.rounds[draft.rounds.length - 1];
      // A round that is left without going on counts as one in which nothing was turned.
      if (last && last.made === null) Object.assign(last, { made: [], madeAt: round.takenAt });
      draft.rounds.push({ ...round, seq: draft.rounds.length + 1, ticked: [], made: null, madeAt: null });
      draft.stage = 'turning';
      Object.assign(draft.entry, { text: '', fileName: '', scanId: null, felt: null, reading: round.reading });
      if (draft.entry.typed) draft.entry.typed.cells = draft.entry.typed.cells.map((row) => row.map(() => ''));
    },
    turnTicked(state, { payload: { id, adjusterId } }: For<{ adjusterId: string }>) {
      const round = state.drafts[id]?.rounds.at(-1);
      if (!round || round.made !== null) return;
      const at = round.ticked.indexOf(adjusterId);
      if (at < 0) round.ticked.push(adjusterId);
      else round.ticked.splice(at, 1);
    },
    turnsMade(state, { payload: { id, made, madeAt } }: For<{ made: MadeTurn[]; madeAt: number }>) {
      const draft = state.drafts[id];
      const round = draft?.rounds.at(-1);
      if (!draft || !round || round.made !== null) return;
      Object.assign(round, { made, madeAt });
      draft.stage = 'reading';
    },
    turningReturnedTo(state, { payload: { id } }: For) {
      const draft = state.drafts[id];
      if (draft && draft.rounds.length > 0) draft.stage = 'turning';
    },
    readingReturnedTo(state, { payload: { id } }: For) {
      const draft = state.drafts[id];
      if (draft) draft.stage = 'reading';
    },
    noteChanged(state, { payload: { id, note } }: For<{ note: string }>) {
      const draft = state.drafts[id];
      if (draft) draft.note = note;
    },
    checkEnded(state, { payload: { id, end } }: For<{ end: CheckEnd }>) {
      const draft = state.drafts[id];
      if (!draft || draft.end) return;
      draft.end = end;
      if (draft.rounds.length === 0) delete state.drafts[id];
    },
    partSent(state, { payload: { id, key } }: For<{ key: string }>) {
      const draft = state.drafts[id];
      if (!draft || draft.sent.includes(key)) return;
      draft.sent.push(key);
      if (key === partKeys.end(id)) delete state.drafts[id];
    },
    draftRemoved(state, { payload: { id } }: For) {
      delete state.drafts[id];
    },
  },
});

export const {
  draftsLoaded,
  draftChangedElsewhere,
  checkBegun,
  threadsTrusted,
  entryChanged,
  heightsTaken,
  turnTicked,
  turnsMade,
  turningReturnedTo,
  readingReturnedTo,
  noteChanged,
  checkEnded,
  partSent,
  draftRemoved,
} = levelSlice.actions;
