import type { ToolAnswers, ToolId, TopCure } from '@even-bed/core';
import type { Reader } from './figures';
import { toolSentence, topCureWords } from './tool';

const HOUSE: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };
const INCHES: Reader = { ...HOUSE, units: 'in', numbers: 'comma' };

type Case = { [T in ToolId]: [T, ToolAnswers[T], string, string] }[ToolId];
const soak = { seconds: 372, steadyTop: 57.5, holdsSetpoint: true, setpoint: 60, within: 2 };

test.each<Case>([
  [
    'stack',
    {
      result: {
        verdict: 'do',
        steps: [{ do: 'home' }, { do: 'zero', way: 'further', by: 2.54 }],
        missing: [],
        why: null,
        collides: 0,
        adjusters: null,
        change: 2.54,
        zero: 2.54,
      },
      by: 'fixed',
      family: 'filament',
      home: 'away',
    },
    '+2.54 mm. Home, slowly. Set zero 2.54 mm further from the surface, before anything goes to it.',
    '+0,1 in. Home, slowly. Set zero 0,1 in further from the surface, before anything goes to it.',
  ],
  [
    'underbed',
    { clear: true, compressed: 1.27, backedOff: 2, pile: null },
    '1.27 mm free under the bed with the springs fully compressed.',
    '0,05 in free under the bed with the springs fully compressed.',
  ],
  [
    'underbed',
    { clear: false, compressed: -1.27, backedOff: 2.54, pile: { pieces: 3, name: 'ISO 7089 M3' } },
    '1.27 mm too tall with the springs fully compressed, 2.54 mm free as it stands. 3 × ISO 7089 M3 under each spring free it.',
    '0,05 in too tall with the springs fully compressed, 0,1 in free as it stands. 3 × ISO 7089 M3 under each spring free it.',
  ],
  [
    'underbed',
    { clear: false, compressed: -1.27, backedOff: -0.1, pile: null },
    '1.27 mm too tall with the springs fully compressed. No pile of these washers frees it.',
    '0,05 in too tall with the springs fully compressed. No pile of these washers frees it.',
  ],
  [
    'top',
    { items: [] },
    'Nothing stands proud of the base or in the way of what passes.',
    'Nothing stands proud of the base or in the way of what passes.',
  ],
  [
    'top',
    {
      items: [
        { name: 'clip', overBase: 1.27, hit: false },
        { name: 'tab', overBase: 4, hit: true },
      ],
    },
    'clip stands 1.27 mm proud of the base. tab would be hit.',
    'clip stands 0,05 in proud of the base. tab would be hit.',
  ],
  [
    'size',
    { verdict: 'misses-print', by: 2.54 },
    'Prints would miss it by 2.54 mm.',
    'Prints would miss it by 0,1 in.',
  ],
  ['size', { verdict: 'covers-keep-out', covered: ['a', 'b'] }, 'It covers a, b.', 'It covers a, b.'],
  [
    'size',
    { verdict: 'over', by: 2.54 },
    'It stands over the plate by up to 2.54 mm.',
    'It stands over the plate by up to 0,1 in.',
  ],
  [
    'size',
    { verdict: 'fits', by: 2.54 },
    'It fits, 2.54 mm or more from the edge.',
    'It fits, 0,1 in or more from the edge.',
  ],
  [
    'blanks',
    { pieces: 3, sheets: 1, perSheet: 3, proven: true },
    '3 from 1 sheet, 3 from each, no edge-to-edge way gives more.',
    '3 from 1 sheet, 3 from each, no edge-to-edge way gives more.',
  ],
  [
    'blanks',
    { pieces: 9, sheets: 2, perSheet: null, proven: false },
    '9 pieces from 2 sheets.',
    '9 pieces from 2 sheets.',
  ],
  [
    'soak',
    soak,
    'The top is within 2 °C of its 57.5 °C after 6 min 12 s.',
    'The top is within 3,6 °F of its 136 °F after 6 min 12 s.',
  ],
  [
    'soak',
    { ...soak, seconds: null },
    'The top is not hot within a day; it ends at 57.5 °C.',
    'The top is not hot within a day; it ends at 136 °F.',
  ],
  [
    'soak',
    { ...soak, holdsSetpoint: false },
    'The heater is too weak for 60 °C: the top ends at 57.5 °C.',
    'The heater is too weak for 140 °F: the top ends at 136 °F.',
  ],
  ['together', { answer: 'care', because: 'It welds.' }, 'With care: It welds.', 'With care: It welds.'],
  ['together', { answer: 'yes', because: null }, 'Nothing was asked of it.', 'Nothing was asked of it.'],
  ['spacer', { shape: 'gauge', printed: 2.54, layers: 0 }, 'A gauge of 2.54 mm.', 'A gauge of 0,1 in.'],
  [
    'spacer',
    { shape: 'pad', printed: 2.54, layers: 12 },
    'A pad of 2.54 mm, 12 layers.',
    'A pad of 0,1 in, 12 layers.',
  ],
  [
    'gap',
    { gap: 0.0254, sd: 0.01, expect: 'foot', jog: 0.03, measure: null, foot: null },
    'First gap 0.03 mm, give or take 0.01 mm: a foot: the first layers are squeezed. Zero up by 0.03 mm.',
    'First gap 0,0010 in, give or take 0,0004 in: a foot: the first layers are squeezed. Zero up by 0,0012 in.',
  ],
  [
    'gap',
    {
      gap: -0.02,
      sd: 0.01,
      expect: 'presses',
      jog: 0.08,
      measure: null,
      foot: { verdict: 'raise', jog: 0.04, more: null },
    },
    'First gap −0.02 mm, give or take 0.01 mm: the platform would press the film: raise zero first. By the pieces: zero up by 0.04 mm.',
    'First gap −0,0008 in, give or take 0,0004 in: the platform would press the film: raise zero first. By the pieces: zero up by 0,0016 in.',
  ],
  [
    'compare',
    {
      ...{
        first: 'A',
        second: 'B',
        reads: 'length',
        shares: null,
        difference: 0.0508,
        interval: { low: 0.03, high: 0.07 },
        wouldShow: 4,
        also: ['machine'],
      },
      verdict: { says: 'different' },
    },
    'B is 0.051 mm more than A. It ends here. Not the same in both: two machines. This compares that too.',
    'B is 0,002 in more than A. It ends here. Not the same in both: two machines. This compares that too.',
  ],
  [
    'compare',
    {
      ...{
        first: 'weights',
        second: 'clamps',
        reads: 'time',
        shares: null,
        difference: -12.25,
        wouldShow: 9,
        also: [],
      },
      ...{ interval: { low: -20, high: -4 }, verdict: { says: 'different' } },
    },
    'With clamps it takes 12.3 min less than with weights. It ends here.',
    'With clamps it takes 12,3 min less than with weights. It ends here.',
  ],
  [
    'compare',
    {
      ...{
        first: 'bare',
        second: 'glued',
        reads: 'held',
        shares: { first: 0.55, second: 0.9 },
        wouldShow: 40,
        also: [],
      },
      ...{ difference: 0.35, interval: { low: 0.1, high: 0.5 }, verdict: { says: 'different' } },
    },
    'Glued held in 90 %, bare in 55 %: more than chance would. It ends here.',
    'Glued held in 90 %, bare in 55 %: more than chance would. It ends here.',
  ],
  [
    'compare',
    {
      ...{
        first: 'A',
        second: 'B',
        reads: 'length',
        shares: null,
        difference: 0,
        interval: null,
        wouldShow: 30,
        also: [],
      },
      verdict: { says: 'not-shown' },
    },
    'It ends here without showing a difference, and without ruling one out. About 30 of each would show a difference that matters.',
    'It ends here without showing a difference, and without ruling one out. About 30 of each would show a difference that matters.',
  ],
])('%s: %j', (tool, answer, house, inches) => {
  expect(toolSentence(tool, answer, HOUSE)).toBe(house);
  expect(toolSentence(tool, answer, INCHES)).toBe(inches);
});

