import { readAs } from '../ui/manner';
import { turnUnit, typedTurn } from './typedTurn';

afterEach(() => readAs(null));

test('eighths, as most hands count them; a comma is a point', () => {
  expect(turnUnit().name).toBe('eighths');
  expect(typedTurn('2')).toBe(0.25);
  expect(typedTurn('0,5')).toBe(0.0625);
});

test('degrees where the shop says turns so', () => {
  readAs({ units: 'mm', zone: 'UTC', numbers: 'point', turns: 'degrees' });
  expect(turnUnit().name).toBe('degrees');
  expect(typedTurn('90')).toBe(0.25);
});

test.each(['', 'many', '0', '-1', '81', 'NaN', '1e9', '<b>'])('“%s” is no turn', (text) =>
  expect(typedTurn(text)).toBeNull(),
);
