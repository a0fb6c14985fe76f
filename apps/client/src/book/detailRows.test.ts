import { readAs } from '../ui/manner';
import { detailRows } from './detailRows';

beforeEach(() => readAs({ units: 'mm', zone: 'UTC', numbers: 'point' }));

test('an event is said without its kind, its time and ids', () => {
  const event = { kind: 'held', at: 1, hold: 'cure', until: Date.UTC(2026, 10, 27, 14, 10), reason: 'adhesive' };
  expect(detailRows({ event })).toEqual([
    ['hold', 'cure'],
    ['until', 'Fri 27 Nov, 14:10'],
    ['reason', 'adhesive'],
  ]);
  expect(detailRows({ event: { kind: 'mounted', at: 1, machineId: 'x', sideUp: 'B', turned: 180 } })).toEqual([
    ['side up', 'B'],
    ['turned', '180'],
  ]);
});

test('what changed is said field by field, and what a step said without its code', () => {
  expect(detailRows({ changed: { shelf: { from: 'A1', to: 'B2' } } })).toEqual([['shelf', 'A1 → B2']]);
  expect(detailRows({ jobId: 'x', said: { code: 'used', used: ['alcohol', 'wipes'] } })).toEqual([
    ['used', 'alcohol, wipes'],
  ]);
  expect(
    detailRows({ event: { kind: 'moved', at: 1, place: 'Rack 1' }, kindName: 'Textured', sides: ['a', 'b'] }),
  ).toEqual([
    ['kind name', 'Textured'],
    ['place', 'Rack 1'],
  ]);
});

test('old and new stand side by side, whole records by what differs in them', () => {
  expect(detailRows({ shelf: { from: 'A1', to: 'B2' }, note: { from: '', to: 'new springs' } })).toEqual([
    ['shelf', 'A1 → B2'],
    ['note', 'nothing → new springs'],
  ]);
  const from = { name: 'Glass', thickness: 4, care: { water: 'yes' }, version: 1 };
  expect(detailRows({ kindId: 'x', from, to: { ...from, thickness: 3.9, version: 2 } })).toEqual([
    ['thickness', '4 mm → 3.9 mm'],
  ]);
  expect(detailRows({ from: null, to: { name: 'Glass', sides: ['plain', 'plain'] } })).toEqual([
    ['name', 'Glass'],
    ['sides', 'plain, plain'],
  ]);
});

test('what is not there goes unsaid; numbers by name', () => {
  expect(detailRows({ printId: 'x', held: false, failure: null, numbers: { feeler: 0.05 } })).toEqual([
    ['held', 'no'],
    ['numbers', 'feeler 0.05 mm'],
  ]);
});

test('lengths and temperatures carry their unit, the shop’s own; counts carry none', () => {
  readAs({ units: 'in', zone: 'UTC', numbers: 'comma' });
  const changed = {
    plateWidth: { from: 200, to: 235 },
    hottest: { from: null, to: 100 },
    units: { from: 'mm', to: 'in' },
  };
  expect(detailRows({ changed, points: 9 })).toEqual([
    ['points', '9'],
    ['plate width', '7,874016 in → 9,251969 in'],
    ['hottest', 'nothing → 212 °F'],
    ['units', 'millimetres, °C → inches, °F'],
  ]);
});
