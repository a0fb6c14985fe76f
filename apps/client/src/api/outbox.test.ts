import { createOutbox, sendWrite, type PendingWrite, type SendResult } from './outbox';
import { errorOf } from './errorOf';

const write = (key: string): PendingWrite => ({ key, path: `/x/${key}`, body: { key } });
const answer = (status: number, body: unknown = {}) =>
  jest.fn(() => Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) } as Response));

describe('sendWrite', () => {
  test('carries its key, and tells sent, refused and waiting apart', async () => {
    const ok = answer(200);
    expect(await sendWrite(write('k'), ok)).toEqual({ kind: 'sent' });
    expect(ok).toHaveBeenCalledWith(
      '/api/x/k',
      expect.objectContaining({ method: 'PUT', headers: expect.objectContaining({ 'Idempotency-Key': 'k' }) }),
    );
    expect(await sendWrite(write('k'), answer(409, { error: { code: 'c', message: 'Ended already.' } }))).toEqual({
      kind: 'refused',
      message: 'Ended already.',
    });
    expect(await sendWrite(write('k'), answer(404))).toEqual({
      kind: 'refused',
      message: 'The server refused it (404).',
    });
    for (const status of [401, 429, 503, 507])
      expect(await sendWrite(write('k'), answer(status))).toEqual({ kind: 'waiting' });
    expect(await sendWrite(write('k'), answer(500))).toEqual({ kind: 'broken', status: 500 });
    expect(await sendWrite(write('k'), () => Promise.reject(new TypeError('no network')))).toEqual({ kind: 'waiting' });
  });
});

describe('the outbox', () => {
  test('a write on which the server fails three times is laid aside, and those behind it go on', async () => {
    const queue = [write('a'), write('b')];
    const done: [string, string][] = [];
    await new Promise<void>((resolve) => {
      const outbox = createOutbox({
        next: () => queue[0] ?? null,
        done: ({ key }, result) => {
          done.push([key, result.kind === 'refused' ? result.message : result.kind]);
          queue.shift();
          if (queue.length === 0) resolve();
        },
        reachable: () => {},
        send: ({ key }) => Promise.resolve(key === 'a' ? { kind: 'broken', status: 500 } : { kind: 'sent' }),
        pause: () => Promise.resolve(),
      });
      outbox.nudge();
    });
    expect(done).toEqual([
      ['a', expect.stringContaining('failed on this 3 times (500)')],
      ['b', 'sent'],
    ]);
  });

  test('sends in order, tries again while there is no answer, and never twice after one', async () => {
    const queue = [write('a'), write('b'), write('c')];
    const answers: SendResult[] = [
      { kind: 'sent' },
      { kind: 'waiting' },
      { kind: 'waiting' },
      { kind: 'sent' },
      { kind: 'refused', message: 'no' },
    ];
    const sent: string[] = [];
    const heard: boolean[] = [];
    const results: string[] = [];
    await new Promise<void>((resolve) => {
      createOutbox({
        next: () => queue[0] ?? null,
        done: (_, result) => {
          results.push(result.kind);
          queue.shift();
          if (queue.length === 0) resolve();
        },
        reachable: (answersNow) => heard.push(answersNow),
        send: (pending) => {
          sent.push(pending.key);
          return Promise.resolve(answers.shift()!);
        },
        pause: () => Promise.resolve(),
      }).nudge();
    });
    expect(sent).toEqual(['a', 'b', 'b', 'b', 'c']);
    expect(results).toEqual(['sent', 'sent', 'refused']);
    expect(heard).toEqual([true, false, false, true, true]);
  });
});

test('errors speak the words of the server, or say that it does not answer', () => {
  expect(
    errorOf({
      status: 422,
      data: { error: { code: 'x', message: 'Name is empty.', fields: { name: 'Name is empty.' } } },
    }),
  ).toMatchObject({ fields: { name: 'Name is empty.' } });
  expect(errorOf({ status: 'FETCH_ERROR' })!.code).toBe('no-answer');
  expect(errorOf(undefined)).toBeNull();
});
