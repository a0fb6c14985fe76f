import type { MachineOverview } from '@even-bed/contract';
import { benchBed, PLAIN_BED } from './benchBeds';

const knob = (id: string, x: number, y: number) => ({
  ...{ id, name: `the ${id}`, x, y, thread: 'M4', pitch: 0.7 },
  clockwise: 'lowers' as const,
});
const machine = {
  id: 'm',
  name: 'Dunlin',
  adjusters: [knob('a', 0, 0), knob('b', 200, 0), knob('c', 100, 200)],
  seenFrom: 'below',
  firstLayer: 0.2,
  compensation: true,
  aim: null,
  printWidth: 210,
  printDepth: 205,
} as unknown as MachineOverview;

test('a plain bed has three or four adjusters that turn as they are said to', () => {
  expect(benchBed(PLAIN_BED, []).adjusters).toHaveLength(4);
  const three = benchBed({ machineId: null, plain: '3', clockwise: 'raises' }, []);
  expect(three.adjusters.map(({ clockwise }) => clockwise)).toEqual(['raises', 'raises', 'raises']);
  expect(three.machine).toBeNull();
});

test('a machine’s own bed is seen looking down, with its names and its print area', () => {
  const bed = benchBed({ ...PLAIN_BED, machineId: 'm' }, [machine]);
  expect(bed.adjusters.map(({ clockwise }) => clockwise)).toEqual(['raises', 'raises', 'raises']);
  expect(bed.names).toEqual({ a: 'the a', b: 'the b', c: 'the c' });
  expect(bed.print).toEqual({ x: 0, y: 0, width: 210, depth: 205 });
});

test('a machine with two adjusters is no plain bed: nothing of it can be turned', () => {
  const two = { ...machine, adjusters: machine.adjusters.slice(1) };
  expect(benchBed({ ...PLAIN_BED, machineId: 'm' }, [two])).toMatchObject({ machine: { id: 'm' }, adjusters: [] });
  // One that is gone is nobody's.
  expect(benchBed({ ...PLAIN_BED, machineId: 'gone' }, [machine]).machine).toBeNull();
});
