import { readLength } from '@even-bed/core/fleet/readLength';
import { answerBySum, knownReading, verdictOf, type JobFacts } from '@even-bed/core/care/jobSum';
import type { ProcedureReading, ProcedureStep } from '@even-bed/core/care/procedure';
import {
  askOf,
  cardEvents,
  cardOf,
  exitEvents,
  exitsOf,
  needsEyes,
  undoEvents,
  type CardExit,
  type CardFill,
  type RunCard,
  type RunManner,
} from '@even-bed/core/care/runCard';
import {
  isAsked,
  missingIn,
  readingsIn,
  RunRefusal,
  type RunEvent,
  type RunState,
} from '@even-bed/core/care/runProcedure';
import { useEffect, useMemo, useState } from 'react';
import { unlessRefused } from '../fit/attempt';
import { deviceStore } from '../offline/deviceStore';
import { numberIn } from '../ui/numberIn';
import { rightNow } from '../ui/useNow';
import type { JobInHand } from './useJob';

/** Kind under which what is typed on a card is kept on this device, so that it survives a reload. */
const DRAFTS = 'card';

interface Draft {
  /** Where in the run it was typed. */
  place: string;
  readings: Record<string, string>;
  ticks: string[];
}

export interface CardInHand {
  card: RunCard;
  /** The run as it would stand with what is typed so far: what sums are worked out from. */
  ahead: RunState;
  /** The question at its end; not while its sum still waits for what is typed on the card. */
  ask: ProcedureStep['ask'];
  exits: CardExit[];
  /** It wants eyes: no knock, key or stray tap takes it on. */
  eyes: boolean;
  /** Text of a reading, typed or from the records. */
  text: (step: ProcedureStep, reading: ProcedureReading) => string;
  fromRecords: (step: ProcedureStep, reading: ProcedureReading) => boolean;
  read: (stepId: string, readingId: string, text: string) => void;
  /** Whether a reading is asked for, by what else is typed at its step. */
  asked: (step: ProcedureStep, reading: ProcedureReading) => boolean;
  ticked: (stepId: string, check: number) => boolean;
  toggle: (stepId: string, check: number) => void;
  refusal: RunRefusal | null;
  done: (answer: string | null) => void;
  leave: (exit: CardExit, note: string) => void;
  stop: (why: string) => RunRefusal | null;
  undo: () => RunRefusal | null;
  /** Readings chosen from what is shown, all that are open set to the usual one: "no light on any". */
  restUsual: (() => void) | null;
}

const field = (stepId: string, readingId: string) => `${stepId}.${readingId}`;

