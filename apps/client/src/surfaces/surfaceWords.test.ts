import type { SurfaceState } from '@even-bed/core';
import { conditionWords, lifeWords, sideWords } from './surfaceWords';

const MINUTE = 60_000;

test('a hold says what is left and ends by itself', () => {
  const state: SurfaceState = {
    where: { kind: 'rack', place: '' },
    hold: { kind: 'cure', since: 0, until: 100 * MINUTE, reason: '' },
    awaiting: null,
    retired: null,
    changedAt: 0,
  };
  expect(conditionWords(state, 40 * MINUTE)).toEqual({ signal: 'hold', words: 'Curing, 1 h left' });
  expect(conditionWords(state, 100 * MINUTE)).toEqual({ signal: 'ready', words: 'In the rack' });
  expect(conditionWords({ ...state, retired: 'gouged' }, 0).signal).toBe('stop');
});

test('sides and lives in words', () => {
  expect(sideWords('B', { sides: ['rough', 'smooth'] })).toBe('side B, smooth');
  expect(sideWords('A', { sides: ['lacquered'] })).toBe('lacquered');
  const life = { unit: 'prints' as const, expected: 300, spread: 60, used: 0, left: 40.4, state: 'ready' as const };
  expect(lifeWords(life)).toBe('about 40 prints left of 300');
  expect(lifeWords({ ...life, left: -10, state: 'due' })).toContain('at its end');
  expect(lifeWords({ ...life, left: -100, state: 'over' })).toBe('past its 300 prints');
});
