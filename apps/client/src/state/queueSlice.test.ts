import { queuedOwned, queuedRefused, queuedSent, queuedTriedAgain, queueSlice, writeQueued } from './queueSlice';

const { reducer } = queueSlice;
const print = (key: string) => writeQueued({ key, path: `/prints/${key}`, body: {}, what: 'a print' });

test('a write waits once under its key, keeps who made it and what was said of it, and goes when it is sent', () => {
  let state = reducer(undefined, print('a'));
  state = reducer(state, print('a'));
  state = reducer(state, queuedOwned('ina'));
  state = reducer(state, print('b'));
  state = reducer(state, queuedOwned('ossie'));
  expect(state.writes.map(({ key, personId }) => [key, personId])).toEqual([
    ['a', 'ina'],
    ['b', 'ossie'],
  ]);
  state = reducer(state, queuedRefused({ key: 'a', message: 'No.' }));
  expect(state.writes[0]!.refusal).toBe('No.');
  state = reducer(state, queuedTriedAgain('a'));
  expect(state.writes[0]!.refusal).toBeNull();
  state = reducer(state, queuedSent('a'));
  expect(state.writes.map(({ key }) => key)).toEqual(['b']);
});
