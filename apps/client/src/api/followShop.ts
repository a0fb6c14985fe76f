import type { BookHappening } from '@even-bed/contract';
import { EVENTS } from '@even-bed/contract/book/events';
import { RECORDS, type RecordKind } from '@even-bed/contract/kit/operation';

/** Lines that come in one go are told in one. */
const TOGETHER_MS = 120;
/** A stream that broke is begun again after this long, then longer. */
const AGAIN_MS = [1_000, 2_000, 5_000, 15_000];

export interface FollowParts {
  /** What is old here now. */
  onOld: (records: RecordKind[]) => void;
  /** Whether this page is looked at: one that isn't holds no line open, of which a browser has six. */
  isSeen: () => boolean;
  open?: (address: string) => Pick<EventSource, 'close' | 'onmessage' | 'onerror' | 'onopen'>;
}

/** Follows what happens in the shop while this page is looked at; what it missed meanwhile it hears when it is looked at again. */
export function followShop({ onOld, isSeen, open = (address) => new EventSource(address) }: FollowParts) {
  let source: ReturnType<NonNullable<FollowParts['open']>> | null = null;
  let last: number | null = null;
  let tries = 0;
  let stopped = false;
  let waiting: ReturnType<typeof setTimeout> | null = null;
  let telling: ReturnType<typeof setTimeout> | null = null;
  const old = new Set<RecordKind>();
  const tell = () => {
    telling = null;
    onOld([...old]);
    old.clear();
  };
  const close = () => {
    source?.close();
    source = null;
    if (waiting !== null) clearTimeout(waiting);
    waiting = null;
  };
  const begin = () => {
    if (stopped || source !== null || !isSeen()) return;
    source = open(last === null ? '/api/events' : `/api/events?after=${last}`);
    source.onopen = () => {
      // It was away: what is on screen may be of any age.
      if (tries > 0) onOld([...RECORDS]);
      tries = 0;
    };
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const { seq, kind } = JSON.parse(data) as BookHappening;
      last = seq;
      // A kind that this page doesn't know yet: the book alone is old for sure.
      for (const record of ['Book', ...(EVENTS[kind]?.touches ?? [])] as RecordKind[]) old.add(record);
      telling ??= setTimeout(tell, TOGETHER_MS);
    };
    source.onerror = () => {
      close();
      waiting = setTimeout(begin, AGAIN_MS[Math.min(tries++, AGAIN_MS.length - 1)]);
    };
  };
  begin();
  return {
    /** The page came into sight, or went out of it. */
    seen: () => (isSeen() ? begin() : close()),
    stop: () => {
      stopped = true;
      close();
      if (telling !== null) clearTimeout(telling);
    },
  };
}
