import { LIGHT, surveyByReadings } from './lightCodes';

const PLATE = { width: 235, depth: 235 };
const IDS = ['along-left', 'along-right', 'across-front', 'across-rear', 'diagonal-1', 'diagonal-2'];
const { none, middle, ends } = LIGHT;

/** Readings of a card: where, plain light, and a feeler where one passed. */
const readings = (where: readonly number[], feelers: readonly (number | null)[] = []) =>
  Object.fromEntries(
    IDS.flatMap((id, i) => [
      [`${id}.where`, where[i]!],
      ...(where[i] === none ? [] : [[`${id}.light`, 2]]),
      ...(feelers[i] ? [[`${id}.feeler`, feelers[i]]] : []),
    ]),
  ) as Record<string, number>;
const verdict = (where: readonly number[], feelers: readonly (number | null)[] = []) =>
  surveyByReadings(readings(where, feelers), IDS, PLATE)?.verdict;

// Common practice: a straightedge on its ends over a dip, rocking over a rise, diagonals that disagree over a twist.
test.each([
  ['flat', [none, none, none, none, none, none], []],
  ['dish', [middle, middle, middle, middle, middle, middle], [0.1, 0.1, 0.1, 0.1, 0.2, 0.2]],
  ['dish', [none, none, middle, middle, middle, middle], [null, null, 0.15, 0.15, 0.15, 0.15]],
  ['dome', [ends, ends, ends, ends, ends, ends], [0.05, 0.05, 0.05, 0.05, 0.1, 0.1]],
  ['twist', [none, none, none, none, middle, ends], [null, null, null, null, 0.1, 0.1]],
  // A dip along one diagonal that nothing else shows: no plate is like that.
  ['again', [none, none, none, none, middle, none], [null, null, null, null, 0.2, null]],
] as const)('%s: %j', (shape, where, feelers) => expect(verdict(where, feelers)).toBe(shape));

test('nothing is said while a line, or how much light, is missing', () => {
  const all = readings([none, none, none, none, middle, none]);
  const { 'diagonal-1.light': _, ...unsaid } = all;
  expect(surveyByReadings(unsaid, IDS, PLATE)).toBeNull();
  const { 'along-left.where': _gone, ...missing } = all;
  expect(surveyByReadings(missing, IDS, PLATE)).toBeNull();
  expect(surveyByReadings(all, ['another'], PLATE)).toBeNull();
});
