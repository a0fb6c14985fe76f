import { ABRASIVES, compatibility, FACES, GLUES, PRINTED, printedOf, SOLVENTS, TOOLS } from './compatibility';
import { COMPATIBILITY_RULES } from './compatibilityRules';

// Common practice throughout.
test.each([
  [{ face: 'smooth-pei', printed: 'petg' }, 'no', /release layer/],
  [{ face: 'smooth-pei', printed: 'abs', limit: 80 }, 'no', /80 °C/],
  [{ face: 'smooth-pei', printed: 'abs', limit: 120 }, 'yes', /Soak/],
  [{ face: 'magnetic-base', heat: 120 }, 'no', /usually stand about 80/],
  [{ face: 'glass', solvent: 'water', heat: 100 }, 'no', /cracks/],
  [{ face: 'textured', tool: 'flexing', heat: 100 }, 'no', /cool/],
  [{ face: 'flexible-cover', printed: 'petg' }, 'no', /release/],
  [{ face: 'polymer-film', printed: 'petg', glue: 'none' }, 'no', /release/],
  [{ face: 'polymer-film', printed: 'petg', glue: 'glue-film' }, 'care', /./],
  [{ face: 'smooth-pei', printed: 'pc', limit: 150 }, 'no', /welds/],
  [{ face: 'smooth-pei', printed: 'tpu' }, 'no', /welds/],
  [{ face: 'bare-steel', printed: 'pla' }, 'care', /hardly holds/],
  [{ face: 'bare-steel', printed: 'petg' }, 'care', /hardly holds/],
  [{ face: 'bare-steel', solvent: 'water' }, 'care', /rusts/],
  [{ face: 'aluminium', tool: 'hand' }, 'no', /gloves/],
  [{ face: 'release-film', tool: 'hand' }, 'no', /gloves/],
  [{ face: 'aluminium', tool: 'gloved-hand' }, 'yes', /./],
  [{ face: 'glass', abrasive: 'fine-grit' }, 'no', /weak/],
  [{ face: 'smooth-pei', printed: 'petg', glue: 'none' }, 'no', /welds/],
  [{ face: 'smooth-pei', printed: 'petg', glue: 'glue-film' }, 'care', /release layer/],
  [{ face: 'smooth-pei', solvent: 'alcohol' }, 'yes', /cold plate/],
  [{ face: 'smooth-pei', solvent: 'alcohol', heat: 60 }, 'no', /flammable/],
  [{ face: 'flexible-cover', solvent: 'acetone' }, 'no', /attacks/],
  [{ face: 'release-film', solvent: 'water' }, 'no', /Alcohol, not water/],
  [{ face: 'release-film', abrasive: 'paper-towel' }, 'no', /scratches/],
  [{ face: 'textured', abrasive: 'coarse-grit' }, 'no', /do not survive/],
  [{ face: 'flex-plate', abrasive: 'coarse-grit' }, 'care', /gouges/],
  [{ face: 'magnetic-base', solvent: 'alcohol' }, 'care', /light wipe/],
  [{ face: 'glass', glue: 'glue-heavy', heat: 20 }, 'yes', /unheated/],
  [{ face: 'glass', glue: 'glue-heavy', heat: 60 }, 'care', /thin film/],
  [{ face: 'glass', tool: 'flexing' }, 'no', /only cold/],
  [{ face: 'fibreglass', printed: 'nylon', heat: 80, limit: 130 }, 'yes', /./],
  [{ face: 'flexible-cover', heat: 100, limit: 70 }, 'no', /70 °C/],
  [{ face: 'flexible-cover', heat: 65, limit: 70 }, 'care', /leaves little/],
  [{ face: 'aluminium', printed: 'pla' }, 'no', /resin printers/],
] as const)('%j: %s', (question, answer, because) => {
  const found = compatibility(question);
  expect(found.answer).toBe(answer);
  expect(found.reasons[0]!.because).toMatch(because);
});

