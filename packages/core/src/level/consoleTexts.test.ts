import { CONSOLE_TEXTS, type ConsoleText } from './consoleTexts.fixture';
import { parseHeights } from './parseHeights';

/** Whether the heights that were read are those that are true. */
function isRight({ truth }: ConsoleText, points: readonly { x: number; y: number; z: number }[]): boolean {
  const read = new Map<string, number[]>();
  for (const { x, y, z } of points) {
    const key = `${Math.round(x * 100) / 100} ${Math.round(y * 100) / 100}`;
    read.set(key, [...(read.get(key) ?? []), z]);
  }
  if (read.size !== Object.keys(truth).length) return false;
  return Object.entries(truth).every(([key, z]) => {
    const zs = read.get(key);
    return zs !== undefined && Math.abs(zs.reduce((sum, each) => sum + each, 0) / zs.length - z) < 1e-9;
  });
}

/** Read anew in each test: what is read while the file is loaded belongs to none of them. */
const read = () =>
  CONSOLE_TEXTS.map((one) => {
    const { points, questions, warnings, needs } = parseHeights(one.text, one.options);
    const asks = questions.filter(({ taken }) => taken === null).length + needs.length;
    return { ...one, right: isRight(one, points), asks, doubts: warnings.length + questions.length };
  });

test('there are a hundred and twenty of them, by different names', () => {
  expect(CONSOLE_TEXTS.length).toBeGreaterThanOrEqual(120);
  expect(new Set(CONSOLE_TEXTS.map(({ name }) => name)).size).toBe(CONSOLE_TEXTS.length);
});

test('none is read wrongly without a doubt or a question', () => {
  expect(
    read()
      .filter(({ right, asks, doubts }) => !right && asks + doubts === 0)
      .map(({ name }) => name),
  ).toEqual([]);
});

test('at least ninety-five are read rightly without a question', () => {
  expect(read().filter(({ right, asks }) => right && asks === 0).length).toBeGreaterThanOrEqual(95);
});

test('what is wrong or asked is what can be read in two ways', () => {
  expect(
    read()
      .filter(({ right, asks }) => !right || asks > 0)
      .map(({ name }) => name),
  ).toEqual([
    'two columns that both change',
    'two heights that both change',
    'only a commanded height',
    'column indices counted down',
    'row indices that contradict what was said',
    'row positions that contradict what was said',
    'a map printed twice without a break',
    'a line of means below',
    'ten columns broken into five and five',
    'JSON with two profiles',
    'a matrix of micrometres that could be positions',
    'inches said above',
    'a unit said above a matrix',
    'places as near as those in inches, unsaid',
    'JSON that names its unit',
    'a gap, larger where the bed is lower',
  ]);
});

test('one of the answers that are offered gives the truth', () => {
  for (const one of read().filter(({ asks }) => asks > 0)) {
    const open = parseHeights(one.text, one.options).questions.find(({ taken }) => taken === null)!;
    const ways = open.options.map((option) =>
      isRight(one, parseHeights(one.text, { ...one.options, answers: { [open.code]: option } }).points),
    );
    expect([one.name, ways.includes(true)]).toEqual([one.name, true]);
  }
});
