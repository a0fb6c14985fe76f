import { feelFindingWords, feelStopWords, feelTurnWords, gaugeWords } from './feel';

const mm = { units: 'mm', numbers: 'point', zone: 'UTC' } as const;

test('a turn is said as it is seen, with what it does', () => {
  expect(feelTurnWords({ turns: 0.125, raises: true }, 'above', mm)).toBe(
    'an eighth turn clockwise, looking down; raises',
  );
  expect(feelTurnWords({ turns: 0.125, raises: true }, 'below', mm)).toBe(
    'an eighth turn anticlockwise, looking up from below; raises',
  );
});

test('the gauge is part of the result', () => {
  expect(gaugeWords({ thickness: 0.21, higher: 0.11, turns: null }, mm)).toBe(
    'Levelled with 0.21 mm: the nozzle stands 0.11 mm higher than a common sheet leaves it. That is an offset of −0.11 mm.',
  );
  expect(gaugeWords({ thickness: 0.1, higher: 0, turns: null }, mm)).toContain('as a common sheet');
  expect(gaugeWords({ thickness: 0.05, higher: -0.05, turns: null }, mm)).toContain('0.05 mm lower');
});

test('what stands out is named', () => {
  expect(feelFindingWords({ code: 'moves-less', adjuster: 'a', share: 0.7 }, 'Front left')).toMatch(
    /^Front left moves about 30 % less/,
  );
  expect(feelFindingWords({ code: 'near-its-end', adjuster: 'a', turns: -3.5 }, 'Rear')).toMatch(/3.5 turns one way/);
  for (const code of ['one-culprit', 'wont-hold-still'] as const)
    expect(feelFindingWords({ code, adjuster: 'a' } as never, 'Rear')).toMatch(/\.$/);
  expect(feelFindingWords({ code: 'moves-more', adjuster: 'a', share: 1.4 }, 'Rear')).toContain('40 % more');
});

test('where it ends, the verdict comes first and then what hands do', () => {
  const of = (stop: Parameters<typeof feelStopWords>[0]) => feelStopWords(stop, 'Front left', mm);
  expect(of({ why: 'does-not-answer', adjuster: 'a' }).title).toBe(
    'Front left doesn’t answer to its turns. Leave it alone',
  );
  expect(of({ why: 'turns-other-way', adjuster: null }).title).toMatch(/^All adjusters turn the other way/);
  expect(of({ why: 'as-near-as-felt', within: 0.05, sure: 0.96 }).title).toBe('Even within 0.05 mm, 19 times in 20');
  for (const why of ['spring-end', 'turns-other-way', 'does-not-answer'] as const)
    expect(of({ why, adjuster: 'a' }).words).toMatch(/^Lift the nozzle.*from below/);
  for (const why of ['keys-say-nothing', 'wont-hold-still', 'too-long'] as const)
    expect(of({ why }).words).toMatch(/\.$/);
});
