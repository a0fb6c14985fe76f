import { feelFindingWords, feelTurnWords, gaugeWords } from './feel';

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
