import { INSPECTION_CARDS } from './inspectionCards';
import { CAUTIONS } from './cautions';
import {
  DONE,
  PICTURE_PLACES,
  PICTURES,
  STOPPED,
  type OnlyWhen,
  type Procedure,
  type ProcedureStep,
  type Target,
} from './procedure';

/** What is wrong with a procedure, and at which of its steps; empty when it is whole. */
export interface ProcedureFault {
  /** The step, or null for the document as a whole. */
  stepId: string | null;
  message: string;
}

const isEnd = (target: Target) => target === DONE || target === STOPPED;

/**
 * Whether a procedure can be worked through: every name leads somewhere, every step can reach an end, and what can't be
 * undone is only ever come to by passing its gate, each time anew: no gate can be walked round.
 * Done by walking the graph of its steps under every combination of its schools.
 */
export function checkProcedure(procedure: Procedure): ProcedureFault[] {
  const faults = namesOf(procedure);
  if (faults.length > 0) return faults;
  for (const choices of combinations(procedure)) {
    const graph = graphOf(procedure, choices);
    faults.push(...endsOf(graph), ...gatesOf(graph));
  }
  const seen = new Set<string>();
  return faults.filter(({ stepId, message }) => !seen.has(`${stepId} ${message}`) && seen.add(`${stepId} ${message}`));
}

