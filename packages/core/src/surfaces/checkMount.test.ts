import type { Face } from '../fit/compatibility';
import { checkMount, type MountQuestion } from './checkMount';
import { lifeOf } from './lifeOf';
import { stackHeight } from './stackHeight';
import { nextTag } from './surfaceKind';

const base = {
  slot: 'base' as const,
  tag: 'B-001',
  group: 'base' as const,
  directional: true,
  turned: 0 as const,
  limit: 110,
};

const question = (
  surface: Partial<MountQuestion['surface']> = {},
  machine: Partial<MountQuestion['machine']> = {},
  more: Partial<MountQuestion> = {},
): MountQuestion => ({
  surface: {
    tag: 'S-014',
    group: 'sheet',
    slot: 'top',
    width: 235,
    depth: 235,
    limit: 120,
    directional: true,
    state: { where: { kind: 'rack', place: 'Rack 1' }, hold: null, awaiting: null, retired: null, changedAt: 0 },
    ...surface,
  },
  machine: {
    name: 'Dunlin',
    family: 'filament',
    plateWidth: 235,
    plateDepth: 235,
    printWidth: 225,
    printDepth: 225,
    hottest: 100,
    layers: [base],
    ...machine,
  },
  turned: 0,
  now: 100,
  ...more,
});
const codes = (q: MountQuestion) => {
  const { refusals, asks } = checkMount(q);
  return { refused: refusals.map(({ code }) => code), asked: asks.map(({ code }) => code) };
};

test('a fitting sheet is only asked about: clean and dry faces, and its front mark', () =>
  expect(codes(question())).toEqual({ refused: [], asked: ['clean-dry', 'front-mark'] }));

// Common practice: poles run in lines, crossed lines leave ridges; half a turn is fine.
test.each([
  [0, []],
  [90, ['poles']],
  [180, []],
  [270, ['poles']],
] as const)('turned %i° on a directional base', (turned, refused) =>
  expect(codes(question({}, {}, { turned })).refused).toEqual(refused),
);

test('asks for the front mark where it is said to point', () => {
  const asked = (turned: 0 | 90 | 180 | 270) => checkMount(question({}, { layers: [] }, { turned })).asks.at(-1);
  expect(([0, 90, 180, 270] as const).map(asked)).toEqual(
    ['front', 'right', 'rear', 'left'].map((edge) => ({ code: 'front-mark', edge })),
  );
});

test('a base that lies a quarter turn round crosses an unturned sheet, not one turned with it', () => {
  const layers = [{ ...base, turned: 270 as const }];
  const { refusals } = checkMount(question({}, { layers }));
  expect(refusals).toEqual([{ code: 'poles', tag: 'S-014', partner: 'B-001', partnerTurned: true }]);
  expect(codes(question({}, { layers }, { turned: 90 })).refused).toEqual([]);
  expect(codes(question({}, { layers }, { turned: 180 })).refused).toEqual(['poles']);
});

test('a quarter turn is no matter without pole lines on both', () => {
  expect(codes(question({ directional: false }, {}, { turned: 90 })).refused).toEqual([]);
  expect(codes(question({}, { layers: [] }, { turned: 90 })).refused).toEqual([]);
});

test('a base turned a quarter under a magnetic sheet is refused as well', () => {
  const sheet = { ...base, slot: 'top' as const, tag: 'S-014', group: 'sheet' as const };
  const q = question({ tag: 'B-002', group: 'base', slot: 'base' }, { layers: [sheet] }, { turned: 270 });
  expect(checkMount(q).refusals).toEqual([{ code: 'poles', tag: 'B-002', partner: 'S-014', partnerTurned: false }]);
});

// Common practice: the most expensive of the known mistakes.
test('glass on a magnetic mat is refused', () =>
  expect(codes(question({ group: 'glass', directional: false })).refused).toEqual(['glass-on-mat']));

test.each([
  ['glass', 'resin', ['family']],
  ['platform', 'filament', ['family']],
  ['film', 'filament', ['family']],
  ['base', 'resin', []],
  ['cover', 'resin', []],
] as const)('%s on a %s printer', (group, family, refused) =>
  expect(codes(question({ group, slot: 'base', directional: false }, { family, layers: [] })).refused).toEqual(refused),
);

