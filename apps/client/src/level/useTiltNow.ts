/** How a device lies, degrees: + its right, or its far end, lower. */
export interface TiltNow {
  across: number;
  along: number;
}

/** A device that says how it lies does so within this, ms. */
const WAIT_MS = 1500;

interface Asks {
  requestPermission?: () => Promise<'granted' | 'denied'>;
}

/** @returns asks the device how it lies just now; null: it doesn't say */
export function useTiltNow(): () => Promise<TiltNow | null> {
  return async () => {
    if (typeof window === 'undefined' || typeof DeviceOrientationEvent === 'undefined') return null;
    const { requestPermission } = DeviceOrientationEvent as unknown as Asks;
    if (requestPermission && (await requestPermission().catch(() => 'denied')) !== 'granted') return null;
    return new Promise((resolve) => {
      const done = (tilt: TiltNow | null) => {
        clearTimeout(timer);
        window.removeEventListener('deviceorientation', hear);
        resolve(tilt);
      };
      // Lying on its back: gamma is + where its right side is lower, beta + where its near end is.
      const hear = ({ beta, gamma }: DeviceOrientationEvent) => {
        if (beta !== null && gamma !== null) done({ across: gamma, along: -beta });
      };
      const timer = setTimeout(() => done(null), WAIT_MS);
      window.addEventListener('deviceorientation', hear);
    });
  };
}
