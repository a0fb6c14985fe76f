import { machineFactsSchema, validate, type MachineOverview } from '@even-bed/contract';
import { adjusterPattern, EMPTY_FORM, factsOf, formOf, type MachineForm } from './machineForm';
import { centredMargin } from './centredMargin';
import { newDraft } from '../level/newDraft';
import { machineState, matchesSearch } from './machineState';

const AREA = '0190a0a0-0000-7000-8000-000000000001';
const form: MachineForm = {
  ...EMPTY_FORM,
  name: 'Dunlin',
  model: '225',
  areaId: AREA,
  adjusters: adjusterPattern('four', 220, 220),
};
const facts = (change: Partial<MachineForm> = {}) =>
  validate<MachineOverview>(machineFactsSchema, factsOf({ ...form, ...change }, centredMargin));

describe('the machine form', () => {
  test('gives facts that the contract takes, with centred margins and pitches from the thread', () => {
    const result = facts({ firstLayer: '0,24' });
    expect(result).toMatchObject({
      ok: true,
      value: { originX: 7.5, originY: 7.5, firstLayer: 0.24, aim: null, mapExtent: null, console: null },
    });
    expect(result.ok && result.value.adjusters[0]).toMatchObject({ thread: 'M4', pitch: 0.7, x: 15 });
  });

  test('comes back as it was from the facts', () => {
    const result = facts({
      hasConsole: 'yes',
      host: '127.0.0.1',
      port: '4300',
      mapX0: '1',
      mapY0: '2',
      mapX1: '30',
      mapY1: '40',
      aim: '0.07',
    });
    if (!result.ok) throw new Error(JSON.stringify(result.fields));
    const again = factsOf(formOf({ ...result.value, id: 'x', version: 1 } as MachineOverview), centredMargin);
    expect(validate(machineFactsSchema, again)).toEqual(result);
  });

  test.each<[Partial<MachineForm>, string]>([
    [{ plateWidth: 'wide' }, 'plateWidth'],
    [{ hasConsole: 'yes', host: '', port: 'x' }, 'console.port'],
    [{ mapX0: '1' }, 'mapExtent.y0'],
    [{ aim: '-1' }, 'aim'],
  ])('%j is refused at %s', (change, field) => {
    const result = facts(change);
    expect(result.ok ? [] : Object.keys(result.fields)).toContain(field);
  });

  test.each(['four', 'three-rear', 'three-front', 'none'] as const)('pattern %s', (pattern) => {
    const list = adjusterPattern(pattern, 200, 100);
    expect(list).toHaveLength({ four: 4, 'three-rear': 3, 'three-front': 3, none: 0 }[pattern]);
    expect(new Set(list.map(({ id }) => id)).size).toBe(list.length);
  });
});

const result = facts();
const machine = {
  ...(result.ok ? result.value : ({} as MachineOverview)),
  id: 'm',
  version: 1,
  areaName: 'Long Room',
  rule: { id: 'r', everyDays: 14, nextDueAt: 1000, version: 1 },
  lastCheck: null,
  openCheckId: null,
  heldUntil: null,
  stands: {
    ...{ heldUntil: null, checking: false, job: null, followed: false, top: false, zero: null, asked: null },
    ...{ prints: { of: 0, failed: 0, lastThree: 0 }, rule: { everyDays: 14, nextDueAt: 1000 }, left: null },
  },
} as unknown as MachineOverview;

test('a draft rests on the facts: aim from the first layer, senses looking down', () => {
  const draft = newDraft({ ...machine, seenFrom: 'below' }, 'd', null, 5);
  expect(draft.setup).toMatchObject({ aim: 0.1, seenFrom: 'below' });
  expect(draft.setup.adjusters[0]).toMatchObject({ id: 'front-left', clockwise: 'raises' });
  expect(draft.entry.way).toBe('typed');
});

test('states and search', () => {
  expect(machineState(machine, 999, false)).toMatchObject({ signal: 'ready', words: 'Ready' });
  expect(machineState(machine, 1000 + 2 * 86_400_000, false)).toMatchObject({
    signal: 'due',
    words: 'Level 2 days late',
  });
  // As an older app kept it.
  expect(machineState({}, 1000, false)).toMatchObject({ signal: 'ready' });
  expect(machineState(machine, 2000, true).signal).toBe('hold');
  expect(matchesSearch(machine, 'dun long')).toBe(true);
  expect(matchesSearch(machine, 'dunx')).toBe(false);
});
