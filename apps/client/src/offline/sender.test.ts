import { errorOf } from '../api/errorOf';
import { createSender, sendOne, type SendResult } from './sender';
import type { Waiting } from './waiting';

export const one = (key: string, more: Partial<Waiting> = {}): Waiting => ({
  key,
  order: 1,
  operation: 'logPrint',
  method: 'put',
  path: `/prints/${key}`,
  params: { id: key },
  body: { key },
  of: `wear:${key}`,
  touches: ['Print'],
  what: 'a print',
  at: null,
  personId: null,
  tries: 0,
  parked: null,
  ...more,
});

const answer = (status: number, body: unknown = {}) =>
  jest.fn(() => Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) } as Response));

describe('sending one', () => {
  test('carries its key, and tells sent, refused, waiting and broken apart', async () => {
    const ok = answer(200);
    expect(await sendOne(one('k'), ok)).toEqual({ kind: 'sent' });
    expect(ok).toHaveBeenCalledWith(
      '/api/prints/k',
      expect.objectContaining({ method: 'PUT', headers: expect.objectContaining({ 'Idempotency-Key': 'k' }) }),
    );
    expect(await sendOne(one('k'), answer(409, { error: { code: 'c', message: 'Ended already.' } }))).toEqual({
      kind: 'refused',
      message: 'Ended already.',
      fields: {},
    });
    const fields = { grams: 'Too heavy.' };
    expect(await sendOne(one('k'), answer(422, { error: { code: 'c', message: 'No.', fields } }))).toEqual({
      kind: 'refused',
      message: 'No.',
      fields,
    });
    expect(await sendOne(one('k'), answer(404))).toEqual({
      kind: 'refused',
      message: 'The server refused it (404).',
      fields: {},
    });
    for (const status of [401, 429, 503, 507])
      expect(await sendOne(one('k'), answer(status))).toEqual({ kind: 'waiting' });
    expect(await sendOne(one('k'), answer(500))).toEqual({ kind: 'broken', status: 500 });
    expect(await sendOne(one('k'), () => Promise.reject(new TypeError('no network')))).toEqual({ kind: 'waiting' });
  });
});

/** A device with what waits on it; `answers` decides what the server says to each. */
function device(
  waiting: Waiting[],
  answers: (waiting: Waiting) => SendResult,
  more: { mine?: (one: Waiting) => boolean } = {},
) {
  let list = [...waiting];
  const said: string[] = [];
  const reach: boolean[] = [];
  const replace = (changed: Waiting) => {
    list = list.map((known) => (known.key === changed.key ? changed : known));
    return Promise.resolve();
  };
  return new Promise<{ said: string[]; list: Waiting[]; reach: boolean[] }>((resolve) => {
    let pauses = 0;
    const sender = createSender({
      list: () => list,
      mine: more.mine ?? (() => true),
      onSent: ({ key }) => {
        list = list.filter((known) => known.key !== key);
        return Promise.resolve();
      },
      onPark: (waits, parked) => replace({ ...waits, parked }),
      onTry: (waits, tries) => replace({ ...waits, tries }),
      onAnswers: (yes) => reach.push(yes),
      send: (waits) => {
        said.push(waits.key);
        return Promise.resolve(answers(waits));
      },
      // A device that never comes to rest is cut off, and shows what it did until then.
      pause: () => (++pauses > 50 ? new Promise(() => resolve({ said, list, reach })) : Promise.resolve()),
      inTurn: async (run) => {
        await run();
        resolve({ said, list, reach });
      },
      now: () => 5,
    });
    sender.nudge();
  });
}
const SENT: SendResult = { kind: 'sent' };

describe('the sender', () => {
  test('sends in order, each once', async () => {
    const { said, list } = await device([one('a'), one('b'), one('c')], () => SENT);
    expect(said).toEqual(['a', 'b', 'c']);
    expect(list).toEqual([]);
  });

  test('what is refused is parked with its reason; of its record the rest waits, and everything else goes', async () => {
    const waiting = [one('a', { of: 'care:1' }), one('b', { of: 'care:1' }), one('c'), one('d', { of: 'care:2' })];
    const { said, list } = await device(waiting, ({ key }) =>
      key === 'a' ? { kind: 'refused', message: 'No.' } : SENT,
    );
    expect(said).toEqual(['a', 'c', 'd']);
    expect(list.map(({ key, parked }) => [key, parked?.reason])).toEqual([
      ['a', 'No.'],
      ['b', undefined],
    ]);
  });

  test('the same failure of the server three times parks it, and those behind it have gone by then', async () => {
    const { said, list } = await device([one('a'), one('b')], ({ key }) =>
      key === 'a' ? { kind: 'broken', status: 500 } : SENT,
    );
    expect(said).toEqual(['a', 'b', 'a', 'a']);
    expect(list[0]!.parked).toEqual({ kind: 'broken', reason: 'The server failed on this 3 times (500).', at: 5 });
  });

  test('without an answer nothing is lost, passed over or done twice', async () => {
    let silent = 4;
    const { said, list, reach } = await device([one('a'), one('b')], () => (silent-- > 0 ? { kind: 'waiting' } : SENT));
    expect(said).toEqual(['a', 'a', 'a', 'a', 'a', 'b']);
    expect(list).toEqual([]);
    expect(reach.slice(0, 5)).toEqual([false, false, false, false, true]);
  });

  test('what somebody else did waits for them, and so does what was done after it on the same record', async () => {
    const waiting = [one('a', { personId: 'otto', of: 'care:1' }), one('b', { of: 'care:1' }), one('c')];
    const { said } = await device(waiting, () => SENT, { mine: ({ personId }) => personId !== 'otto' });
    expect(said).toEqual(['c']);
  });

  test('nothing to send is no work', async () => {
    expect((await device([], () => SENT)).said).toEqual([]);
  });
});

test('an answer that is not the server’s own says that there was none', () => {
  expect(errorOf({ status: 502, data: '<html>' })?.code).toBe('no-answer');
});
