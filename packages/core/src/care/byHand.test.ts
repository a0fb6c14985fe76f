import fs from 'node:fs';
import path from 'node:path';
import type { Procedure, ProcedureStep } from './procedure';
import { PROCEDURES } from './procedures';
import { straightWay } from './runProcedure';

/** Taps from the machine's page until the first step is in hand. */
const TO_BEGIN = 3;

function counted(procedure: Procedure): (string | number)[] {
  const choices = Object.fromEntries(procedure.choices.map(({ id, usual }) => [id, usual]));
  const way = straightWay({ procedure, choices });
  const sum = (of: (step: ProcedureStep) => number) => way.reduce((all, step) => all + of(step), 0);
  const checks = sum(({ gate }) => gate?.checks.length ?? 0);
  const limited = sum(
    ({ readings = [] }) => readings.filter(({ least, most }) => least !== undefined || most !== undefined).length,
  );
  return [
    procedure.title,
    way.length,
    sum(({ sum: asked }) => (asked && asked !== 'level' ? 1 : 0)),
    checks + limited,
    sum(({ timer }) => (timer ? 1 : 0)),
    sum(({ effects = [] }) => effects.length),
    sum(({ readings = [] }) => readings.length),
    checks,
    way.length + checks + TO_BEGIN,
    procedure.steps.length - way.length,
  ];
}

test('the table of the jobs in docs/by-hand.md is what the documents say', () => {
  const text = fs.readFileSync(path.join(__dirname, '../../../../docs/by-hand.md'), 'utf8');
  const rows = text
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
  expect(rows).toEqual(PROCEDURES.map((procedure) => counted(procedure).map(String)));
});
