import type { RecordKind } from '@even-bed/contract/kit/operation';
import { followShop } from './followShop';

type Source = { close: jest.Mock; onmessage: ((event: MessageEvent) => void) | null; onerror: (() => void) | null };

let sources: (Source & { address: string })[];
let old: RecordKind[][];
let seen: boolean;
const begin = () =>
  followShop({
    onOld: (records) => old.push(records),
    isSeen: () => seen,
    open: (address) => {
      const source = { address, close: jest.fn(), onmessage: null, onerror: null };
      sources.push(source);
      return source as never;
    },
  });
const say = (seq: number, kind: string) =>
  sources.at(-1)!.onmessage!({ data: JSON.stringify({ seq, kind }) } as MessageEvent);

beforeEach(() => {
  jest.useFakeTimers();
  sources = [];
  old = [];
  seen = true;
});
afterEach(() => jest.useRealTimers());

test('what happens elsewhere makes old what it touches, several lines in one go', () => {
  const { stop } = begin();
  say(7, 'print-logged');
  say(8, 'surface-moved');
  expect(old).toEqual([]);
  jest.advanceTimersByTime(200);
  expect(old).toHaveLength(1);
  expect(old[0]!.sort()).toEqual(['Book', 'Machine', 'Print', 'Stack', 'Surface']);
  stop();
});

test('a kind that this page does not know makes the book old and breaks nothing', () => {
  const { stop } = begin();
  say(7, 'something-new');
  jest.advanceTimersByTime(200);
  expect(old).toEqual([['Book']]);
  stop();
});

test('a stream that breaks is begun again after the line heard last, later each time it fails', () => {
  const { stop } = begin();
  say(41, 'area-added');
  sources[0]!.onerror!();
  expect(sources[0]!.close).toHaveBeenCalled();
  jest.advanceTimersByTime(1_000);
  expect(sources.map(({ address }) => address)).toEqual(['/api/events', '/api/events?after=41']);
  sources[1]!.onerror!();
  jest.advanceTimersByTime(1_000);
  expect(sources).toHaveLength(2);
  jest.advanceTimersByTime(1_000);
  expect(sources).toHaveLength(3);
  stop();
  sources[2]!.onerror!();
  jest.advanceTimersByTime(60_000);
  expect(sources).toHaveLength(3);
});

test('a page that is not looked at holds no stream, and catches up when it is', () => {
  const following = begin();
  say(5, 'area-added');
  seen = false;
  following.seen();
  expect(sources[0]!.close).toHaveBeenCalled();
  jest.advanceTimersByTime(60_000);
  expect(sources).toHaveLength(1);
  seen = true;
  following.seen();
  expect(sources[1]!.address).toBe('/api/events?after=5');
  following.stop();
});
