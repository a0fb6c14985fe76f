import { DONE, STOPPED, type Procedure, type Target } from './procedure';
import { PROCEDURES } from './procedures';

/** Whether a doing can be come to from the job's beginning without passing any of these steps. */
function roundThem(procedure: Procedure, to: string, without: readonly string[]): boolean {
  const byId = new Map(procedure.steps.map((step) => [step.id, step]));
  const open: Target[] = [procedure.steps[0]!.id];
  const seen = new Set<Target>();
  while (open.length > 0) {
    const id = open.pop()!;
    if (id === to) return true;
    if (seen.has(id) || id === DONE || id === STOPPED || without.includes(id as string)) continue;
    seen.add(id);
    const step = byId.get(id as string)!;
    open.push(
      step.next,
      ...step.cant.map((way) => way.to),
      ...(step.ask?.answers ?? []).map((answer) => answer.to),
      ...(step.branches ?? []).map((branch) => branch.to),
      ...(step.timer?.late === undefined ? [] : [step.timer.late]),
    );
  }
  return false;
}
const procedure = (id: string) => PROCEDURES.find((one) => one.id === id)!;

// What is needed before a doing that can't be taken back, or that hurts. Common practice.
test.each([
  ['under-bed-check', 'measure', ['off']],
  ['under-bed-check', 'home', ['move']],
  ['under-bed-check', 'home', ['plug-in']],
  ['magnet-under-board', 'measure', ['off']],
  ['magnet-under-board', 'scuff', ['protect']],
  ['magnet-under-board', 'level', ['move']],
  ['base-on-glass', 'pad-on', ['pad-gate']],
  ['base-on-glass', 'pane-down', ['pane-gate']],
  ['base-on-glass', 'level-again', ['bowed']],
  ['fit-base-and-sheet', 'level-again', ['bowed']],
  ['fit-base-and-sheet', 'press', ['dry-by-clock']],
  ['mount-glass', 'level-again', ['bowed']],
  ['fit-flex-on-resin', 'scuff', ['wipe']],
  ['fit-flex-on-resin', 'press', ['ready']],
] as const)('%s: nobody comes to “%s” round %j', (id, to, gates) => {
  const job = procedure(id);
  for (const gate of gates) expect(job.steps.some((step) => step.id === gate)).toBe(true);
  expect(roundThem(job, to, gates)).toBe(false);
  // The walker can tell: without that step held back it is come to.
  expect(roundThem(job, to, [])).toBe(true);
});

test('hands go under a bed only behind a tick that it is unplugged and cool', () => {
  for (const { id, steps } of PROCEDURES)
    for (const { id: step, doing, gate, ask } of steps)
      if (/look under the bed|under it all the way/i.test(doing))
        expect([
          id,
          step,
          gate?.checks.some((check) => /unplugged.*cool/i.test(check)) || ask?.answers.some(({ proves }) => proves),
        ]).toEqual([id, step, true]);
});

test('no light, crumb or cut found at the end begins a cure anew', () => {
  const job = procedure('fit-base-and-sheet');
  for (const late of ['light-late', 'cut-into']) {
    const step = job.steps.find(({ id }) => id === late)!;
    const ways = [step.next, ...step.cant.map(({ to }) => to), ...(step.ask?.answers ?? []).map(({ to }) => to)];
    for (const way of ways) expect(['trim-early', 'weight', 'untouched', 'bubble-stays']).not.toContain(way);
  }
});

test('a board that is not levelled yet is not called done', () => {
  const level = procedure('magnet-under-board').steps.find(({ id }) => id === 'level')!;
  expect(level.cant.map(({ to }) => to)).toEqual([STOPPED]);
});

test('nothing is typed that feeds nothing', () => {
  const idle = PROCEDURES.flatMap(({ id, steps }) => {
    const told = JSON.stringify(steps.map(({ takes, layers, effects }) => ({ takes, layers, effects })));
    return steps.flatMap(({ id: step, readings = [], branches = [], effects = [] }) =>
      readings
        .filter(
          ({ id: name, least, most }) =>
            !told.includes(`"${step}.${name}"`) &&
            !branches.some(({ reading, of }) => reading === name || of === name) &&
            least === undefined &&
            most === undefined &&
            !readings.some(({ where }) => where?.reading === name) &&
            !effects.some((effect) => JSON.stringify(effect).includes(`"${name}"`)),
        )
        .map(({ id: name }) => `${id} ${step} ${name}`),
    );
  });
  expect(idle).toEqual([]);
});

test('no school is asked where it changes nothing', () => {
  const level = procedure('level-resin');
  // With film or lock no sheet is tugged; under the lock zero is set from where the print stopped.
  for (const [choice, gauges] of [
    ['drag', ['quarters', 'sheet']],
    ['raise', ['quarters', 'sheet', 'film']],
  ] as const)
    expect(level.choices.find(({ id }) => id === choice)!.only).toEqual({ choice: 'gauge', is: gauges });
});
