import { kindWriteSchema, validate, type SurfaceKind } from '@even-bed/contract';
import { bodyOf, KIND_FIELDS, typedKind } from './typedKind';

const kind: SurfaceKind = {
  ...{ id: 'k', name: 'Textured', group: 'sheet', thickness: 0.5, limit: 110, material: 'steel', directional: true },
  ...{ sides: ['textured', 'smooth'], faces: ['textured', null], life: { unit: 'prints', expected: 300, spread: 60 } },
  ...{ care: { alcohol: 'yes' }, note: 'ours', version: 3 },
};
const judged = (more: Partial<ReturnType<typeof typedKind>>, from: SurfaceKind | null = kind) =>
  validate<object>(kindWriteSchema, { ...bodyOf({ ...typedKind(from), ...more }), version: 0, at: 1 });

test('a kind that is there is typed as it is, and sent as it was', () => {
  const { id: _, version: __, ...facts } = kind;
  expect(judged({})).toMatchObject({ ok: true, value: facts });
});

test('lengths and numbers as they are typed; one side alone; a life that is not counted', () => {
  expect(judged({ thickness: '1/16 in', limit: '97,5', expected: '250', spread: '' })).toMatchObject({
    ok: true,
    value: { thickness: 1.5875, limit: 97.5, life: { expected: 250, spread: 0 } },
  });
  expect(judged({ limit: ' ', sideB: ' ', unit: 'none', faceA: '', material: '' })).toMatchObject({
    ok: true,
    value: { limit: null, sides: ['textured'], faces: [null], life: null, material: null },
  });
});

test.each([
  [{ name: '' }, 'name'],
  [{ thickness: 'thin' }, 'thickness'],
  [{ limit: 'hot' }, 'limit'],
  [{ sideA: '', sideB: '' }, 'sideA'],
  [{ expected: '' }, 'expected'],
  [{ spread: 'x' }, 'spread'],
])('%j is said at its field', (more, field) => {
  const answer = judged(more);
  const places: Record<string, string> = KIND_FIELDS;
  expect(answer.ok ? [] : Object.keys(answer.fields).map((path) => places[path] ?? path)).toContain(field);
});

test('a new one has its name, thickness and sides to be said', () => {
  const answer = judged({}, null);
  expect(answer.ok ? [] : Object.keys(answer.fields).sort()).toEqual(['life.expected', 'name', 'sides', 'thickness']);
});