/** Names, limits and references. */
function namesOf(procedure: Procedure): ProcedureFault[] {
  const faults: ProcedureFault[] = [];
  const add = (stepId: string | null, message: string) => void faults.push({ stepId, message });
  const { steps, choices, parts } = procedure;
  if (steps.length === 0) add(null, 'It has no step.');
  for (const [what, list] of [
    ['step', steps],
    ['choice', choices],
    ['part', parts],
  ] as const) {
    const ids = list.map(({ id }) => id);
    for (const id of new Set(ids.filter((name, i) => ids.indexOf(name) !== i)))
      add(null, `The ${what} “${id}” stands there twice.`);
  }
  const known = new Set(steps.map(({ id }) => id));
  for (const choice of choices) {
    if (!choice.options.some(({ id }) => id === choice.usual))
      add(null, `“${choice.question}”: its usual option “${choice.usual}” is not among its options.`);
    const { only } = choice;
    const other = only && choices.find(({ id }) => id === only.choice);
    if (only && !only.is.every((option) => other?.options.some(({ id }) => id === option)))
      add(null, `“${choice.question}” hangs on “${only.choice}”, which is no choice with such options.`);
  }
  for (const step of steps) {
    const target = (to: Target, from: string) => {
      if (!isEnd(to) && !known.has(to)) add(step.id, `${from} leads to “${to}”, which is no step.`);
    };
    target(step.next, 'It');
    step.cant.forEach(({ to, label }) => target(to, `“${label}”`));
    step.ask?.answers.forEach(({ to, label }) => target(to, `The answer “${label}”`));
    step.branches?.forEach(({ to }) => target(to, 'A branch'));
    if (step.cant.length === 0) add(step.id, 'It says nowhere what to do when it can’t be done.');
    if (step.ask && step.ask.answers.length === 0) add(step.id, 'It asks and knows no answer.');
    if (step.timer?.most && step.timer.late === undefined)
      add(step.id, 'Its time runs out and it does not say where that leads.');
    if (step.timer?.late !== undefined) target(step.timer.late, 'Being late');
    if (
      step.gate &&
      step.gate.checks.length === 0 &&
      !step.readings?.some(({ least, most }) => least !== undefined || most !== undefined)
    )
      add(step.id, 'Its gate checks nothing.');
    const readings = new Set(step.readings?.map(({ id }) => id));
    for (const reading of step.readings ?? [])
      if (
        !(reading.min <= reading.max) ||
        (reading.least ?? reading.min) < reading.min ||
        (reading.most ?? reading.max) > reading.max
      )
        add(step.id, `The limits of “${reading.label}” contradict each other.`);
    for (const reading of (step.branches ?? []).flatMap(({ reading: one, of }) =>
      of === undefined ? [one] : [one, of],
    ))
      if (!readings.has(reading)) add(step.id, `It branches on “${reading}”, which it does not read.`);
    for (const caution of step.cautions ?? [])
      if (!(caution in CAUTIONS)) add(step.id, `The caution “${caution}” is not known.`);
    if (step.picture && !PICTURES.includes(step.picture)) add(step.id, `The picture “${step.picture}” is not known.`);
    if (step.mark !== undefined && !(step.picture && PICTURE_PLACES[step.picture]?.[step.mark - 1]))
      add(step.id, 'It means a place that its picture does not have.');
    for (const { reading } of step.layers ?? []) if (reading !== undefined) checkTaken(reading, step.id);
    if (step.only) checkOnly(step.only, step.id);
    for (const { only, joins } of step.layers ?? []) {
      if (only) checkOnly(only, step.id);
      if (joins !== undefined && !parts.some(({ id }) => id === joins))
        add(step.id, `It joins the part “${joins}”, which is not there.`);
    }
    if (step.byChoice) checkOnly({ choice: step.byChoice.choice, is: Object.keys(step.byChoice.says) }, step.id);
    if (step.phase !== undefined && !(procedure.phases ?? []).some(({ id }) => id === step.phase))
      add(step.id, `It belongs to the phase “${step.phase}”, which is not there.`);
    if (step.bound && (step.readings || step.gate || step.timer || step.sum))
      add(step.id, 'Hands are full here, and it asks for something to be typed, ticked or waited for.');
    for (const gate of step.behind ?? [])
      if (!known.has(gate)) add(step.id, `It stands behind “${gate}”, which is no step.`);
    if (step.ask?.answers.some(({ when }) => when !== undefined) && !step.sum)
      add(step.id, 'Its answer waits for a sum, and it has none.');
    const used = step.uses?.choice;
    if (used !== undefined && !choices.some(({ id }) => id === used))
      add(step.id, `What it uses hangs on “${used}”, which is no choice.`);
    for (const reading of Object.values(step.takes ?? {})) checkTaken(reading, step.id);
    for (const { id, where, options, min, max } of step.readings ?? []) {
      if (where && !readings.has(where.reading))
        add(step.id, `“${id}” hangs on “${where.reading}”, which it does not read.`);
      for (const { value } of options ?? [])
        if (!(value >= min && value <= max)) add(step.id, `An option of “${id}” lies outside of what can be.`);
    }
    for (const duration of [step.timer?.least, step.timer?.most]) checkHours(duration?.hoursOf, step.id);
    for (const effect of step.effects ?? []) {
      if ('part' in effect && !parts.some(({ id }) => id === effect.part))
        add(step.id, `It changes the part “${effect.part}”, which is not there.`);
      for (const answer of effect.answers ?? [])
        if (!step.ask?.answers.some(({ id }) => id === answer))
          add(step.id, `It changes something with the answer “${answer}”, which it does not know.`);
      if (effect.kind === 'hold' && typeof effect.hours === 'object') checkHours(effect.hours.hoursOf, step.id);
      if (effect.kind === 'level') {
        for (const { choice } of [effect.way, effect.drag])
          if (!choices.some(({ id }) => id === choice)) add(step.id, `It goes by “${choice}”, which is no choice.`);
        for (const reading of Object.values(effect.takes)) checkTaken(reading, step.id);
      }
      if ((effect.kind === 'offset' || effect.kind === 'key') && !readings.has(effect.reading))
        add(step.id, `It keeps “${effect.reading}”, which it does not read.`);
      if (effect.kind === 'surveyed') for (const reading of Object.values(effect.takes)) checkTaken(reading, step.id);
      if (effect.kind === 'lapped') {
        if (!choices.some(({ id }) => id === effect.how.choice))
          add(step.id, `It goes by “${effect.how.choice}”, which is no choice.`);
        if (!steps.some(({ id }) => id === effect.step))
          add(step.id, `It takes rounds from “${effect.step}”, which is no step.`);
      }
      if (effect.kind === 'inspect') {
        const card = INSPECTION_CARDS.find(({ id }) => id === effect.card);
        if (!card) add(step.id, `The inspection “${effect.card}” is not known.`);
        for (const code of Object.values(effect.codes))
          if (card && !card.codes.some((known) => known.code === code))
            add(step.id, `“${code}” is no code of “${card.title}”.`);
      }
    }
  }
  return faults;

  function checkTaken(reading: string, stepId: string) {
    if (!steps.some(({ id, readings }) => readings?.some((one) => `${id}.${one.id}` === reading)))
      add(stepId, `Its sum takes “${reading}”, which nobody reads.`);
  }

  function checkOnly(only: OnlyWhen, stepId: string) {
    const [options, question] =
      'choice' in only
        ? [
            choices.find(({ id }) => id === only.choice)?.options,
            choices.find(({ id }) => id === only.choice)?.question,
          ]
        : [steps.find(({ id }) => id === only.answered)?.ask?.answers, only.answered];
    if (!options)
      add(
        stepId,
        'choice' in only
          ? `It depends on the choice “${only.choice}”, which is not there.`
          : `It depends on an answer of “${only.answered}”, which asks nothing.`,
      );
    for (const option of only.is)
      if (options && !options.some(({ id }) => id === option))
        add(stepId, `“${option}” is no option of “${question}”.`);
  }

  function checkHours(choiceId: string | undefined, stepId: string) {
    if (choiceId === undefined) return;
    const choice = choices.find(({ id }) => id === choiceId);
    if (!choice) add(stepId, `It waits as long as “${choiceId}” says, which is no choice.`);
    else if (choice.options.some(({ hours }) => hours === undefined))
      add(stepId, `“${choice.question}” does not say for every option how many hours.`);
  }
}

