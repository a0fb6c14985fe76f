import type { MountAsk, MountCaution, MountRefusal } from '@even-bed/core';
import type { Reader } from './figures';
import { mountAskWords, mountCautionWords, mountRefusalWords } from './mount';

const reader = (units: 'mm' | 'in', numbers: 'point' | 'comma'): Reader => ({ units, numbers, zone: 'UTC' });
const READERS = [reader('mm', 'point'), reader('mm', 'comma'), reader('in', 'point'), reader('in', 'comma')];

type Examples<T extends { code: string }> = { [Code in T['code']]: Extract<T, { code: Code }>[] };

/** Every case of each; a code without one does not compile. */
const REFUSALS: Examples<MountRefusal> = {
  retired: [{ code: 'retired', tag: 'S-014', why: 'gouged' }],
  'on-hold': [
    { code: 'on-hold', tag: 'S-014', hold: 'cure', reason: '' },
    { code: 'on-hold', tag: 'S-014', hold: 'cure', reason: 'bonded' },
  ],
  family: [{ code: 'family', machine: 'Dunlin', family: 'resin', group: 'glass' }],
  poles: [
    { code: 'poles', tag: 'S-014', partner: 'B-001', partnerTurned: true },
    { code: 'poles', tag: 'S-014', partner: 'B-001', partnerTurned: false },
  ],
  'glass-on-mat': [{ code: 'glass-on-mat', mat: 'B-001' }],
  here: [{ code: 'here', tag: 'S-014', machine: 'Dunlin' }],
};
const ASKS: Examples<MountAsk> = {
  'clean-dry': [{ code: 'clean-dry' }],
  'front-mark': [{ code: 'front-mark', edge: 'rear' }],
  size: [
    { code: 'size', tag: 'S-014', width: 254, depth: 235, plateWidth: 235, plateDepth: 235, over: 9.5 },
    { code: 'size', tag: 'S-014', short: 5.08 },
  ],
  heat: [{ code: 'heat', machine: 'Dunlin', hottest: 110, tag: 'B-001', limit: 80 }],
};
const CAUTIONS: Examples<MountCaution> = {
  awaiting: [{ code: 'awaiting', tag: 'S-014', what: 'a wash' }],
  magnets: [{ code: 'magnets' }],
  'unknown-material': [{ code: 'unknown-material', machine: 'Dunlin', material: 'flax', tag: 'S-014' }],
  'unknown-face': [{ code: 'unknown-face', material: 'PLA', tag: 'S-014' }],
  material: [{ code: 'material', machine: 'Dunlin', material: 'PETG', because: 'It welds.' }],
  'home-again': [{ code: 'home-again' }],
};

test('every refusal, question and caution is a sentence, in both units and marks', () => {
  const asks: MountAsk[] = Object.values(ASKS).flat();
  const said = READERS.flatMap((read) => [
    ...Object.values(REFUSALS).flat().map(mountRefusalWords),
    ...asks.map((ask) => mountAskWords(ask, read)),
    ...Object.values(CAUTIONS).flat().map(mountCautionWords),
  ]);
  for (const text of said) {
    expect(text).toMatch(/^[A-Z0-9].*[.?]$/);
    expect(text).not.toMatch(/undefined|NaN|null|\[object/);
  }
});

test.each([
  [READERS[0]!, 'S-014 is 254 mm × 235 mm', 'S-014 is 5.1 mm smaller', '110 °C and B-001 stands 80 °C'],
  [READERS[1]!, 'S-014 is 254 mm × 235 mm', 'S-014 is 5,1 mm smaller', '110 °C and B-001 stands 80 °C'],
  [READERS[2]!, 'S-014 is 10 in × 9.252 in', 'S-014 is 0.2 in smaller', '230 °F and B-001 stands 176 °F'],
  [READERS[3]!, 'S-014 is 10 in × 9,252 in', 'S-014 is 0,2 in smaller', '230 °F and B-001 stands 176 °F'],
])('%j', (read, over, short, heat) => {
  expect(mountAskWords(ASKS.size[0]!, read)).toContain(over);
  expect(mountAskWords(ASKS.size[1]!, read)).toContain(short);
  expect(mountAskWords(ASKS.heat[0]!, read)).toContain(heat);
});

test('what lies across is said by which of the two lies round', () => {
  expect(mountRefusalWords(REFUSALS.poles[0]!)).toContain('B-001 lies a quarter turn round');
  expect(mountRefusalWords(REFUSALS.poles[1]!)).toContain('Lay its front mark to the front');
  expect(mountRefusalWords(REFUSALS['on-hold'][0]!)).toContain('(cure)');
  expect(mountRefusalWords(REFUSALS['on-hold'][1]!)).toContain('(bonded)');
  expect(mountRefusalWords(REFUSALS.family[0]!)).toBe('Dunlin is a resin printer: a glass pane has no place on it.');
});
