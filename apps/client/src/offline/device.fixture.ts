import { createSender, type SendResult } from './sender';
import type { Waiting } from './waiting';
import { waitingGone, waitingPut, waitingRead, waitingSlice, type WaitingState } from './waitingSlice';

/** A device of a test: what it has kept, and a page over it that may be loaded anew at any time. */
export class KeepingDevice {
  readonly kept = new Map<string, Waiting>();
  state: WaitingState = waitingSlice.reducer(undefined, { type: 'begin' });

  constructor(private readonly send: (one: Waiting) => Promise<SendResult>) {}

  /** Before what was sent, or is dropped, is let go of. */
  protected onSent(_one: Waiting): void {}
  protected onDropped(_one: Waiting): void {}

  private put(waiting: Waiting): Promise<void> {
    this.state = waitingSlice.reducer(this.state, waitingPut(waiting));
    this.kept.set(waiting.key, waiting);
    return Promise.resolve();
  }
  private letGo({ key }: Waiting): Promise<void> {
    this.state = waitingSlice.reducer(this.state, waitingGone(key));
    this.kept.delete(key);
    return Promise.resolve();
  }
  later(waiting: Waiting): void {
    void this.put(waiting);
  }
  reload(): void {
    this.state = waitingSlice.reducer(undefined, waitingRead([...this.kept.values()]));
  }
  parked(): Waiting[] {
    return this.state.list.filter(({ parked }) => parked !== null);
  }
  again(one: Waiting): void {
    void this.put({ ...one, tries: 0, parked: null });
  }
  /** Lets go of one, and of what came after it on the same record. @returns their keys */
  drop({ of, key }: Waiting): string[] {
    const all = this.state.list.filter((one) => one.of === of);
    const gone = all.slice(all.findIndex((one) => one.key === key));
    for (const one of gone) {
      this.onDropped(one);
      void this.letGo(one);
    }
    return gone.map((one) => one.key);
  }
  /** Sends until everything is sent, parked, or has to wait. */
  sends(): Promise<void> {
    return new Promise((resolve) => {
      createSender({
        list: () => this.state.list,
        mine: () => true,
        onSent: (one) => {
          this.onSent(one);
          return this.letGo(one);
        },
        onPark: (one, parked) => this.put({ ...one, parked }),
        onTry: (one, tries) => this.put({ ...one, tries }),
        onAnswers: () => undefined,
        send: this.send,
        pause: () => new Promise(() => resolve()),
        inTurn: async (run) => {
          await run();
          resolve();
        },
        now: () => 1,
      }).nudge();
    });
  }
}
