import { CARE_ITEMS, namedCare } from './namedCare';

test.each([
  ['steel wool', ['steel-wool']],
  ['000 wool, IPA', ['steel-wool', 'alcohol']],
  ['2000 grit, alcohol', ['fine-abrasive', 'alcohol']],
  ['Acetone on a towel', ['acetone']],
  ['dish soap and hot water', ['soap', 'water']],
  ['scrub pad', ['scrub-pad']],
  ['plastic scraper', ['scraper']],
  ['a thin film of glue', ['glue-stick']],
  ['', []],
  ['by hand, dry', []],
  ['2000 prints', []],
])('%s', (words, items) => expect(namedCare(words)).toEqual(items));

test('each thing has a name that is known, and a wall of text costs nothing', () => {
  for (const item of CARE_ITEMS) expect(namedCare(item.replace('-', ' '))).toContain(item);
  expect(namedCare('x'.repeat(1e6))).toEqual([]);
});
