import type { Reader } from './figures';
import { skirtWords } from './skirt';

const HOUSE: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };
const INCHES: Reader = { units: 'in', zone: 'UTC', numbers: 'comma' };

test('a turn is said as the technician sees it, with what it does', () => {
  const turn = { do: 'turn', adjuster: 'fl', turns: -1 / 16, raises: true } as const;
  expect(skirtWords(turn, 'Front left', 'above', HOUSE)).toBe(
    'Front left: a sixteenth turn anticlockwise, looking down; raises',
  );
  expect(skirtWords(turn, 'Front left', 'below', HOUSE)).toBe(
    'Front left: a sixteenth turn clockwise, looking up from below; raises',
  );
});

test('an offset says which way the nozzle goes, in the reader’s units', () => {
  expect(skirtWords({ do: 'offset', by: 0.05 }, '', 'above', HOUSE)).toBe('Offset 0.05 mm farther, the nozzle higher.');
  expect(skirtWords({ do: 'offset', by: -0.0254 }, '', 'above', INCHES)).toBe(
    'Offset 0,001 in nearer, the nozzle lower.',
  );
});

test('its ends say what to do then', () => {
  expect(skirtWords({ do: 'done' }, '', 'above', HOUSE)).toMatch(/leave it/);
  expect(skirtWords({ do: 'level', why: 'across' }, '', 'above', HOUSE)).toMatch(/shape/);
  expect(skirtWords({ do: 'level', why: 'rounds' }, '', 'above', HOUSE)).toMatch(/check the level/);
});
