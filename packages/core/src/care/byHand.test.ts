import fs from 'node:fs';
import path from 'node:path';
import type { Procedure, ProcedureReading } from './procedure';
import { PROCEDURES } from './procedures';
import type { RunManner } from './runCard';
import { beginRun } from './runProcedure';
import { cardsStraight, straightAnswers, usualChoices } from './workWell.fixture';

/** Taps from the machine's page until the first card is in hand: the job, and "Begin". */
const TO_BEGIN = 2;

/** Taps in all, numbers typed and checks ticked on the straight way, as the documents of a step a screen asked them. */
const BEFORE: Record<string, [taps: number, numbers: number, ticks: number]> = {
  'remove-old-surface': [14, 3, 3],
  'check-plate': [13, 8, 0],
  'fit-base-and-sheet': [28, 8, 8],
  'laminate-film': [14, 3, 2],
  'fit-flex-on-resin': [26, 6, 9],
  'mount-glass': [16, 2, 3],
  'cut-glass': [15, 1, 4],
  'cut-laminate': [13, 2, 4],
  'countersink-screws': [13, 3, 5],
  'under-bed-check': [11, 2, 1],
  'fit-film': [16, 1, 4],
  'replace-and-retire': [13, 1, 3],
};

/** A machine that the shop knows: its plate, its springs and what a sum says are in the records; a new part is measured. */
const typed = ({ optional, options, known }: ProcedureReading) =>
  optional !== true && options === undefined && (known === undefined || known.of === 'thickness');

function counted(procedure: Procedure, manner: RunManner): [taps: number, numbers: number, ticks: number] {
  const setup = { procedure, choices: usualChoices(procedure), startedAt: 0 };
  const cards = cardsStraight(setup, beginRun(setup), manner, straightAnswers(procedure));
  const steps = cards.flatMap(({ card }) => card.steps);
  const ticks = steps.reduce((all, { gate }) => all + (gate?.checks.length ?? 0), 0);
  const numbers = steps.reduce((all, { readings = [] }) => all + readings.filter(typed).length, 0);
  const levels = steps.filter(({ sum }) => sum === 'level').length;
  // Six lines without light are one tap.
  const shown = cards.filter(({ card }) => card.steps.some(({ readings }) => readings?.some(({ options }) => options)));
  return [TO_BEGIN + cards.length + ticks + levels + shown.length, numbers, ticks];
}

const rows = PROCEDURES.map((procedure) => {
  const now = counted(procedure, 'practised');
  const before = BEFORE[procedure.id];
  const [stepByStep] = counted(procedure, 'step-by-step');
  return [
    procedure.title,
    ...[0, 1, 2].flatMap((i) => [before ? String(before[i]) : '–', String(now[i])]),
    String(stepByStep),
  ];
});

test('the table of the jobs in docs/by-hand.md is what the documents say', () => {
  const text = fs.readFileSync(path.join(__dirname, '../../../../docs/by-hand.md'), 'utf8');
  const written = text
    .slice(text.indexOf('## The jobs'))
    .split('\n')
    .filter((line) => line.startsWith('|'))
    .slice(2)
    .map((line) =>
      line
        .split('|')
        .slice(1, -1)
        .map((cell) => cell.trim()),
    );
  expect(written).toEqual(rows);
});

test('base and sheet take at most 10 taps and 2 numbers; each of the twelve at most half of what it took', () => {
  const base = PROCEDURES.find(({ id }) => id === 'fit-base-and-sheet')!;
  const [taps, numbers] = counted(base, 'practised');
  expect(taps).toBeLessThanOrEqual(10);
  expect(numbers).toBeLessThanOrEqual(2);
  const over = PROCEDURES.flatMap((procedure) => {
    const before = BEFORE[procedure.id];
    if (!before) return [];
    const now = counted(procedure, 'practised');
    return ['taps', 'numbers', 'ticks'].flatMap((what, i) =>
      2 * now[i]! > before[i]! ? [`${procedure.id} ${what}`] : [],
    );
  });
  // One number stays one: how thick the new surface is, where nobody has measured it yet. Under the bed a gate more is worth a tap:
  // unplugged before hands go there, and the trip point moved before it is plugged in.
  // Which screw is sunk is one tap more: by another's head the cone is cut too wide.
  expect(over).toEqual([
    'countersink-screws taps',
    'under-bed-check taps',
    'under-bed-check ticks',
    'replace-and-retire numbers',
  ]);
});