test('every face has a rule for everything that may be asked of it', () => {
  const things = { printed: PRINTED, solvent: SOLVENTS, abrasive: ABRASIVES, glue: GLUES, tool: TOOLS };
  const unknown = FACES.flatMap((face) =>
    Object.entries(things).flatMap(([thing, values]) =>
      values
        .filter((value) =>
          compatibility({ face, heat: 25, [thing]: value }).reasons.some(({ because }) =>
            because.startsWith('Nothing is known'),
          ),
        )
        .map((value) => `${face} ${value}`),
    ),
  );
  expect(unknown).toEqual([]);
});

test('no rule is a stranger to every question, and none stands there twice', () => {
  const ids = COMPATIBILITY_RULES.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  for (const rule of COMPATIBILITY_RULES) {
    const question = {
      face: rule.on?.[0] ?? 'glass',
      printed: rule.printed?.[0],
      solvent: rule.solvent?.[0],
      abrasive: rule.abrasive?.[0],
      glue: rule.glue?.[0],
      tool: rule.tool?.[0],
      heat: rule.from ?? (rule.below === undefined ? undefined : rule.below - 1),
    };
    expect(compatibility(question).reasons.map(({ because }) => because)).toContain(rule.because);
  }
});

test("the shop's own word stands in front of the table's, but not in front of fire", () => {
  expect(compatibility({ face: 'smooth-pei', solvent: 'acetone' }, { acetone: 'no' }).answer).toBe('no');
  expect(compatibility({ face: 'textured', solvent: 'acetone' }, { acetone: 'yes' }).answer).toBe('yes');
  expect(compatibility({ face: 'textured', solvent: 'acetone', heat: 60 }, { acetone: 'yes' }).answer).toBe('no');
});

test('where schools differ, both are said', () => {
  expect(compatibility({ face: 'smooth-pei', solvent: 'acetone' }).reasons[0]!.school).toMatch(/never/);
});

test('materials are known by the words people use', () => {
  expect(
    ['PETG black', 'PLA+', 'ASA', 'PA12', 'TPU 95A', 'PC', 'grey resin', 'wood', 'plastic', 'splash', 'silk PLA'].map(
      printedOf,
    ),
  ).toEqual(['petg', 'pla', 'abs', 'nylon', 'tpu', 'pc', 'resin', undefined, undefined, undefined, 'pla']);
});

test('nothing asked is nothing known; what is no number or no known word is refused by name', () => {
  expect(compatibility({ face: 'glass' }).answer).toBe('unknown');
  expect(() => compatibility({ face: 'marble' as never })).toThrow('marble');
  expect(() => compatibility({ face: 'glass', printed: 'cheese' as never })).toThrow('cheese');
  expect(() => compatibility({ face: 'glass', heat: NaN })).toThrow('NaN');
  expect(() => compatibility({ face: 'glass', limit: Infinity })).toThrow('Infinity');
});

// Common practice.
test.each<[string, Parameters<typeof compatibility>[0], string]>([
  ['hot material on a cold bed', { face: 'smooth-pei', printed: 'abs', heat: 20 }, 'no'],
  ['hot material on its usual bed', { face: 'smooth-pei', printed: 'abs' }, 'yes'],
  ['hot glass, plastic scraper', { face: 'glass', tool: 'plastic-scraper', heat: 90 }, 'no'],
  ['hot glass, gloves', { face: 'coated-glass', tool: 'gloved-hand', heat: 60 }, 'no'],
  ['cold glass, plastic scraper', { face: 'glass', tool: 'plastic-scraper', heat: 20 }, 'yes'],
  ['no glue on a cold bed', { face: 'glass', glue: 'none', heat: 20 }, 'care'],
  ['no glue on a warm bed', { face: 'glass', glue: 'none', heat: 60 }, 'yes'],
  ['heavy glue, its usual bed', { face: 'smooth-pei', printed: 'pla', glue: 'glue-heavy' }, 'care'],
  ['heavy glue, unheated', { face: 'smooth-pei', printed: 'pla', glue: 'glue-heavy', heat: 20 }, 'yes'],
])('%s', (_, question, answer) => {
  expect(compatibility(question).answer).toBe(answer);
});
