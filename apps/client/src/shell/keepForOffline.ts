/** Lets the browser keep the app's own files, so that it opens where there is no signal. Only where it was built for that. */
export function keepForOffline(): void {
  if (process.env.NODE_ENV !== 'production' || typeof navigator === 'undefined' || !('serviceWorker' in navigator))
    return;
  void navigator.serviceWorker.register('/service-worker.js').catch(() => undefined);
}
