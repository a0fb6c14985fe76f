import 'fake-indexeddb/auto';
import { wearOperations } from '@even-bed/contract/wear/operations';
import { waitingFor, type Waiting } from './waiting';
import {
  goesOn,
  keptOrNot,
  parkedOf,
  selectWaitingCount,
  waitingGone,
  waitingPut,
  waitingRead,
  waitingSlice,
} from './waitingSlice';
import { WaitingStore } from './waitingStore';

const facts = {
  machineId: 'm',
  material: '',
  endedAt: 1,
  duration: null,
  grams: null,
  held: true,
  failure: null,
  release: null,
  note: '',
};
const print = (key: string): Waiting =>
  waitingFor(wearOperations.logPrint, { params: { id: key }, body: facts, key, what: 'a print' });

const stores: WaitingStore[] = [];
const open = () => {
  const store = new WaitingStore();
  stores.push(store);
  return store;
};
afterEach(async () => {
  for (const store of stores.splice(0)) await store.close();
});

test('an operation knows its address, its record and what it makes old', () => {
  expect(print('p 1')).toMatchObject({
    operation: 'logPrint',
    method: 'put',
    path: '/prints/p%201',
    of: 'wear:p 1',
    touches: ['Print', 'Surface', 'Book'],
  });
  const orders = [print('a'), print('b'), print('c')].map(({ order }) => order);
  expect([...orders].sort((p, q) => p - q)).toEqual(orders);
  expect(new Set(orders).size).toBe(3);
});

test('what is kept is there for the next page, once however often it is put, until it is let go of', async () => {
  const store = open();
  expect(await store.put(print('a'))).toBe('kept');
  await store.put({ ...print('a'), tries: 2 });
  await store.put(print('b'));
  const again = open();
  expect((await again.all()).map(({ key, tries }) => [key, tries])).toEqual([
    ['a', 2],
    ['b', 0],
  ]);
  await store.remove('a');
  await store.remove('b');
  await store.remove('never there');
  expect(await again.all()).toEqual([]);
});

test('what is read while one is being kept, or let go of, knows it already', async () => {
  const store = open();
  await store.put(print('old'));
  // Asked before, answered after.
  const reading = store.all();
  const keeping = store.put(print('new'));
  const removing = store.remove('old');
  expect((await reading).map(({ key }) => key)).toEqual(['new']);
  await Promise.all([keeping, removing]);
  expect((await open().all()).map(({ key }) => key)).toEqual(['new']);
  await store.put(print('old'));
  expect((await store.all()).map(({ key }) => key).sort()).toEqual(['new', 'old']);
  for (const key of ['new', 'old']) await store.remove(key);
});

test.each([
  ['QuotaExceededError', 'full'],
  ['InvalidStateError', 'gone'],
])('%s: it says that it is not kept (%s)', async (name, keeping) => {
  const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw Object.assign(new Error('no'), { name });
  });
  expect(await open().put(print('a'))).toBe(keeping);
  put.mockRestore();
});

describe('what this page knows', () => {
  const { reducer } = waitingSlice;
  type State = ReturnType<typeof reducer>;
  const play = (...actions: Parameters<typeof reducer>[1][]): State =>
    actions.reduce<State>(reducer, undefined as never);
  const parked = { kind: 'refused' as const, reason: 'No.', at: 1 };

  test('stands in the order in which it was done, whatever order it comes in', () => {
    const [a, b, c] = [print('a'), print('b'), print('c')];
    expect(play(waitingPut(c!), waitingPut(a!), waitingPut(b!), waitingPut(a!)).list.map(({ key }) => key)).toEqual([
      'a',
      'b',
      'c',
    ]);
  });

  test('what could not be kept stays here when the kept ones are read anew, and is told until it is kept', () => {
    const [a, b] = [print('a'), print('b')];
    const full = play(
      waitingPut(a),
      waitingPut(b),
      keptOrNot({ key: 'a', keeping: 'kept' }),
      keptOrNot({ key: 'b', keeping: 'full' }),
    );
    expect([full.unkept, full.keeping]).toEqual([['b'], 'full']);
    expect(reducer(full, waitingRead([a])).list.map(({ key }) => key)).toEqual(['a', 'b']);
    const kept = reducer(full, keptOrNot({ key: 'b', keeping: 'kept' }));
    expect([kept.unkept, kept.keeping]).toEqual([[], 'kept']);
    expect(reducer(kept, waitingRead([a])).list.map(({ key }) => key)).toEqual(['a']);
    expect(reducer(full, waitingGone('b')).unkept).toEqual([]);
  });

  test('of a record, what is parked stops what came after it, and nothing else', () => {
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((key) => ({ ...print(key), of: key === 'd' ? 'x' : 'r' }));
    const list = [a!, { ...b!, parked }, c!, d!];
    expect(goesOn(list, 'r').map(({ key }) => key)).toEqual(['a']);
    expect(goesOn(list, 'x').map(({ key }) => key)).toEqual(['d']);
    expect(parkedOf(list, 'r')?.key).toBe('b');
    expect(parkedOf(list, 'x')).toBeNull();
    expect(selectWaitingCount({ waiting: { list, unkept: [], keeping: 'kept', typedKept: true, answers: true } })).toBe(
      3,
    );
  });
});
