import os from 'node:os';

/**
 * Whether a request names this shop: this host by its names and addresses, and what whoever runs it has added. A page of
 * another name that was made to point here (DNS rebinding) names its own.
 * @param more names besides, as settings give them
 */
export function ourHosts(more: readonly string[]): (host: string) => boolean {
  const own = os.hostname().toLowerCase();
  const ours = new Set([
    'localhost',
    '127.0.0.1',
    '::1',
    '[::1]',
    own,
    `${own}.local`,
    ...more.map((name) => name.toLowerCase()),
  ]);
  return (host) => {
    const name = host.toLowerCase();
    if (ours.has(name) || name.endsWith('.localhost')) return true;
    // Addresses change while the server runs: asked anew.
    return Object.values(os.networkInterfaces())
      .flatMap((list) => list ?? [])
      .some(({ address }) => address === name || `[${address}]` === name);
  };
}
