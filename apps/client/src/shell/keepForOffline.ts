import { isSecurePage, offlineIs } from '../ui/secure';

/** Lets the browser keep the app's own files, so that it opens where there is no signal. Only where it was built for that. */
export function keepForOffline(): void {
  if (process.env.NODE_ENV !== 'production' || typeof navigator === 'undefined') return;
  if (!('serviceWorker' in navigator)) return offlineIs(isSecurePage() ? 'none' : 'insecure');
  navigator.serviceWorker.register('/service-worker.js').then(
    () => offlineIs('kept'),
    // A browser that went past a warning still lets nothing of that page be kept.
    (error: Error) => offlineIs(error.name === 'SecurityError' ? 'distrusted' : 'none'),
  );
}
