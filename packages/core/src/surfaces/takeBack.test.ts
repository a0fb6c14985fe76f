import fc from 'fast-check';
import { GROUPS } from './surfaceKind';
import { groupFacts } from './groups';
import { applySurfaceEvent, ImpossibleEvent, type SurfaceEvent, type SurfaceState } from './surfaceState';
import { afterAll as afterEvents, standsAs, takeBack } from './takeBack';

const NOW = 1_000_000;
const HOUR = 3_600_000;

const state: fc.Arbitrary<SurfaceState> = fc
  .record({
    where: fc.oneof(
      fc.record({ kind: fc.constant('rack' as const), place: fc.constantFrom('', 'Rack 1', 'Rack 2') }),
      fc.record({
        kind: fc.constant('machine' as const),
        machineId: fc.constantFrom('m1', 'm2'),
        slot: fc.constant('top' as const),
        sideUp: fc.constantFrom('A' as const, 'B' as const),
        turned: fc.constantFrom(0 as const, 180 as const),
      }),
    ),
    hold: fc.option(
      fc.record({
        kind: fc.constantFrom('cure' as const, 'dry' as const),
        since: fc.constant(0),
        until: fc.constantFrom(NOW - HOUR, NOW + HOUR, NOW + 9 * HOUR),
        reason: fc.constantFrom('', 'bonded'),
      }),
    ),
    awaiting: fc.option(fc.constantFrom('scrub', 'new film')),
    retired: fc.constant(null),
    changedAt: fc.constant(NOW),
  })
  // What is on hold on a machine can't be put back there as it lay, and never comes off there either.
  .filter(({ where, hold }) => where.kind === 'rack' || hold === null || hold.until < NOW);

const event: fc.Arbitrary<SurfaceEvent> = fc.oneof(
  fc.record({ kind: fc.constant('taken-off' as const), at: fc.constant(NOW), place: fc.constantFrom('', 'Rack 9') }),
  fc.record({ kind: fc.constant('moved' as const), at: fc.constant(NOW), place: fc.constantFrom('', 'Rack 9') }),
  fc.record({
    kind: fc.constant('mounted' as const),
    at: fc.constant(NOW),
    machineId: fc.constant('m3'),
    slot: fc.constant('top' as const),
    sideUp: fc.constant('B' as const),
    turned: fc.constant(180 as const),
  }),
  fc.record({
    kind: fc.constant('turned' as const),
    at: fc.constant(NOW),
    sideUp: fc.constantFrom('A' as const, 'B' as const),
    turned: fc.constantFrom(0 as const, 180 as const),
  }),
  fc.record({
    kind: fc.constant('held' as const),
    at: fc.constant(NOW),
    hold: fc.constant('cure' as const),
    until: fc.constantFrom(NOW + 1, NOW + 24 * HOUR),
    reason: fc.constant('24 h'),
  }),
  fc.constant<SurfaceEvent>({ kind: 'hold-cut', at: NOW, reason: 'needed' }),
  fc.constant<SurfaceEvent>({ kind: 'work-asked', at: NOW, what: 'wash' }),
  fc.constant<SurfaceEvent>({ kind: 'work-done', at: NOW, work: 'washed', side: null, note: '' }),
  fc.constant<SurfaceEvent>({ kind: 'retired', at: NOW, why: 'gouged' }),
);

const tried = (was: SurfaceState, told: SurfaceEvent): SurfaceState | null => {
  try {
    return applySurfaceEvent(was, told);
  } catch (error) {
    if (error instanceof ImpossibleEvent) return null;
    throw error;
  }
};

test('taken back, whatever can happen to a surface leaves it as it stood', () => {
  let taken = 0;
  fc.assert(
    fc.property(state, event, (was, told) => {
      const now = tried(was, told);
      if (now === null) return;
      const at = NOW + 60_000;
      const back = afterEvents(now, takeBack({ event: told, was }, now, at, 'a step undone'));
      expect(standsAs(was, back, at)).toBe(true);
      taken++;
    }),
    { seed: 7, numRuns: 3_000 },
  );
  expect(taken).toBeGreaterThan(1_000);
});

