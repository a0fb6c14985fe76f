import { useEffect } from 'react';
import { api } from '../api/api';
import { followShop } from '../api/followShop';
import { useAppDispatch } from '../state/store';

/** Keeps this page up to what others do: what they change is fetched anew as it happens. */
export function useFollowing(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (typeof EventSource === 'undefined' || typeof document === 'undefined') return;
    const following = followShop({
      onOld: (records) => dispatch(api.util.invalidateTags(records)),
      isSeen: () => document.visibilityState === 'visible',
    });
    document.addEventListener('visibilitychange', following.seen);
    return () => {
      document.removeEventListener('visibilitychange', following.seen);
      following.stop();
    };
  }, [dispatch]);
}
