import { doubleKnock } from '@even-bed/core/care/doubleKnock';
import { useEffect, useRef } from 'react';

type AskedFirst = { requestPermission?: () => Promise<'granted' | 'denied'> };

export const canKnock = () => typeof DeviceMotionEvent !== 'undefined';

/** Asks for the motion sensor where the platform wants to be asked; true: it may be read. */
export async function askToListen(): Promise<boolean> {
  if (!canKnock()) return false;
  const { requestPermission } = DeviceMotionEvent as unknown as AskedFirst;
  if (!requestPermission) return true;
  try {
    return (await requestPermission.call(DeviceMotionEvent)) === 'granted';
  } catch {
    return false;
  }
}

/** Calls back at each double knock on the device while it is on. */
export function useKnock(on: boolean, onKnock: () => void): void {
  const latest = useRef(onKnock);
  useEffect(() => {
    latest.current = onKnock;
  });
  useEffect(() => {
    if (!on || !canKnock()) return undefined;
    const heard = doubleKnock();
    const onMotion = (event: DeviceMotionEvent) => {
      const { x, y, z } = event.accelerationIncludingGravity ?? event.acceleration ?? {};
      if (x == null || y == null || z == null) return;
      if (heard({ at: event.timeStamp, x, y, z })) latest.current();
    };
    window.addEventListener('devicemotion', onMotion);
    return () => window.removeEventListener('devicemotion', onMotion);
  }, [on]);
}
