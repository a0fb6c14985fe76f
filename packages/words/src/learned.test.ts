import { learnedWords, pitchShareWords } from './learned';

const likely = { 'as-said': 0.05, 'other-thread': 0.95, stuck: 0, reversed: 0 };
const said = (more: object) =>
  learnedWords({ id: 'a', likely, way: 'other-thread', share: 0.7, uncertainty: 0.04, ...more }, 'Front left');

test('each way is said, with how far off and how sure', () => {
  expect(said({})).toBe(
    'Front left moves about 30 % less than its thread says, give or take 4 %: another thread, or it sticks or slips a little.',
  );
  expect(said({ share: 1.4 })).toContain('40 % more');
  expect(said({ way: 'stuck' })).toContain('hardly moves');
  expect(said({ way: 'reversed' })).toContain('the other way round');
  expect(said({ way: 'as-said' })).toBe('Front left does what its thread says.');
  expect(said({ way: null })).toContain('95 % likely');
  expect(said({ way: null, likely: { ...likely, 'as-said': 0.8 } })).toContain('seems to');
});

test('what a plan takes otherwise is said in a few words', () => {
  expect(pitchShareWords(0.7, 'front-left')).toBe('front-left moves 30 % less');
  expect(pitchShareWords(1.4, 'front-left')).toBe('front-left moves 40 % more');
  expect(pitchShareWords(-1, 'front-left')).toBe('front-left turns the other way round');
  expect(pitchShareWords(-0.8, 'front-left')).toBe('front-left turns the other way round, and moves 20 % less');
});
