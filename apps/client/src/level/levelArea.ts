import { addArea, stateNow, store } from '../state/store';
import { levelWaits } from './levelWaits';
import {
  draftChangedElsewhere,
  draftRemoved,
  draftsLoaded,
  levelSlice,
  partSent,
  type CheckDraft,
  type LevelState,
} from './levelSlice';

declare module '../state/store' {
  interface AreaSlices {
    level: LevelState;
  }
}

const isCheck = (id: string | undefined) => id !== undefined && stateNow().level.drafts[id] !== undefined;

/** Checks under way on this device: kept as they go, and what they owe the server waits as soon as it comes about. */
addArea<CheckDraft>({
  slice: levelSlice,
  kept: {
    kind: 'level-check',
    of: ({ level }) => level.drafts,
    loaded: (drafts) => draftsLoaded(drafts),
    elsewhere: (id, draft) => draftChangedElsewhere({ id, draft }),
  },
  owes: (drafts, before) =>
    Object.values(drafts)
      .filter((draft) => before?.[draft.id] !== draft)
      .flatMap((draft) => levelWaits(draft).map((part) => ({ ...part, personId: draft.personId }))),
  onSent: ({ params: { id }, key }) => {
    if (isCheck(id)) store.dispatch(partSent({ id: id!, key }));
  },
  // A check without one of its parts is none: it goes as a whole.
  isWhole: isCheck,
  onLetGo: ({ params: { id } }) => {
    if (isCheck(id)) store.dispatch(draftRemoved({ id: id! }));
  },
});
