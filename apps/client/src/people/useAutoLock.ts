import { useEffect } from 'react';
import { useAppDispatch, useAppSelector } from '../state/store';
import { useLockMutation } from './peopleApi';
import { useSettingsQuery } from './settingsApi';
import { deviceLocked } from '../state/peopleSlice';

const LOOK_EVERY_MS = 5_000;
const TOUCHES = ['pointerdown', 'keydown', 'wheel'] as const;

/** Locks a shared device that nobody has touched for as long as the shop says; with or without a signal. */
export function useAutoLock(): void {
  const dispatch = useAppDispatch();
  const { person, shared, lockedHere } = useAppSelector((state) => state.people);
  const watching = shared && person !== null && !lockedHere;
  const { data: settings } = useSettingsQuery(undefined, { skip: !watching });
  const [lock] = useLockMutation();
  const afterMs = (settings?.lockMinutes ?? 5) * 60_000;
  useEffect(() => {
    if (!watching || typeof document === 'undefined') return undefined;
    let touchedAt = Date.now();
    const touched = () => {
      touchedAt = Date.now();
    };
    const look = () => {
      if (Date.now() - touchedAt < afterMs) return;
      dispatch(deviceLocked());
      void lock();
    };
    const timer = setInterval(look, LOOK_EVERY_MS);
    // A phone that slept does not run timers: it looks when it wakes.
    document.addEventListener('visibilitychange', look);
    for (const kind of TOUCHES) document.addEventListener(kind, touched, { passive: true });
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
      for (const kind of TOUCHES) document.removeEventListener(kind, touched);
    };
  }, [watching, afterMs, dispatch, lock]);
}
