/** Migrations go forward only; to go back, restore a backup. */
export function down(): Promise<void> {
  return Promise.reject(new Error('Migrations go forward only: restore a backup instead.'));
}
