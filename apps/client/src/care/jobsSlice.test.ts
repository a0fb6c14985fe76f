import type { Job } from '@even-bed/contract';
import { PROCEDURES } from '@even-bed/core/care/procedures';
import { doneWell } from '@even-bed/core/care/workWell.fixture';
import { jobBegun, jobEventRefused, jobSeen, jobsSlice, jobTakenOn, setupOf, stateOf } from './jobsSlice';

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
  procedure,
  choices: {},
  parts: {},
  stackBefore: [],
  events,
});
const { reducer } = jobsSlice;
type State = ReturnType<typeof reducer>;
const take = (state: State, id: string) => {
  const known = state.jobs['j']!;
  return reducer(state, jobTakenOn({ jobId: 'j', id, event: doneWell(setupOf(known.job), stateOf(known)) }));
};
const at = (state: State) => stateOf(state.jobs['j']!).at;

test('what is done here counts at once, and stays counted when the server has it', () => {
  const begun = reducer(undefined, jobBegun(job()));
  expect(at(begun)).toBe('off');
  const one = take(begun, 'e1');
  expect(at(one)).toBe('measure');
  const two = take(one, 'e2');
  const { event } = two.jobs['j']!.local[0]!;
  const seen = reducer(two, jobSeen(job([{ ...event, id: 'e1', personName: null }])));
  expect(seen.jobs['j']!.local.map(({ id }) => id)).toEqual(['e2']);
  expect(at(seen)).toBe(at(two));
});

test('what the server refuses did not happen, nor what was built on it', () => {
  const two = take(take(reducer(undefined, jobBegun(job())), 'e1'), 'e2');
  const back = reducer(two, jobEventRefused({ jobId: 'j', id: 'e1' }));
  expect(back.jobs['j']!.local).toEqual([]);
  expect(at(back)).toBe('off');
});

test('a step that another device did first is passed over until the server has said so', () => {
  const one = take(reducer(undefined, jobBegun(job())), 'mine');
  const { event } = one.jobs['j']!.local[0]!;
  const seen = reducer(one, jobSeen(job([{ ...event, id: 'theirs', personName: 'Otto' }])));
  expect(at(seen)).toBe('measure');
  expect(seen.jobs['j']!.local).toHaveLength(1);
});
