import type { PlanWrite } from '@even-bed/contract';
import { PROCEDURES, straightWay, type ProcedureStep } from '@even-bed/core';
import { LIGHT } from '@even-bed/core/care/lightCodes';
import { isAsked } from '@even-bed/core/care/runProcedure';
import { addJobEvent, startJob } from '../care/jobStore';
import { keepPlan } from '../fit/store';
import type { DemoEvent } from './loadDemo';
import type { SeededIds } from './seededIds';
import { DAY_MS } from './saltmarsh';

const HOUR = 3_600_000;
const MINUTE = 60_000;

interface Hall {
  machineIds: ReadonlyMap<string, string>;
  ids: SeededIds;
  now: number;
}

/** What was read at the steps of the hall's jobs, by "step.reading" or by reading. */
const READINGS: Record<string, number> = {
  base: 1.21,
  sheet: 0.52,
  wipes: 3,
  width: 235.2,
  depth: 234.9,
  'along-right.where': LIGHT.middle,
  feeler: 0.05,
  stands: 10.6,
  spring: 9.9,
  pile: 1,
};

/** What was read at a step; what is chosen from a list is the first of it where nothing else is said. */
function read({ id, readings = [] }: ProcedureStep): Record<string, number> {
  const known: Record<string, number> = {};
  for (const reading of readings) {
    const value = READINGS[`${id}.${reading.id}`] ?? READINGS[reading.id] ?? reading.options?.[0]?.value;
    if (value !== undefined && isAsked(reading, known)) known[reading.id] = value;
  }
  return known;
}

interface DemoJob {
  procedure: string;
  machine: string;
  /** ms before now. */
  begunAgo: number;
  choices: Record<string, string>;
  /** The step it stands at; left out: it was worked to its end. */
  until?: string;
  /** ms that a step takes by hand. */
  pace: number;
}

const JOBS: readonly DemoJob[] = [
  {
    procedure: 'under-bed-check',
    machine: 'Curlew',
    begunAgo: 40 * DAY_MS,
    choices: {},
    pace: 4 * MINUTE,
  },
  {
    procedure: 'fit-base-and-sheet',
    machine: 'Oystercatcher',
    begunAgo: 50 * HOUR,
    choices: { alcohol: '90', from: 'back', wait: '72' },
    until: 'untouched',
    pace: 5 * MINUTE,
  },
  {
    procedure: 'check-plate',
    machine: 'Turnstone',
    begunAgo: 25 * MINUTE,
    choices: {},
    until: 'across-front',
    pace: 4 * MINUTE,
  },
];

const PLANS: readonly { machine: string; ago: number; plan: Pick<PlanWrite, 'tool' | 'title' | 'input'> }[] = [
  {
    machine: 'Whimbrel',
    ago: 3 * DAY_MS,
    plan: {
      tool: 'stack',
      title: 'Base and sheet for the glass',
      input: {
        before: [
          { name: 'plate', thickness: 3, metal: 'aluminium' },
          { name: 'glass', thickness: 3.8 },
        ],
        after: [
          { name: 'plate', thickness: 3, metal: 'aluminium' },
          { name: 'base', thickness: 1.3, limit: 105 },
          { name: 'spring sheet', thickness: 0.45, limit: 115, metal: 'steel' },
        ],
        finding: { by: 'stop-screw', pitch: 0.5, clockwise: 'sooner' },
        family: 'filament',
        moves: 'head',
        home: 'surface',
        adjusters: { up: 2.1, down: 2.9 },
        spacerLayer: 0.16,
        buildHeight: null,
        slack: null,
      },
    },
  },
  {
    machine: 'Ruff',
    ago: 9 * DAY_MS,
    plan: {
      tool: 'blanks',
      title: 'Panes for the small ones',
      input: {
        sheet: { width: 420, depth: 330 },
        pieces: [{ name: '', width: 142, depth: 118, count: null, corners: 9 }],
        kerf: 0,
        trim: 0,
        method: 'snap',
        mayRotate: true,
        sheets: 6,
        price: 4.5,
      },
    },
  },
];

/** Jobs done, under way and waiting, and plans that were kept. */
export function yearOfJobs({ machineIds, ids, now }: Hall): DemoEvent[] {
  return [
    ...JOBS.flatMap((job) => worked(job, { machineIds, ids, now })),
    ...PLANS.map(({ machine, ago, plan }): DemoEvent => {
      const at = now - ago;
      const id = ids.next(at);
      const machineId = machineIds.get(machine)!;
      return { at, write: (trx) => keepPlan(trx, id, { ...plan, machineId, at }) };
    }),
  ];
}

function worked(
  { procedure: id, machine, begunAgo, choices, until, pace }: DemoJob,
  { machineIds, ids, now }: Hall,
): DemoEvent[] {
  const procedure = PROCEDURES.find((known) => known.id === id)!;
  const begun = now - begunAgo;
  const jobId = ids.next(begun);
  const start = {
    procedureId: id,
    version: 0,
    machineId: machineIds.get(machine)!,
    choices,
    parts: {},
    sides: {},
    together: null,
    at: begun,
  };
  const events: DemoEvent[] = [{ at: begun, write: (trx) => startJob(trx, jobId, start, begun) }];
  let at = begun;
  for (const step of straightWay({ procedure, choices })) {
    if (step.id === until) break;
    at += pace + 1000 * (step.timer?.least?.seconds ?? 0);
    const done = at;
    const eventId = ids.next(done);
    events.push({
      at: done,
      write: (trx) =>
        addJobEvent(
          trx,
          jobId,
          eventId,
          {
            kind: 'done',
            at: done,
            stepId: step.id,
            readings: read(step),
            checks: step.gate?.checks.map((_, i) => i) ?? [],
            answer: step.ask?.answers[0]!.id ?? null,
          },
          done,
        ),
    });
  }
  return events;
}
