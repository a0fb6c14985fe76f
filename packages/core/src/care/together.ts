import type { Procedure } from './procedure';
import { progressOf, timerOf, type RunSetup, type RunState } from './runProcedure';

/** A run among those of several machines that are worked alike. */
export interface TogetherRun {
  id: string;
  setup: RunSetup;
  state: RunState;
}

/**
 * Whose card the hands take next: the machine that is furthest behind, so that all of them go through a phase before the
 * next begins; of those the first in their order after the one in hand. What waits by itself, or has ended, is passed over.
 * @param now epoch ms
 * @returns null: all of them wait or have ended
 */
export function nextTogether(runs: readonly TogetherRun[], current: string | null, now: number): string | null {
  const from = runs.findIndex(({ id }) => id === current) + 1;
  const turn = [...runs.slice(from), ...runs.slice(0, from)];
  const hands = turn.filter(({ setup, state }) => {
    const until = state.at === null ? null : (timerOf(setup, state)?.until ?? null);
    return state.at !== null && (until === null || until <= now);
  });
  const behind = Math.min(...hands.map(({ setup, state }) => progressOf(setup, state).at));
  return hands.find(({ setup, state }) => progressOf(setup, state).at === behind)?.id ?? null;
}

/** What is laid ready and fetched before a job begins. */
export interface CarryList {
  /** Each once, for however many machines. */
  tools: string[];
  /** For each machine anew. */
  materials: { name: string; count: number }[];
  /** What is fetched, by machine; null: no tag is named. */
  parts: { machine: string; part: string; tag: string | null; place: string }[];
}

interface CarryFor {
  machine: string;
  parts: Readonly<Record<string, { tag: string; place: string } | undefined>>;
}

/** What has to be carried for a job on these machines. */
export function carryList(procedure: Procedure, machines: readonly CarryFor[]): CarryList {
  return {
    tools: procedure.tools,
    materials: procedure.materials.map((name) => ({ name, count: machines.length })),
    parts: machines.flatMap(({ machine, parts }) =>
      procedure.parts
        .filter(({ from }) => from === 'rack')
        .map(({ id, label }) => ({ machine, part: label, tag: parts[id]?.tag ?? null, place: parts[id]?.place ?? '' })),
    ),
  };
}

/** What the records lack when a part of a job is not followed. */
export type PartLoss = 'place' | 'hold' | 'life' | 'retired' | 'seen';

/** What is lost when nobody says which surface a part is, by what the document would write of it. */
export function partLosses({ steps }: Procedure, partId: string): PartLoss[] {
  const lost = new Set<PartLoss>();
  for (const effect of steps.flatMap(({ effects = [] }) => effects))
    if ('part' in effect && effect.part === partId) lost.add(LOSSES[effect.kind]);
  return [...lost];
}

const LOSSES = {
  'take-off': 'place',
  mount: 'place',
  'lift-layers': 'place',
  hold: 'hold',
  release: 'hold',
  work: 'life',
  thickness: 'life',
  retire: 'retired',
  inspect: 'seen',
  lapped: 'seen',
  surveyed: 'seen',
} as const;