test('size is asked about when it stands over or falls short, also as it is turned', () => {
  expect(codes(question({ width: 250 })).asked).toContain('size');
  expect(codes(question({ width: 241 })).asked).not.toContain('size');
  expect(codes(question({ width: 220 })).asked).toContain('size');
  const oblong = { width: 310, depth: 235, directional: false };
  const plate = { plateWidth: 235, plateDepth: 310, printWidth: 225, printDepth: 300 };
  expect(codes(question(oblong, plate)).asked).toContain('size');
  expect(codes(question(oblong, plate, { turned: 90 })).asked).not.toContain('size');
});

test('heat is asked about by the weakest layer, and only when the machine gets hotter', () => {
  const hot = checkMount(question({}, { hottest: 115 }));
  expect(hot.asks).toContainEqual({ code: 'heat', machine: 'Dunlin', hottest: 115, tag: 'B-001', limit: 110 });
  expect(codes(question({}, { hottest: 110 })).asked).not.toContain('heat');
  expect(codes(question({}, { hottest: null })).asked).not.toContain('heat');
});

test('a held or retired surface is refused', () => {
  const state = question().surface.state;
  const hold = { kind: 'cure' as const, since: 0, until: 101, reason: '24 h cure' };
  expect(codes(question({ state: { ...state, hold } })).refused).toEqual(['on-hold']);
  expect(codes(question({ state: { ...state, hold } }, {}, { now: 101 })).refused).toEqual([]);
  expect(codes(question({ state: { ...state, retired: 'gouged' } })).refused).toEqual(['retired']);
});

test('a stack is as high as its layers together and stands what its weakest layer stands', () => {
  const layers = [
    { name: 'plate', thickness: 3, measured: true, limit: null },
    { name: 'base', thickness: 1.2, measured: false, limit: 80 },
    { name: 'sheet', thickness: 0.5, measured: true, limit: 120 },
  ];
  expect(stackHeight(layers)).toEqual({
    height: expect.closeTo(4.7, 12),
    measured: false,
    limit: { temperature: 80, layer: 'base' },
  });
  expect(() => stackHeight([{ ...layers[0]!, thickness: Number.NaN }])).toThrow('0 or more');
});

test('life is counted in its own unit and ends in a band', () => {
  const life = { unit: 'prints' as const, expected: 300, spread: 60 };
  const at = (prints: number) => lifeOf(life, { prints, grams: 0, since: null, now: 0 })!;
  expect([at(239).state, at(240).state, at(360).state, at(361).state]).toEqual(['ready', 'due', 'due', 'over']);
  expect(at(330).left).toBe(-30);
  const days = { unit: 'days' as const, expected: 180, spread: 30 };
  expect(lifeOf(days, { prints: 0, grams: 0, since: 0, now: 86_400_000 * 90 })!.used).toBe(90);
  expect(lifeOf(days, { prints: 0, grams: 0, since: null, now: 0 })).toBeNull();
  expect(lifeOf(null, { prints: 5, grams: 0, since: 0, now: 0 })).toBeNull();
});

test('the next tag follows the highest of its letter', () => {
  expect(nextTag('S', [])).toBe('S-001');
  expect(nextTag('S', ['S-014', 's-009', 'B-100', 'S-x', 'Sheet'])).toBe('S-015');
  expect(nextTag('S', ['S-999'])).toBe('S-1000');
});

test('says what the machine printed lately that this face does not take lightly, once for each material', () => {
  const cautions = (face: Face | null, printedLately: string[]) =>
    checkMount(question({ face }, { printedLately })).cautions.filter((caution) => 'material' in caution);
  expect(cautions('smooth-pei', ['PLA', 'PETG', 'petg grey'])).toEqual([
    {
      code: 'material',
      machine: 'Dunlin',
      material: 'petg grey',
      because: expect.stringContaining('welds to smooth PEI'),
    },
  ]);
  expect(cautions('textured', ['PETG', 'PLA'])).toEqual([]);
  expect(cautions('smooth-pei', ['something new'])).toEqual([
    { code: 'unknown-material', machine: 'Dunlin', material: 'something new', tag: 'S-014' },
  ]);
  expect(cautions(null, ['PLA'])).toEqual([{ code: 'unknown-face', material: 'PLA', tag: 'S-014' }]);
});