describe('what somebody changed since is not taken back', () => {
  const rack: SurfaceState = {
    where: { kind: 'rack', place: 'Rack 1' },
    hold: null,
    awaiting: null,
    retired: null,
    changedAt: 0,
  };
  const lying: SurfaceState = {
    ...rack,
    where: { kind: 'machine', machineId: 'm1', slot: 'top', sideUp: 'A', turned: 0 },
  };
  const events = {
    off: { kind: 'taken-off', at: 1, place: '' },
    on: { kind: 'mounted', at: 1, machineId: 'm1', slot: 'top', sideUp: 'A', turned: 0 },
    elsewhere: { kind: 'mounted', at: 3, machineId: 'm2', slot: 'top', sideUp: 'A', turned: 0 },
    moved: { kind: 'moved', at: 1, place: 'Rack 2' },
    movedOn: { kind: 'moved', at: 2, place: 'Rack 3' },
    turned: { kind: 'turned', at: 1, sideUp: 'B', turned: 0 },
    turnedOn: { kind: 'turned', at: 2, sideUp: 'A', turned: 180 },
    held: { kind: 'held', at: 1, hold: 'cure', until: 100, reason: '' },
    heldLonger: { kind: 'held', at: 2, hold: 'cure', until: 200, reason: '' },
    cut: { kind: 'hold-cut', at: 2, reason: 'needed' },
    asked: { kind: 'work-asked', at: 1, what: 'wash' },
    askedOther: { kind: 'work-asked', at: 2, what: 'scrub' },
    done: { kind: 'work-done', at: 1, work: 'washed', side: null, note: '' },
    retired: { kind: 'retired', at: 1, why: 'gouged' },
    back: { kind: 'brought-back', at: 2, why: 'a mistake', place: '' },
  } satisfies Record<string, SurfaceEvent>;
  type Name = keyof typeof events;

  test.each<[SurfaceState, Name, Name[], RegExp]>([
    [rack, 'on', ['off'], /elsewhere/],
    [rack, 'on', ['off', 'elsewhere'], /elsewhere/],
    [lying, 'off', ['elsewhere'], /put on a machine since/],
    [rack, 'moved', ['movedOn'], /elsewhere/],
    [rack, 'moved', ['elsewhere'], /elsewhere/],
    [lying, 'turned', ['turnedOn'], /otherwise/],
    [rack, 'held', ['heldLonger'], /hold was changed/],
    [rack, 'held', ['cut'], /hold was changed/],
    [rack, 'asked', ['askedOther'], /changed since/],
    [rack, 'done', ['askedOther'], /asked of it since/],
    [rack, 'retired', ['back'], /brought back since/],
  ])('%j, %s, then %j', (was, first, since, message) => {
    const later = since.map((name, i) => ({ ...events[name], at: 2 + i }));
    const now = afterEvents(applySurfaceEvent(was, events[first]), later);
    const undo = () => takeBack({ event: events[first], was }, now, 10, 'undone');
    expect(undo).toThrow(ImpossibleEvent);
    expect(undo).toThrow(message);
  });

  test('what no step writes is not taken back either', () => {
    for (const told of [{ kind: 'added', at: 1, place: '' }, events.back] as SurfaceEvent[])
      expect(() => takeBack({ event: told, was: rack }, rack, 2, 'undone')).toThrow('not taken back');
  });
});

test('a group of surfaces is one entry: all that is asked of one is there', () => {
  for (const group of GROUPS) {
    const facts = groupFacts(group);
    expect(facts.letter).toMatch(/^[A-Z]$/);
    expect([facts.one, facts.many]).not.toContain('');
  }
  expect(() => groupFacts('toString' as never)).toThrow(RangeError);
});
