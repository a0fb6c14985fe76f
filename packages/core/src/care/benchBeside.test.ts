import { proved, trials } from '../simulated/prove.fixture';
import { seededRandom } from '../level/seededMap.fixture';
import { HANDS, type Bench } from './hands.fixture';
import type { Procedure } from './procedure';
import { PROCEDURES } from './procedures';
import { applyRunEvent, beginRun, effectsOf, stepOf, type RunEvent, type RunSetup } from './runProcedure';
import { doneWell, inTime } from './workWell.fixture';

/** What the records say by the effects of the steps alone. */
interface Records {
  where: Record<string, 'machine' | 'table' | 'waste'>;
  held: Set<string>;
  home: number;
}

/** Where each part is before a job begins. */
const begun = ({ parts }: Procedure) =>
  Object.fromEntries(parts.map(({ id, from }) => [id, from === 'machine' ? ('machine' as const) : ('table' as const)]));

/** Somebody walks a job at random: any answer, any thing that can be in the way; and ends somewhere, or goes straight on. */
function walk(
  procedure: Procedure,
  random: () => number,
): { bench: Bench; records: Records; way: string[]; cures: boolean } {
  const choices = Object.fromEntries(
    procedure.choices.map(({ id, options }) => [id, options[Math.floor(random() * options.length)]!.id]),
  );
  const setup: RunSetup = { procedure, choices, startedAt: 0 };
  let state = beginRun(setup);
  const bench: Bench = { where: begun(procedure), cures: new Set(), home: 0 };
  const records: Records = { where: begun(procedure), held: new Set(), home: 0 };
  const way: string[] = [];
  for (let steps = 0; state.at !== null && steps < 400; steps++) {
    const step = stepOf(setup, state);
    const answers = step.ask?.answers ?? [];
    // After many steps somebody has had enough of trouble.
    const stumbles = random() < (steps < 60 ? 0.12 : 0);
    const answer = answers.length > 0 ? answers[random() < 0.6 ? 0 : Math.floor(random() * answers.length)]!.id : null;
    const event: RunEvent = stumbles
      ? {
          kind: 'cant',
          stepId: step.id,
          at: inTime(setup, state),
          way: Math.floor(random() * step.cant.length),
          note: '',
        }
      : doneWell(setup, state, answer);
    const left = event.kind === 'cant' ? `cant ${event.way}` : (answer ?? 'next');
    const next = applyRunEvent(setup, state, event);
    HANDS[procedure.id]?.[step.id]?.(bench, left);
    for (const effect of effectsOf(setup, event, next))
      switch (effect.kind) {
        case 'take-off':
          if (records.where[effect.part] === 'machine') records.where[effect.part] = 'table';
          break;
        case 'mount':
          if (records.where[effect.part] !== 'waste') records.where[effect.part] = 'machine';
          break;
        case 'retire':
          records.where[effect.part] = 'waste';
          records.held.delete(effect.part);
          break;
        case 'hold':
          records.held.add(effect.part);
          break;
        case 'release':
          records.held.delete(effect.part);
          break;
        case 'home-moved':
          records.home++;
      }
    way.push(`${step.id}: ${left}`);
    state = next;
  }
  const { wait } = choices;
  const hours = procedure.choices.find(({ id }) => id === 'wait')?.options.find(({ id }) => id === wait)?.hours ?? 0;
  return { bench, records, way, cures: hours > 0 };
}

const MOVING = PROCEDURES.filter(({ id }) => id in HANDS);

test('whatever way a job is left, the records say what the bench holds', () => {
  const walks = trials(4000, 700);
  const wrong: string[] = [];
  const left = new Set<string>();
  for (let k = 0; k < walks; k++) {
    const procedure = MOVING[k % MOVING.length]!;
    const { bench, records, way, cures } = walk(procedure, seededRandom(k + 1));
    left.add(`${procedure.id} ${way.at(-1)}`);
    const say = (what: string) => wrong.push(`${procedure.id}, ${what}; ${way.slice(-4).join(' → ')}`);
    for (const { id, from } of procedure.parts) {
      // What was never brought to the machine lies where it lay.
      if (
        records.where[id] !== bench.where[id] &&
        !(from === 'rack' && bench.where[id] === 'table' && records.where[id] !== 'machine')
      )
        say(`${id} is on the ${bench.where[id]}, the records say ${records.where[id]}`);
      if (records.held.has(id) && !bench.cures.has(id)) say(`${id} is held and nothing cures on it`);
      if (cures && bench.cures.has(id) && !records.held.has(id)) say(`${id} cures and is not held`);
    }
    if (records.home !== bench.home) say(`home was moved ${bench.home} times, the records say ${records.home}`);
  }
  proved(
    'documents',
    'walks of jobs at random, a bench beside the records',
    `${wrong.length} differ of ${walks}, left in ${left.size} ways`,
  );
  expect([...new Set(wrong)].slice(0, 12)).toEqual([]);
  expect(left.size).toBeGreaterThan(80);
});

test('every step that tells the records where something is has hands that put it there', () => {
  const lacking = PROCEDURES.flatMap(({ id, steps }) =>
    steps
      .filter(({ effects = [] }) =>
        effects.some(({ kind }) => ['take-off', 'mount', 'retire', 'hold', 'release', 'home-moved'].includes(kind)),
      )
      .filter((step) => !HANDS[id]?.[step.id])
      .map((step) => `${id} ${step.id}`),
  );
  expect(lacking).toEqual([]);
});
