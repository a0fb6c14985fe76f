import { lookingDown, turnsAsSeen } from './seenFrom';

const knob = { id: 'a', x: 0, y: 0, pitch: 0.7, clockwise: 'lowers' } as const;

test('seen from below the sense turns over, and so does the turn that is shown', () => {
  expect(lookingDown([knob], 'above')).toEqual([knob]);
  expect(lookingDown([knob], 'below')).toEqual([{ ...knob, clockwise: 'raises' }]);
  expect(turnsAsSeen(0.25, 'above')).toBe(0.25);
  expect(turnsAsSeen(0.25, 'below')).toBe(-0.25);
  expect(Object.is(turnsAsSeen(0, 'below'), 0)).toBe(true);
});
