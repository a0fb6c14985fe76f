import { openDB, type IDBPDatabase } from 'idb';
import type { Waiting } from './waiting';
import type { Keeping } from './waitingSlice';

const NAME = 'even-bed';
const STORE = 'waiting';
const CHANNEL = 'even-bed-waiting';

/** What a tab tells the others. */
type Told = { put: Waiting } | { gone: string };

/** Operations that wait, one record each, in the storage that all tabs of this device share. */
export class WaitingStore {
  private db: Promise<IDBPDatabase> | null = null;
  /** On their way into the storage, and let go of on this page: what is read meanwhile may not know it yet. */
  private readonly coming = new Map<string, Waiting>();
  private readonly gone = new Set<string>();
  private readonly channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);

  private open(): Promise<IDBPDatabase> {
    this.db ??= openDB(NAME, 1, {
      upgrade: (db) => {
        db.createObjectStore(STORE, { keyPath: 'key' });
      },
      // Taken away by the browser: the next one who asks opens it anew.
      terminated: () => {
        this.db = null;
      },
      blocking: (_, __, event) => {
        (event.target as IDBDatabase).close();
        this.db = null;
      },
    }).catch((error: unknown) => {
      this.db = null;
      throw error;
    });
    return this.db;
  }

  async all(): Promise<Waiting[]> {
    const db = await this.open();
    const found = new Map(((await db.getAll(STORE)) as Waiting[]).map((one) => [one.key, one]));
    for (const one of this.coming.values()) found.set(one.key, one);
    for (const key of this.gone) found.delete(key);
    return [...found.values()];
  }

  /** Keeps one, and says whether it is kept. */
  async put(waiting: Waiting): Promise<Keeping> {
    this.gone.delete(waiting.key);
    this.coming.set(waiting.key, waiting);
    try {
      const db = await this.open();
      const change = db.transaction(STORE, 'readwrite', { durability: 'strict' });
      await Promise.all([change.store.put(waiting), change.done]);
      this.channel?.postMessage({ put: waiting } satisfies Told);
      return 'kept';
    } catch (error) {
      this.db = null;
      return (error as { name?: string } | null)?.name === 'QuotaExceededError' ? 'full' : 'gone';
    } finally {
      if (this.coming.get(waiting.key) === waiting) this.coming.delete(waiting.key);
    }
  }

  async remove(key: string): Promise<void> {
    this.gone.add(key);
    this.coming.delete(key);
    try {
      const db = await this.open();
      await db.delete(STORE, key);
    } catch {
      // Sent again after the next start, its key makes it harmless.
      this.db = null;
    }
    this.channel?.postMessage({ gone: key } satisfies Told);
  }

  /** Calls back when another tab keeps one or lets one go. */
  watch({ onPut, onGone }: { onPut: (waiting: Waiting) => void; onGone: (key: string) => void }): void {
    if (!this.channel) return;
    this.channel.onmessage = ({ data }: MessageEvent<Told>) => ('put' in data ? onPut(data.put) : onGone(data.gone));
  }

  async close(): Promise<void> {
    this.channel?.close();
    (await this.db)?.close();
  }
}
