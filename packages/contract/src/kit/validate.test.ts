import Joi from 'joi';
import { areaWriteSchema, machineWriteSchema } from '../fleet/records';
import { roundWriteSchema } from '../level/records';
import { toldTime } from './fields';
import { validate } from './validate';

const ID = '0190a0a0-0000-7000-8000-000000000001';

/** A machine as the form sends it: numbers as typed. */
const machine = {
  name: 'Dunlin',
  areaId: ID,
  shelf: '',
  model: '225 bed-slinger',
  family: 'filament',
  plateWidth: '235',
  plateDepth: '9 1/4 in',
  printWidth: 220,
  printDepth: 220,
  originX: '7,5',
  originY: 7.5,
  adjusters: [{ id: 'a', name: 'front-left', x: '-10', y: 5, thread: 'M4', pitch: '0,7', clockwise: 'lowers' }],
  seenFrom: 'above',
  compensation: true,
  firstLayer: '0,2',
  aim: null,
  finding: 'contact-probe',
  plus: 'higher',
  mapExtent: null,
  mapFirstRow: null,
  console: null,
  note: '',
  version: 0,
  at: 1,
};

describe('validate', () => {
  test('lengths are taken as they are typed: decimal comma, inches, fractions', () => {
    const result = validate<typeof machine>(machineWriteSchema, machine);
    expect(result).toMatchObject({ ok: true, value: { plateDepth: 234.95, originX: 7.5, firstLayer: 0.2 } });
    expect(result.ok && result.value.adjusters[0]).toMatchObject({ x: -10, pitch: 0.7 });
  });

  test('every fault is named at its field, in words', () => {
    const bad = {
      ...machine,
      name: ' ',
      plateWidth: 'wide',
      firstLayer: 9,
      adjusters: [{ ...machine.adjusters[0], pitch: 0 }],
      extra: 1,
    };
    const result = validate(machineWriteSchema, bad);
    expect(result).toEqual({
      ok: false,
      fields: {
        name: 'Name is empty.',
        plateWidth: 'Width of the plate must be a length, such as 220, 0,2 or 8 1/2 in.',
        firstLayer: 'First layer must be at most 2 mm.',
        'adjusters.0.pitch': 'Pitch must be at least 0.1 mm.',
        extra: 'extra is not known here.',
      },
    });
  });

  test('the extent of a height map may not lie inside out', () => {
    const mapExtent = { x0: 10, y0: 10, x1: '5', y1: 200 };
    expect(validate(machineWriteSchema, { ...machine, mapExtent })).toEqual({
      ok: false,
      fields: { mapExtent: 'Extent of height maps: the last place must lie to the right of and behind the first.' },
    });
  });

  test('two adjusters of one id, an id that is none, a missing field', () => {
    const [first] = machine.adjusters;
    expect(validate(machineWriteSchema, { ...machine, adjusters: [first, first] })).toMatchObject({
      ok: false,
      fields: { 'adjusters.1': expect.any(String) },
    });
    expect(validate(machineWriteSchema, { ...machine, areaId: 'x' })).toMatchObject({
      fields: { areaId: 'Area is not an id.' },
    });
    expect(validate(areaWriteSchema, {})).toMatchObject({ fields: { name: 'Name of the area is missing.' } });
    expect(validate(roundWriteSchema, { seq: 0, takenAt: 1, source: 'rumour', raw: '', reading: {} })).toMatchObject({
      fields: { seq: 'Round must be at least 1.', source: expect.any(String), raw: 'The readings is empty.' },
    });
  });
});

test('a told time is no later than a day from the server’s clock; a form, which knows none, leaves it to the server', () => {
  const schema = Joi.object({ at: toldTime('Time').required() });
  const now = Date.UTC(2026, 10, 25);
  const at = (ms: number) => validate(schema, { at: now + ms }, { context: { now } });
  expect(at(86_400_000).ok).toBe(true);
  expect(at(86_400_001)).toEqual({
    ok: false,
    fields: { at: 'Time lies in the future: look at the clock of this device.' },
  });
  expect(validate(schema, { at: now + 1e10 }).ok).toBe(true);
  expect(validate(schema, { at: Date.UTC(2100, 0, 2) }, { context: { now: Date.UTC(2100, 0, 1) } }).ok).toBe(false);
});
