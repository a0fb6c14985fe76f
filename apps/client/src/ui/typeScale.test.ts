import { scaleOf } from './typeScale';

test.each([
  ['16px', 1],
  ['24px', 1.5],
  ['32px', 2],
  ['64px', 2],
  ['9px', 1],
  ['', 1],
])('a browser that writes at “%s”', (size, scale) => expect(scaleOf(size)).toBe(scale));
