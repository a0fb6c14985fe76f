/** Takes away what this device kept of the shop's records for places without a signal. */
export async function forgetRecords(): Promise<void> {
  if (typeof caches !== 'undefined') await caches.delete('records');
}