test.each<[TopCure, string]>([
  [
    { do: 'countersink', diameter: 6.35, depth: 1.66, remains: 1.2 },
    'Countersink 90°, 6.35 mm wide and 1.66 mm deep, a little at a time until flush; only 1.2 mm of plate is left under it.',
  ],
  [
    { do: 'countersink', diameter: 6.35, depth: 1.66, remains: null },
    'Countersink 90°, 6.35 mm wide and 1.66 mm deep, a little at a time until flush.',
  ],
  [{ do: 'lower-head' }, 'A lower head, if the plate is too thin to sink it.'],
  [
    { do: 'lower-or-shorter' },
    'A lower head, or a screw that ends below the base: the plate is too thin to sink it, or not told.',
  ],
  [{ do: 'notch', by: 1.3 }, 'Notch the base and the sheet round it, grind the clip down by 1.3 mm, or take it off.'],
  [{ do: 'notch', by: 0 }, 'Notch the base and the sheet round it, grind the clip down, or take it off.'],
  [{ do: 'lay-beside' }, 'Rest the base beside it, or lay a ruler across, before the liner comes off.'],
  [{ do: 'cut-corner', by: 0.5 }, "Cut the sheet's corner free of it, or bend or file it down by 0.5 mm."],
  [{ do: 'cut-corner', by: 0 }, "Cut the sheet's corner free of it, or bend or file it down."],
])('%j', (cure, words) => expect(topCureWords(cure, HOUSE)).toBe(words));
