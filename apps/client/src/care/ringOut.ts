/** Three short tones, for whoever stands near. Silent where the browser makes none. */
export function ringOut(): void {
  if (typeof AudioContext === 'undefined') return;
  try {
    const audio = new AudioContext();
    for (const [i, pitch] of [660, 660, 880].entries()) {
      const tone = audio.createOscillator();
      const loudness = audio.createGain();
      const at = audio.currentTime + i * 0.35;
      tone.frequency.value = pitch;
      loudness.gain.setValueAtTime(0.3, at);
      loudness.gain.exponentialRampToValueAtTime(0.001, at + 0.3);
      tone.connect(loudness).connect(audio.destination);
      tone.start(at);
      tone.stop(at + 0.32);
    }
    setTimeout(() => void audio.close(), 2000);
  } catch {
    // A page that was never touched may not sound.
  }
}

export const mayNotify = () => typeof Notification !== 'undefined' && Notification.permission === 'granted';
export const canAskToNotify = () => typeof Notification !== 'undefined' && Notification.permission === 'default';

/** Says it also when another page is in front. On phones only the service worker may, so it is asked first. */
export async function notifyOf(title: string, body: string): Promise<void> {
  if (!mayNotify()) return;
  const said = { body, tag: title, icon: '/icon-192.png' };
  try {
    const worker = await navigator.serviceWorker?.getRegistration();
    if (worker?.active) await worker.showNotification(title, said);
    else new Notification(title, said);
  } catch {
    // A browser that shows none still sounds, and the page itself says it.
  }
}
