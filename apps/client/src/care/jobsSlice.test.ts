import { jobOperations } from '@even-bed/contract/care/jobOperations';
import type { RunEvent } from '@even-bed/core/care/runProcedure';
import type { Job } from '@even-bed/contract';
import { PROCEDURES } from '@even-bed/core/care/procedures';
import { doneWell } from '@even-bed/core/care/workWell.fixture';
import { waitingFor, type Waiting } from '../offline/waiting';
import { jobBegun, jobEventSent, jobForgotten, jobSeen, jobsSlice, localEvents, setupOf, stateOf } from './jobsSlice';

const procedure = PROCEDURES.find(({ id }) => id === 'under-bed-check')!;
const job = (events: Job['events'] = []): Job => ({
  id: 'j',
  title: procedure.title,
  machineId: 'm',
  machineName: 'Avocet',
  startedAt: 1000,
  holderName: null,
  stepTitle: null,
  enteredAt: 1000,
  waitUntil: null,
  ended: null,
  endedAt: null,
  step: 1,
  steps: 9,
  together: null,
  procedure,
  choices: {},
  parts: {},
  stackBefore: [],
  events,
});
const { reducer } = jobsSlice;
type State = ReturnType<typeof reducer>;

let waiting: Waiting[] = [];
beforeEach(() => (waiting = []));
const here = (state: State) => state.jobs['j']!;
const now = (state: State) => stateOf(here(state), localEvents(here(state), waiting));
const at = (state: State) => now(state).at;
/** The next step done here: it waits for the server. */
function take(state: State, id: string): RunEvent {
  const event = doneWell(setupOf(here(state)), now(state));
  const said = { params: { id: 'j', eventId: id }, body: { event }, key: id, what: 'a step' };
  waiting.push(waitingFor(jobOperations.takeJobOn, said));
  return event;
}
const parked = { kind: 'refused' as const, reason: 'No.', at: 1 };

test('what is done here counts at once, once, and stays counted when the server has it', () => {
  const begun = reducer(undefined, jobBegun(job()));
  expect(at(begun)).toBe('off');
  const first = take(begun, 'e1');
  expect(at(begun)).toBe('measure');
  take(begun, 'e2');
  const there = at(begun);
  const seen = reducer(begun, jobSeen(job([{ ...first, id: 'e1', personName: null }])));
  expect(localEvents(here(seen), waiting)).toHaveLength(1);
  expect(at(seen)).toBe(there);
});

test('what was sent counts before the server’s copy comes, and an older copy on its way takes nothing back', () => {
  const begun = reducer(undefined, jobBegun(job()));
  const event = take(begun, 'e1');
  const sent = reducer(begun, jobEventSent({ jobId: 'j', id: 'e1', event }));
  waiting = [];
  expect(at(sent)).toBe('measure');
  expect(at(reducer(sent, jobSeen(job())))).toBe('measure');
  expect(reducer(sent, jobEventSent({ jobId: 'j', id: 'e1', event })).jobs['j']!.events).toHaveLength(1);
});

test('what the server refuses did not happen, nor what was built on it', () => {
  const begun = reducer(undefined, jobBegun(job()));
  take(begun, 'e1');
  take(begun, 'e2');
  waiting[0] = { ...waiting[0]!, parked };
  expect(localEvents(here(begun), waiting)).toEqual([]);
  expect(at(begun)).toBe('off');
});

test('a step that another device did first is passed over until the server has said so', () => {
  const begun = reducer(undefined, jobBegun(job()));
  const event = take(begun, 'mine');
  const seen = reducer(begun, jobSeen(job([{ ...event, id: 'theirs', personName: 'Otto' }])));
  expect(at(seen)).toBe('measure');
  expect(localEvents(here(seen), waiting)).toHaveLength(1);
});

test('a job that was begun here is forgotten when it is let go of', () => {
  expect(reducer(reducer(undefined, jobBegun(job())), jobForgotten('j')).jobs).toEqual({});
});