/** Every way of answering its schools. */
export function combinations({ choices }: Procedure): Record<string, string>[] {
  return choices.reduce<Record<string, string>[]>(
    (all, { id, options }) => all.flatMap((taken) => options.map((option) => ({ ...taken, [id]: option.id }))),
    [{}],
  );
}

/** What decides whether a step is worked: options taken, answers given so far. */
export interface Taken {
  choices: Readonly<Record<string, string>>;
  answers: Readonly<Record<string, string>>;
}

/** Whether a step is worked with these options and answers. */
export const applies = ({ only }: ProcedureStep, { choices, answers }: Taken): boolean =>
  only === undefined || only.is.includes(('choice' in only ? choices[only.choice] : answers[only.answered]) ?? '');

/** Where a target really leads once steps that don't apply are passed over. @throws Error steps that pass over in a circle */
export function resolved(procedure: Procedure, target: Target, taken: Taken): Target {
  let at = target;
  for (let n = 0; n <= procedure.steps.length; n++) {
    const step = procedure.steps.find(({ id }) => id === at);
    if (!step || applies(step, taken)) return at;
    at = step.next;
  }
  throw new Error(`The steps after “${target}” pass over each other in a circle.`);
}

/** Everywhere that a target can lead, whatever was answered: steps that hang on an answer may be worked or passed over. */
function everywhere(procedure: Procedure, target: Target, choices: Record<string, string>): Target[] {
  const ends: Target[] = [];
  let at = target;
  for (let n = 0; n <= procedure.steps.length; n++) {
    const step = procedure.steps.find(({ id }) => id === at);
    if (!step?.only) return [...ends, at];
    if ('answered' in step.only) ends.push(at);
    else if (applies(step, { choices, answers: {} })) return [...ends, at];
    at = step.next;
  }
  throw new Error(`The steps after “${target}” pass over each other in a circle.`);
}

interface Edge {
  to: Target;
  /** The gate of the step it leaves was passed. */
  passes: boolean;
}
interface Graph {
  first: Target[];
  steps: Map<string, ProcedureStep>;
  edges: Map<string, Edge[]>;
}

