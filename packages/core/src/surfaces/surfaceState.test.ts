import { applySurfaceEvent, replaySurface, surfaceCondition, type SurfaceEvent } from './surfaceState';

const HOUR = 3_600_000;
const added: SurfaceEvent = { kind: 'added', at: 0, place: 'Rack 1' };
const onKnot = (at: number): SurfaceEvent => ({
  kind: 'mounted',
  at,
  machineId: 'knot',
  slot: 'top',
  sideUp: 'A',
  turned: 0,
});
const cure = (at: number, hours: number): SurfaceEvent => ({
  kind: 'held',
  at,
  hold: 'cure',
  until: at + hours * HOUR,
  reason: '24 h cure',
});

test('a hold ends by itself, keeps the surface where it is meanwhile, and is cut only with a reason', () => {
  const state = replaySurface([added, cure(10, 24)])!;
  expect(surfaceCondition(state, 10)).toBe('on-hold');
  expect(surfaceCondition(state, 10 + 24 * HOUR - 1)).toBe('on-hold');
  expect(surfaceCondition(state, 10 + 24 * HOUR)).toBe('in-rack');
  expect(() => applySurfaceEvent(state, onKnot(20))).toThrow('on hold: 24 h cure');
  expect(() => applySurfaceEvent(state, { kind: 'hold-cut', at: 20, reason: ' ' })).toThrow('only with a reason');
  const cut = applySurfaceEvent(state, { kind: 'hold-cut', at: 20, reason: 'Needed on Monday' });
  expect(surfaceCondition(applySurfaceEvent(cut, onKnot(21)), 22)).toBe('in-use');
  expect(surfaceCondition(applySurfaceEvent(state, onKnot(10 + 24 * HOUR)), 10 + 25 * HOUR)).toBe('in-use');
  expect(() => applySurfaceEvent(state, cure(20, 1))).toThrow('lasts longer');
  expect(applySurfaceEvent(state, cure(20, 72)).hold!.until).toBe(20 + 72 * HOUR);
});

test('the weightiest condition is the one said: retired, held, awaiting work, in use, in the rack', () => {
  const events: SurfaceEvent[] = [
    added,
    onKnot(1),
    { kind: 'work-asked', at: 2, what: 'scrub side A' },
    cure(3, 1),
    { kind: 'retired', at: 4, why: 'gouged' },
  ];
  const conditions = events.map((_, i) => surfaceCondition(replaySurface(events.slice(0, i + 1))!, 5));
  expect(conditions).toEqual(['in-rack', 'in-use', 'awaiting-work', 'on-hold', 'retired']);
});

test.each<[string, SurfaceEvent[], SurfaceEvent, string]>([
  ['first something else', [], onKnot(1), 'not-added'],
  ['added twice', [added], { ...added, at: 1 }, 'added-twice'],
  ['mounted twice', [added, onKnot(1)], onKnot(2), 'on-machine'],
  ['moved while on a machine', [added, onKnot(1)], { kind: 'moved', at: 2, place: 'x' }, 'on-machine'],
  ['turned in the rack', [added], { kind: 'turned', at: 1, sideUp: 'B', turned: 0 }, 'not-on-machine'],
  ['turned to where it lies', [added, onKnot(1)], { kind: 'turned', at: 2, sideUp: 'A', turned: 0 }, 'no-change'],
  ['taken off while it cures', [added, onKnot(1), cure(2, 1)], { kind: 'taken-off', at: 3, place: '' }, 'on-hold'],
  ['a hold that ends before it begins', [added], { ...cure(5, 1), until: 5 } as SurfaceEvent, 'hold-too-short'],
  ['a hold that is not a number', [added], { ...cure(5, 1), until: Number.NaN } as SurfaceEvent, 'hold-too-short'],
  ['cutting no hold', [added], { kind: 'hold-cut', at: 1, reason: 'x' }, 'not-on-hold'],
  ['mounted when retired', [added, { kind: 'retired', at: 1, why: 'x' }], onKnot(2), 'retired'],
  ['brought back when in use', [added], { kind: 'brought-back', at: 1, why: 'x', place: '' }, 'not-retired'],
  ['before something written down', [{ ...added, at: 9 }], onKnot(8), 'out-of-order'],
])('refused: %s', (_, before, event, code) => {
  const state = replaySurface(before);
  expect(() => applySurfaceEvent(state, event)).toThrow(expect.objectContaining({ code }) as Error);
});
