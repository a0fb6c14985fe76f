import { Turns } from './turns';

/** Doings that end when they are told to, and what began in which order. */
function hall(bounds: { atOnce: number; each: number; waitingEach: number }) {
  const turns = new Turns(bounds);
  const begun: string[] = [];
  const ends = new Map<string, () => void>();
  const ask = (who: string, what: string, signal?: AbortSignal) =>
    turns.run(
      who,
      () => {
        begun.push(what);
        return new Promise<void>((resolve) => ends.set(what, resolve));
      },
      signal,
    );
  const settle = () => new Promise((resolve) => setImmediate(resolve));
  const end = async (what: string) => {
    ends.get(what)!();
    await settle();
  };
  return { turns, begun, ask, end, settle };
}

test('callers by turns, each caller’s in their order', async () => {
  const { begun, ask, end, settle } = hall({ atOnce: 1, each: 1, waitingEach: 10 });
  for (const what of ['a1', 'a2', 'a3']) void ask('a', what);
  void ask('b', 'b1');
  await settle();
  expect(begun).toEqual(['a1']);
  await end('a1');
  expect(begun).toEqual(['a1', 'b1']);
  await end('b1');
  await end('a2');
  expect(begun).toEqual(['a1', 'b1', 'a2', 'a3']);
});

test('one takes no more than a share, however much there is room', async () => {
  const { begun, ask, end, settle } = hall({ atOnce: 4, each: 2, waitingEach: 10 });
  for (const what of ['a1', 'a2', 'a3', 'a4']) void ask('a', what);
  for (const what of ['b1', 'b2', 'b3']) void ask('b', what);
  void ask('c', 'c1');
  await settle();
  expect(begun).toEqual(['a1', 'a2', 'b1', 'b2']);
  await end('b1');
  // c waited less than b's next.
  expect(begun.at(-1)).toBe('c1');
});

test('past so many of theirs who asks is told so; others still get in', async () => {
  const { begun, ask, settle } = hall({ atOnce: 2, each: 1, waitingEach: 2 });
  for (const what of ['a1', 'a2', 'a3']) void ask('a', what);
  await expect(ask('a', 'a4')).rejects.toMatchObject({ status: 429, code: 'busy' });
  void ask('b', 'b1');
  await settle();
  expect(begun).toEqual(['a1', 'b1']);
});

test('who has gone leaves the line, and what fails gives its turn back', async () => {
  const { turns, begun, ask, end, settle } = hall({ atOnce: 1, each: 1, waitingEach: 5 });
  void ask('a', 'a1');
  const leaving = new AbortController();
  const left = ask('a', 'a2', leaving.signal);
  void ask('a', 'a3');
  leaving.abort();
  await expect(left).rejects.toMatchObject({ status: 499 });
  await end('a1');
  expect(begun).toEqual(['a1', 'a3']);
  await end('a3');
  await expect(turns.run('a', () => Promise.reject(new Error('it broke')))).rejects.toThrow('it broke');
  const again = await turns.take('b');
  again();
  again();
  await settle();
  void ask('a', 'a4');
  void ask('b', 'b1');
  await settle();
  expect(begun).toEqual(['a1', 'a3', 'a4']);
  await expect(ask('c', 'c1', AbortSignal.abort())).rejects.toMatchObject({ status: 499 });
});
