import type { Person, SessionState } from '@even-bed/contract';
import { deviceLocked, nameForgotten, peopleSlice, sessionKnown, signedIn } from './peopleSlice';

const { reducer } = peopleSlice;
const person = (name: string): Person => ({
  id: name,
  name,
  role: 'technician',
  secretKind: 'pin',
  active: true,
  lockedUntil: null,
  version: 1,
});
const session = (state: SessionState['state'], who: string | null, shared = false): SessionState => ({
  state,
  person: who === null ? null : person(who),
  shared,
  sessionId: 's',
  manner: null,
  demo: null,
});
const empty = reducer(undefined, { type: 'start' });

test('a device that locked itself stays locked until somebody signs in, whatever the server last said', () => {
  let state = reducer(empty, signedIn(session('signed-in', 'Ina', true)));
  state = reducer(state, deviceLocked());
  state = reducer(state, sessionKnown(session('signed-in', 'Ina', true)));
  expect(state).toMatchObject({ lockedHere: true, shared: true, person: { name: 'Ina' } });
  state = reducer(state, signedIn(session('signed-in', 'Ossie', true)));
  expect(state).toMatchObject({ lockedHere: false, person: { name: 'Ossie' } });
});

test('the server locks it too; signing out forgets the person but not the names', () => {
  let state = reducer(empty, signedIn(session('signed-in', 'Ina')));
  state = reducer(state, sessionKnown(session('locked', 'Ina')));
  expect(state.lockedHere).toBe(true);
  state = reducer(state, sessionKnown(session('signed-out', null)));
  expect(state).toMatchObject({ person: null, lockedHere: false, names: ['Ina'] });
});

test('names stand with the last used first, each once, at most eight', () => {
  let state = empty;
  for (const name of ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i', 'c'])
    state = reducer(state, signedIn(session('signed-in', name)));
  expect(state.names).toEqual(['c', 'i', 'h', 'g', 'f', 'e', 'd', 'b']);
  expect(reducer(state, nameForgotten('h')).names).not.toContain('h');
});