function graphOf(procedure: Procedure, choices: Record<string, string>): Graph {
  const edge = (to: Target, passes: boolean) => everywhere(procedure, to, choices).map((end) => ({ to: end, passes }));
  const steps = new Map(
    procedure.steps
      .filter((step) => !step.only || 'answered' in step.only || applies(step, { choices, answers: {} }))
      .map((step) => [step.id, step]),
  );
  const edges = new Map(
    [...steps.values()].map((step) => [
      step.id,
      [
        // With answers, it never goes on by itself. Where an answer proves something, only that one passes.
        ...(step.ask
          ? step.ask.answers.flatMap(({ to, proves }) =>
              edge(to, step.ask!.answers.some((answer) => answer.proves) ? proves === true : true),
            )
          : edge(step.next, true)),
        ...step.cant.flatMap(({ to }) => edge(to, false)),
        ...(step.branches ?? []).flatMap(({ to }) => edge(to, false)),
        ...(step.timer?.late === undefined ? [] : edge(step.timer.late, false)),
      ],
    ]),
  );
  return { first: everywhere(procedure, procedure.steps[0]!.id, choices), steps, edges };
}

/** Steps that are reached and from which no end is. */
function endsOf({ first, steps, edges }: Graph): ProcedureFault[] {
  const before = new Map<Target, string[]>();
  for (const [from, list] of edges) for (const { to } of list) before.set(to, [...(before.get(to) ?? []), from]);
  const ending = new Set<string>();
  const back = [DONE, STOPPED].flatMap((end) => before.get(end) ?? []);
  while (back.length > 0) {
    const id = back.pop()!;
    if (ending.has(id)) continue;
    ending.add(id);
    back.push(...(before.get(id) ?? []));
  }
  return [...reached(first, edges, () => true)]
    .filter((id) => steps.has(id) && !ending.has(id))
    .map((stepId) => ({ stepId, message: 'From here no end is ever reached.' }));
}

function reached(
  from: readonly Target[],
  edges: Graph['edges'],
  goes: (from: Target, edge: Edge) => boolean,
): Set<Target> {
  const seen = new Set<Target>();
  const open = [...from];
  while (open.length > 0) {
    const id = open.pop()!;
    if (seen.has(id)) continue;
    seen.add(id);
    open.push(...(edges.get(id) ?? []).filter((edge) => goes(id, edge)).map(({ to }) => to));
  }
  return seen;
}

/** Whether a step is a gate: checks to tick, or an answer that proves. */
export const isGate = ({ gate, ask }: ProcedureStep): boolean =>
  gate !== undefined || (ask?.answers.some(({ proves }) => proves) ?? false);

/**
 * Steps that can't be undone and are come to without their gate. Where `behind` names it, it must be passed on every way
 * from the beginning, and again on every way from the step back to itself; otherwise it stands right before.
 */
function gatesOf({ first, steps, edges }: Graph): ProcedureFault[] {
  const faults: ProcedureFault[] = [];
  const refuse = (stepId: string, from: string) =>
    void faults.push({ stepId, message: `It can’t be undone, and a way leads here past every gate: from ${from}.` });
  for (const [id, { onceOnly, behind }] of steps) {
    if (!onceOnly || behind === undefined) continue;
    const gates = new Set(behind.filter((gate) => steps.has(gate) && isGate(steps.get(gate)!)));
    const round = (from: Target, edge: Edge) => !(gates.has(from) && edge.passes);
    if (reached(first, edges, round).has(id)) refuse(id, 'the beginning');
    const onward = (edges.get(id) ?? []).map(({ to }) => to);
    if (reached(onward, edges, round).has(id)) refuse(id, 'itself');
  }
  const open = (id: Target) => steps.get(id)?.onceOnly === true && steps.get(id)!.behind === undefined;
  for (const id of first) if (open(id)) refuse(id, 'the beginning');
  for (const [from, list] of edges)
    for (const { to, passes } of list)
      if (open(to) && !(passes && isGate(steps.get(from)!))) refuse(to, `“${steps.get(from)!.title}”`);
  return faults;
}