/** The card in hand: what is typed and ticked on it, and what takes it on. */
export function useCard(
  { job, setup, state, take }: JobInHand,
  manner: RunManner,
  facts: JobFacts | null,
  steady: (work: () => void) => () => void,
): CardInHand {
  const place = `${state.at} ${state.trail.length}`;
  const [draft, setDraft] = useState<Draft>({ place, readings: {}, ticks: [] });
  const [refusal, setRefusal] = useState<{ place: string; refusal: RunRefusal } | null>(null);
  useEffect(() => {
    void deviceStore.get<Draft>(DRAFTS, job.id).then((kept) => {
      if (kept) setDraft((now) => (Object.keys(now.readings).length + now.ticks.length === 0 ? kept : now));
    });
  }, [job.id]);
  const here = draft.place === place ? draft : { place, readings: {}, ticks: [] };
  const change = (next: Partial<Draft>) => {
    const whole = { ...here, ...next };
    setDraft(whole);
    void deviceStore.set(DRAFTS, job.id, whole);
  };
  const text = (step: ProcedureStep, reading: ProcedureReading): string => {
    const typed = here.readings[field(step.id, reading.id)];
    if (typed !== undefined) return typed;
    const before = lookedAtAnew(step, reading) ? undefined : state.readings[field(step.id, reading.id)];
    if (before !== undefined) return String(before);
    const known = reading.known && facts ? recalled(reading.known) : null;
    return known === null ? '' : String(known);
  };
  const recalled = (known: NonNullable<ProcedureReading['known']>) =>
    unlessRefused(() => knownReading(known, setup, state, facts!));
  const values = (step: ProcedureStep): Record<string, number> =>
    Object.fromEntries(
      (step.readings ?? []).flatMap((reading) => {
        const said = text(step, reading);
        if (said.trim() === '') return reading.optional ? [] : [[reading.id, NaN]];
        // A length may be typed as it is read: 5 1/4 in.
        return [[reading.id, reading.unit === 'mm' ? (readLength(said) ?? NaN) : numberIn(said)]];
      }),
    );
  // Sums go by what is typed on the card: the run as it would stand.
  const phase = setup.procedure.steps.find(({ id }) => id === state.at)?.phase;
  const near = setup.procedure.steps.filter((step) => step.id === state.at || (phase && step.phase === phase));
  const ahead: RunState = {
    ...state,
    readings: {
      ...state.readings,
      ...Object.fromEntries(
        near.flatMap((step) =>
          Object.entries(values(step)).flatMap(([id, value]) =>
            Number.isFinite(value) ? [[field(step.id, id), value]] : [],
          ),
        ),
      ),
    },
  };
  const known = Object.fromEntries(
    facts === null
      ? []
      : near.flatMap((step) => {
          const answer = unlessRefused(() => answerBySum(setup, ahead, step, facts));
          return answer === null ? [] : [[step.id, answer]];
        }),
  );
  const card = cardOf(setup, state, manner, known);
  const asking = askOf(card, known);
  const verdict = asking && facts ? unlessRefused(() => verdictOf(setup, ahead, card.steps.at(-1)!, facts)) : null;
  const goesBySum = asking?.answers.some(({ when }) => when !== undefined) ?? false;
  const unread = card.steps.some((step) => Object.keys(missingIn(step, readingsIn(step, values(step)))).length > 0);
  // What a sum will say is not asked of somebody who has not typed what it needs.
  const ask =
    asking && !(goesBySum && verdict === null && unread)
      ? {
          ...asking,
          answers: asking.answers.filter(
            ({ unless, family }) =>
              (unless === undefined || unless !== verdict) &&
              (family === undefined || !facts || family === facts.family),
          ),
        }
      : undefined;
  const fill = (answer: string | null): CardFill => ({
    readings: Object.fromEntries(card.steps.map((step) => [step.id, values(step)])),
    checks: Object.fromEntries(
      card.steps.map(({ id, gate }) => [
        id,
        (gate?.checks ?? []).map((_, i) => i).filter((i) => here.ticks.includes(field(id, String(i)))),
      ]),
    ),
    answer,
    known,
  });
  const send = (make: () => RunEvent[]) => {
    try {
      const events = make();
      const refused = take(events);
      setRefusal(refused && { place, refusal: refused });
      // Undone at once, the card comes back with what was typed; what was ticked is seen anew.
      if (!refused) void deviceStore.set(DRAFTS, job.id, { ...here, ticks: [] });
    } catch (error) {
      if (!(error instanceof RunRefusal)) throw error;
      setRefusal({ place, refusal: error });
    }
  };
  const open = card.steps.flatMap((step) =>
    (step.readings ?? [])
      .filter((reading) => reading.options && reading.where === undefined && text(step, reading) === '')
      .map((reading) => [field(step.id, reading.id), String(reading.options![0]!.value)] as const),
  );
  return {
    card,
    ahead,
    ask,
    exits: useMemo(() => exitsOf(card, known), [card, known]),
    eyes: needsEyes(card, known),
    text,
    fromRecords: (step, reading) =>
      here.readings[field(step.id, reading.id)] === undefined && text(step, reading) !== '',
    read: (stepId, readingId, said) => change({ readings: { ...here.readings, [field(stepId, readingId)]: said } }),
    asked: (step, reading) => isAsked(reading, values(step)),
    ticked: (stepId, check) => here.ticks.includes(field(stepId, String(check))),
    toggle: (stepId, check) => {
      const name = field(stepId, String(check));
      change({ ticks: here.ticks.includes(name) ? here.ticks.filter((one) => one !== name) : [...here.ticks, name] });
    },
    refusal: refusal?.place === place ? refusal.refusal : null,
    done: (answer) => steady(() => send(() => cardEvents(setup, state, card, fill(answer), rightNow())))(),
    leave: (exit, note) => send(() => exitEvents(setup, state, card, fill(null), { exit, note, at: rightNow() })),
    stop: (why) => take([{ kind: 'stopped', at: rightNow(), stepId: state.at!, why }]),
    undo: () => take(undoEvents(state, rightNow())),
    restUsual: open.length > 1 ? () => change({ readings: { ...here.readings, ...Object.fromEntries(open) } }) : null,
  };
}

/** Sums over what hands have just changed: what was read before they did says nothing of it. */
const CHANGED_BY_HAND: readonly ProcedureStep['sum'][] = ['lap', 'tugs', 'pieces'];

/** Whether a step that comes back is read anew: after another round, or where the reading itself led away from it. */
const lookedAtAnew = ({ sum, branches = [] }: ProcedureStep, { id }: ProcedureReading): boolean =>
  CHANGED_BY_HAND.includes(sum) || branches.some(({ reading }) => reading === id);
