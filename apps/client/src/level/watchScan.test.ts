import type { Scan } from '@even-bed/contract';
import { watchScan } from './watchScan';

const scan = (state: Scan['state'], taken: number): Scan => ({
  id: 's',
  machineId: 'm',
  state,
  step: '',
  taken,
  expected: 9,
  text: '',
  message: null,
});

/** A stream in the tests' hands. */
class FakeSource {
  static last: FakeSource;
  onmessage: ((event: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  closed = false;
  constructor(readonly url: string) {
    FakeSource.last = this;
  }
  close() {
    this.closed = true;
  }
  say(value: Scan) {
    this.onmessage?.({ data: JSON.stringify(value) });
  }
}

const globals = globalThis as unknown as { EventSource?: unknown; fetch: unknown };
const realFetch = globals.fetch;
beforeEach(() => {
  jest.useFakeTimers();
  globals.EventSource = FakeSource;
});
afterEach(() => {
  jest.useRealTimers();
  delete globals.EventSource;
  globals.fetch = realFetch;
});

const heard = () => {
  const states: string[] = [];
  const onLost = jest.fn();
  const stop = watchScan('s', { onScan: ({ state, taken }) => states.push(`${state} ${taken}`), onLost });
  return { states, onLost, stop };
};

test('follows the stream and closes it at the end', () => {
  const { states, onLost } = heard();
  expect(FakeSource.last.url).toBe('/api/scans/s/events');
  FakeSource.last.say(scan('running', 4));
  FakeSource.last.say(scan('done', 9));
  FakeSource.last.say(scan('done', 9));
  expect(states).toEqual(['running 4', 'done 9']);
  expect(FakeSource.last.closed).toBe(true);
  expect(onLost).not.toHaveBeenCalled();
});

test('asks by itself when the stream breaks, and goes on until the end', async () => {
  const answers = [scan('running', 5), scan('running', 7), scan('done', 9)];
  globals.fetch = jest.fn(() =>
    Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(answers.shift()) }),
  );
  const { states, onLost } = heard();
  FakeSource.last.onerror!();
  await jest.advanceTimersByTimeAsync(5_000);
  expect(states).toEqual(['running 5', 'running 7', 'done 9']);
  expect(onLost).not.toHaveBeenCalled();
});

test('a scan that the server no longer knows is lost at once', async () => {
  globals.fetch = jest.fn(() => Promise.resolve({ ok: false, status: 404 }));
  const { onLost } = heard();
  FakeSource.last.onerror!();
  await jest.advanceTimersByTimeAsync(100);
  expect(onLost).toHaveBeenCalledTimes(1);
});

test('a server that stays silent loses the scan after some tries, once', async () => {
  const ask = jest.fn(() => Promise.reject(new TypeError('no network')));
  globals.fetch = ask;
  const { onLost } = heard();
  FakeSource.last.onerror!();
  await jest.advanceTimersByTimeAsync(60_000);
  expect(onLost).toHaveBeenCalledTimes(1);
  expect(ask).toHaveBeenCalledTimes(5);
});

test('who stops following hears nothing more', async () => {
  const { states, onLost, stop } = heard();
  stop();
  FakeSource.last.say(scan('running', 4));
  await jest.advanceTimersByTimeAsync(10_000);
  expect([states, onLost.mock.calls]).toEqual([[], []]);
});
