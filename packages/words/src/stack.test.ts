import { stackChange, type StackCautionCode, type StackChangeInput } from '@even-bed/core';
import { STACKS_BY_HAND } from '@even-bed/core/fit/sumsByHand.fixture';
import type { Reader } from './figures';
import { stackCautionWords, stackSentence } from './stack';

const HOUSE: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };
const INCHES: Reader = { ...HOUSE, units: 'in' };
const COMMA: Reader = { ...HOUSE, numbers: 'comma' };

const factsOf = (input: StackChangeInput) => ({
  result: stackChange(input),
  by: input.finding.by,
  family: input.family ?? ('filament' as const),
  home: input.home ?? null,
});

test.each(STACKS_BY_HAND.filter(({ says }) => says))('$why', ({ input, says }) =>
  expect(stackSentence(factsOf(input), HOUSE)).toMatch(says!),
);

test('every sum by hand, its steps and its cautions, reads in inches and with a comma too', () => {
  const seen = new Set<StackCautionCode>();
  for (const { input } of STACKS_BY_HAND) {
    const facts = factsOf(input);
    for (const { code } of facts.result.cautions) seen.add(code);
    for (const reader of [HOUSE, INCHES, COMMA]) {
      const said = [
        stackSentence(facts, reader),
        ...facts.result.cautions.map(({ code }) => stackCautionWords(code, facts, reader)),
      ].join(' ');
      expect(said).not.toMatch(/undefined|NaN|null|\[object/);
      if (reader === INCHES) expect(said).not.toMatch(/\d mm/);
      if (reader === COMMA) expect(said).not.toMatch(/\d\.\d/);
    }
  }
  const made: StackCautionCode[] = ['zero-cannot-rescue', 'zero-first', 'adjusters-short', 'spacer-first', 'vat-empty'];
  expect([...seen]).toEqual(expect.arrayContaining(made));
});

test('a spacer of 1/8 in is said in inches', () => {
  const input: StackChangeInput = {
    before: [],
    after: [{ name: 'glass', thickness: 3.175 }],
    finding: { by: 'spacer' },
    moves: 'head',
    home: 'surface',
  };
  expect(stackSentence(factsOf(input), INCHES)).toContain('0.125 in');
  expect(stackSentence(factsOf(input), COMMA)).toContain('3,175 mm');
});
