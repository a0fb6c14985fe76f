import { configureStore } from '@reduxjs/toolkit';
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
import { deviceStore } from './deviceStore';

const DRAFTS = 'level-check';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, level: levelSlice.reducer },
  middleware: (getDefault) => getDefault({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

/** Everything that waits on this device, check after check. */
export const selectPending = ({ level }: RootState): DraftWrite[] => Object.values(level.drafts).flatMap(pendingWrites);

const outbox = createOutbox({
  next: () => selectPending(store.getState())[0] ?? null,
  done: (write, result) => {
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
  const waits = () => selectPending(store.getState()).some(({ draftId }) => draftId === id);
  sendPending();
  for (const start = Date.now(); waits();) {
    if (Date.now() - start > withinMs) return false;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return true;
}

/** Loads what the device kept, then keeps every change and sends it. */
export async function openDevice(): Promise<void> {
  const kept = await deviceStore.load<CheckDraft>(DRAFTS);
  store.dispatch(draftsLoaded([...kept.values()]));
  let known = store.getState().level.drafts;
  store.subscribe(() => {
    const { drafts } = store.getState().level;
    if (drafts === known) return;
    for (const [id, draft] of Object.entries(drafts)) if (known[id] !== draft) void deviceStore.set(DRAFTS, id, draft);
    for (const id of Object.keys(known)) if (!drafts[id]) void deviceStore.remove(DRAFTS, id);
    known = drafts;
    if (selectPending(store.getState()).length > 0) sendPending();
  });
  deviceStore.watch<CheckDraft>(DRAFTS, (id, draft) => store.dispatch(draftChangedElsewhere({ id, draft })));
  if (typeof window !== 'undefined' && window.addEventListener) window.addEventListener('online', sendPending);
  sendPending();
}
