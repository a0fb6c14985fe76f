import fc from 'fast-check';
import { KeepingDevice } from './device.fixture';
import type { SendResult } from './sender';
import type { Waiting } from './waiting';

/** A server that does each key once, refuses some for good, and is not always there. */
class Server {
  readonly done: string[] = [];
  readonly acknowledged = new Set<string>();
  signal = true;
  /** How many more answers are lost on their way, or are failures of its own. */
  lost = 0;
  failing = 0;

  take({ key, body }: Waiting): SendResult {
    if (!this.signal) return { kind: 'waiting' };
    if (this.failing > 0) {
      this.failing--;
      return { kind: 'broken', status: 500 };
    }
    if ((body as { refused: boolean }).refused) return { kind: 'refused', message: 'No.' };
    if (!this.done.includes(key)) this.done.push(key);
    if (this.lost > 0) {
      this.lost--;
      return { kind: 'waiting' };
    }
    this.acknowledged.add(key);
    return { kind: 'sent' };
  }
}

type Action =
  | { kind: 'does'; device: number; record: number; refused: boolean }
  | { kind: 'sends' | 'reload' | 'again' | 'drop'; device: number }
  | { kind: 'signal'; on: boolean }
  | { kind: 'lost' | 'failing'; count: number };

const device = fc.nat(1);
const action: fc.Arbitrary<Action> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      kind: fc.constant('does' as const),
      device,
      record: fc.nat(3),
      refused: fc.nat(9).map((n) => n === 0),
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      kind: fc.constantFrom('sends' as const, 'sends' as const, 'reload' as const, 'again' as const, 'drop' as const),
      device,
    }),
  },
  { weight: 2, arbitrary: fc.record({ kind: fc.constant('signal' as const), on: fc.boolean() }) },
  { weight: 2, arbitrary: fc.record({ kind: fc.constantFrom('lost' as const, 'failing' as const), count: fc.nat(4) }) },
);

test('2,000 histories of two devices: nothing acknowledged is missing or double, and no device is stuck', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(action, { minLength: 5, maxLength: 40 }), async (history) => {
      const server = new Server();
      const send = (one: Waiting) => Promise.resolve(server.take(one));
      const devices = [new KeepingDevice(send), new KeepingDevice(send)];
      const made = new Map<string, { device: number; of: string; refused: boolean }>();
      const dropped = new Set<string>();
      for (const step of history) {
        if (step.kind === 'does') {
          const key = `k${made.size}`;
          const of = `r${step.record}`;
          made.set(key, { device: step.device, of, refused: step.refused });
          devices[step.device]!.later({
            ...{ key, order: made.size, operation: 'x', method: 'put', path: '/x', params: {}, of, touches: [] },
            ...{ body: { refused: step.refused }, what: '', at: null, personId: null, tries: 0, parked: null },
          });
        } else if (step.kind === 'signal') server.signal = step.on;
        else if ('count' in step) server[step.kind] = step.count;
        else {
          const one = devices[step.device]!;
          const [parked] = one.parked();
          if (step.kind === 'sends') await one.sends();
          if (step.kind === 'reload') one.reload();
          if (step.kind === 'again' && parked) one.again(parked);
          if (step.kind === 'drop' && parked) for (const key of one.drop(parked)) dropped.add(key);
        }
      }
      // In the end the signal is back and the server well: each device sends, and what the server failed on is tried anew.
      Object.assign(server, { signal: true, lost: 0, failing: 0 });
      for (const one of devices) {
        one.reload();
        for (const waits of one.parked()) if (waits.parked?.kind === 'broken') one.again(waits);
        for (let i = 0; i < 4; i++) await one.sends();
      }
      expect(new Set(server.done).size).toBe(server.done.length);
      for (const key of server.acknowledged) expect(server.done).toContain(key);
      devices.forEach((one, at) => {
        // What still waits is refused, or was done after something refused on the same record.
        const stopped = new Set<string>();
        for (const { key, of, parked } of one.state.list) {
          if (parked) stopped.add(of);
          expect([key, stopped.has(of)]).toEqual([key, true]);
        }
        // Everything else has arrived, of each record in the order in which it was done.
        const waits = new Set(one.state.list.map(({ key }) => key));
        const mine = [...made].filter(([, { device: by }]) => by === at);
        for (const [key] of mine)
          expect([key, server.done.includes(key) || waits.has(key) || dropped.has(key)]).toEqual([key, true]);
        for (const of of new Set(mine.map(([, op]) => op.of))) {
          const keys = mine.filter(([, op]) => op.of === of).map(([key]) => key);
          const arrived = server.done.filter((key) => keys.includes(key));
          expect(arrived).toEqual(keys.filter((key) => arrived.includes(key)));
        }
        expect([...one.kept.keys()].sort()).toEqual([...waits].sort());
      });
    }),
    { numRuns: 2_000, seed: 20_261_126 },
  );
}, 120_000);
