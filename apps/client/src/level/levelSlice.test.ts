import { levelWaits } from './levelWaits';
import {
  checkBegun,
  checkEnded,
  draftChangedElsewhere,
  entryChanged,
  heightsTaken,
  levelSlice,
  partKeys,
  partSent,
  turnsMade,
  turnTicked,
  type CheckDraft,
  type LevelState,
} from './levelSlice';

const draft: CheckDraft = {
  id: 'c1',
  machineId: 'm1',
  machineName: 'Dunlin',
  areaName: 'Long Room',
  startedAt: 1,
  setup: { adjusters: [], seenFrom: 'above', aim: 0.1, printWidth: 200, printDepth: 200 },
  adjusterNames: {},
  plate: { width: 220, depth: 220, originX: 10, originY: 10, printWidth: 200, printDepth: 200 },
  hasConsole: false,
  stage: 'reading',
  entry: {
    way: 'typed',
    text: 't',
    fileName: '',
    typed: {
      xs: [0, 1],
      ys: [0, 1],
      cells: [
        ['1', '2'],
        ['3', '4'],
      ],
    },
    scanId: null,
    reading: {},
  },
  rounds: [],
  note: '',
  end: null,
  sent: [],
  personId: null,
};
const { reducer } = levelSlice;
const taken = (id: string) =>
  heightsTaken({
    id: 'c1',
    round: { id, takenAt: 5, source: 'typed', raw: 'raw', range: 0.1, reading: { plus: 'lower' } },
  });
const play = (...actions: Parameters<typeof reducer>[1][]): LevelState =>
  actions.reduce(reducer, { drafts: {} } as LevelState);
const keys = (state: LevelState) => levelWaits(state.drafts['c1']!).map(({ key }) => key);

describe('a check on the device', () => {
  test('sends nothing before its first reading', () => {
    expect(keys(play(checkBegun(draft)))).toEqual([]);
  });

  test('owes the server start, readings, turns and end, in that order', () => {
    const state = play(
      checkBegun(draft),
      taken('r1'),
      turnTicked({ id: 'c1', adjusterId: 'a' }),
      turnsMade({ id: 'c1', made: [{ adjusterId: 'a', turns: 0.25 }], madeAt: 6 }),
      taken('r2'),
      checkEnded({ id: 'c1', end: { endedAt: 9, outcome: 'finished', note: '' } }),
    );
    expect(keys(state)).toEqual(['c1-start', 'r1-read', 'r1-turns', 'r2-read', 'c1-end']);
  });

  test('what is acknowledged is owed no more, and the end takes the draft away', () => {
    let state = play(
      checkBegun(draft),
      taken('r1'),
      partSent({ id: 'c1', key: partKeys.start('c1') }),
      partSent({ id: 'c1', key: partKeys.round('r1') }),
      partSent({ id: 'c1', key: partKeys.round('r1') }),
    );
    expect(keys(state)).toEqual([]);
    expect(state.drafts['c1']!.sent).toHaveLength(2);
    state = reducer(state, checkEnded({ id: 'c1', end: { endedAt: 9, outcome: 'finished', note: '' } }));
    expect(keys(state)).toEqual(['c1-end']);
    expect(reducer(state, partSent({ id: 'c1', key: partKeys.end('c1') })).drafts).toEqual({});
  });

  test('all parts are of one record, go to their addresses, and name the check to people', () => {
    const state = play(
      checkBegun(draft),
      taken('r1'),
      turnsMade({ id: 'c1', made: [{ adjusterId: 'a', turns: 1 }], madeAt: 6 }),
    );
    const parts = levelWaits(state.drafts['c1']!);
    expect(parts.map(({ of }) => of)).toEqual(Array(3).fill('level:c1'));
    expect(parts.map(({ path }) => path)).toEqual([
      '/level-checks/c1',
      '/level-checks/c1/rounds/r1',
      '/level-checks/c1/rounds/r1/turns',
    ]);
    expect(parts[0]).toMatchObject({ what: 'Dunlin: level check', at: '/level/c1', method: 'put' });
    expect(parts[1]!.body).toEqual({ seq: 1, takenAt: 5, source: 'typed', raw: 'raw', reading: { plus: 'lower' } });
  });

  test('a new reading closes the round before, clears the entry and remembers how to read', () => {
    const { rounds, entry, stage } = play(checkBegun(draft), taken('r1'), taken('r2')).drafts['c1']!;
    expect(rounds.map(({ seq, made }) => [seq, made])).toEqual([
      [1, []],
      [2, null],
    ]);
    expect(entry).toMatchObject({
      text: '',
      reading: { plus: 'lower' },
      typed: {
        cells: [
          ['', ''],
          ['', ''],
        ],
      },
    });
    expect(stage).toBe('turning');
  });

  test('turns are noted once, ticks turn over, and an ended check takes no more', () => {
    const made = turnsMade({ id: 'c1', made: [], madeAt: 6 });
    const again = turnsMade({ id: 'c1', made: [{ adjusterId: 'a', turns: 1 }], madeAt: 7 });
    expect(play(checkBegun(draft), taken('r1'), made, again).drafts['c1']!.rounds[0]!.made).toEqual([]);
    const tick = turnTicked({ id: 'c1', adjusterId: 'a' });
    expect(play(checkBegun(draft), taken('r1'), tick, tick).drafts['c1']!.rounds[0]!.ticked).toEqual([]);
    const end = checkEnded({ id: 'c1', end: { endedAt: 9, outcome: 'dropped', note: '' } });
    expect(play(checkBegun(draft), taken('r1'), end, taken('r2')).drafts['c1']!.rounds).toHaveLength(1);
    expect(play(checkBegun(draft), end).drafts).toEqual({});
  });

  test('another tab has the last word', () => {
    const other = { ...draft, note: 'from the other tab' };
    expect(play(checkBegun(draft), draftChangedElsewhere({ id: 'c1', draft: other })).drafts['c1']!.note).toBe(
      'from the other tab',
    );
    expect(play(checkBegun(draft), draftChangedElsewhere({ id: 'c1', draft: null })).drafts).toEqual({});
  });
});

test('an answer to a question of the text goes when the text changes, and stays while it does not', () => {
  const reduce = levelSlice.reducer;
  const begun = reduce(undefined, checkBegun(draft));
  const answered = reduce(
    begun,
    entryChanged({ id: draft.id, change: { text: 'one', reading: { plus: 'lower', answers: { map: '1' } } } }),
  );
  const same = reduce(answered, entryChanged({ id: draft.id, change: { text: 'one' } }));
  expect(same.drafts[draft.id]!.entry.reading).toEqual({ plus: 'lower', answers: { map: '1' } });
  const other = reduce(same, entryChanged({ id: draft.id, change: { text: 'two' } }));
  expect(other.drafts[draft.id]!.entry.reading).toEqual({ plus: 'lower' });
});
