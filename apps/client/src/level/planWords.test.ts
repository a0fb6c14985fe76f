import { answerWords, planHeadline, turnWords, whatStays } from './planWords';

test.each([
  [{ verdict: 'within' as const, order: [] }, 'Within the aim'],
  [{ verdict: 'reaches' as const, order: ['a'] }, 'One turn will do it'],
  [{ verdict: 'reaches' as const, order: ['a', 'b', 'c'] }, 'Three turns will do it'],
  [{ verdict: 'short' as const, order: ['a', 'b'] }, 'Two turns help, not all the way'],
  [{ verdict: 'short' as const, order: [] }, 'Turns can’t help further'],
])('%j', (plan, title) => expect(planHeadline(plan)).toBe(title));

test('from below the words turn over', () => {
  expect(turnWords(0.25, 'above')).toBe('a quarter turn clockwise');
  expect(turnWords(0.25, 'below')).toBe('a quarter turn anticlockwise');
});

test('what stays names its cause', () => {
  const spread = { range: 0.123, rms: 0.03 };
  const say = (limit: 'tilt' | 'shape' | 'noise') =>
    whatStays({ limit, after: spread, ideal: spread, verdict: 'short' });
  expect(say('shape')).toContain('never shape');
  expect(say('tilt')).toContain('finer than a hand');
  expect(say('noise')).toContain('differ by themselves');
});

test('an answer that is as said needs no words; a reversed one says both causes', () => {
  const comparison = { followed: 1, before: 0.3, now: 0.6, worse: true, about: ['fl'], noise: 0.01 };
  expect(answerWords({ ...comparison, answer: 'as-said' })).toBeNull();
  expect(answerWords({ ...comparison, answer: 'small' })).toBeNull();
  expect(answerWords({ ...comparison, answer: 'reversed' })!.title).toBe('It got worse: 0.30 to 0.60 mm');
  expect(answerWords({ ...comparison, answer: 'unmoved' })!.text).toContain('Were the turns made');
  expect(answerWords({ ...comparison, answer: 'off' })!.text).toContain('mixed up');
  const named = (answer: 'one-reversed' | 'left-out' | 'swapped') =>
    answerWords({ ...comparison, answer }, () => 'Front-left')!.title;
  expect(named('one-reversed')).toBe('Front-left moved the other way');
  expect(named('left-out')).toBe('Front-left did not move');
  expect(answerWords({ ...comparison, answer: 'unsure' })!.text).toContain('would tell');
});
