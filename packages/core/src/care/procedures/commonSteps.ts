import { STOPPED, type ProcedureStep, type Target } from '../procedure';

// Steps that several jobs have in common, told once. Each leads to where its job goes on.

/** Before a machine is taken apart: the spacer is printed first. */
export const printSpacer = (back: Target): ProcedureStep => ({
  id: 'print-spacer',
  title: 'Print the spacer first',
  doing: 'Print it before the machine is taken apart, here or on another one.',
  sum: 'spacer',
  cant: [{ label: 'There is no printer for it', to: STOPPED }],
  next: back,
});

/** A strip of adhesive is laid bare, the rest of the liner stays on. */
export const exposeStrip = (next: Target): ProcedureStep => ({
  id: 'strip',
  title: 'Expose a strip and crease the liner',
  doing: 'Peel 40 mm of liner along the edge you begin from and crease it flat. Leave the rest on.',
  why: 'Peeling all of it at once is a known regret.',
  picture: 'liner-strip',
  cant: [{ label: 'The liner tore', to: 'torn-liner' }],
  next,
});

export const tornLiner: ProcedureStep = {
  id: 'torn-liner',
  title: 'A torn liner',
  doing: 'Lift the torn part with tape stuck on it. Cover bare adhesive with baking paper until you need it.',
  cant: [{ label: 'The adhesive is spoilt', to: STOPPED }],
  next: 'strip',
};

/** What the sum said is done before anything homes. */
export const moveTripPoint = (layers: ProcedureStep['layers'], next: Target): ProcedureStep => ({
  id: 'move',
  title: 'Move the trip point',
  doing: 'Do what the sum said: spacer, screw or flag, before anything homes.',
  sum: 'stack',
  ...(layers ? { layers } : {}),
  cautions: ['moving'],
  gate: { checks: ['Is the trip point moved as the sum says, or does a probe follow the surface?'] },
  cant: [{ label: 'It does not move so far', to: STOPPED }],
  next,
});

/** The first homing over a new stack, a hand at the switch. */
export const homeAndListen = (quiet: Target): ProcedureStep => ({
  id: 'home',
  title: 'Home, with a hand at the switch',
  doing: 'Home slowly, a hand at the power switch. Listen.',
  cautions: ['knock', 'moving'],
  ask: {
    question: 'What did you hear?',
    answers: [
      { id: 'quiet', label: 'nothing but the motors', to: quiet },
      { id: 'knock', label: 'a knock or a grind', to: 'knock' },
    ],
  },
  cant: [{ label: 'It knocked: power is off', to: 'knock' }],
  next: quiet,
});

/** A cure under a weight, for those who chose it. */
export const underWeight = (sooner: Target, next: Target): ProcedureStep => ({
  id: 'weight',
  title: 'Under a weight',
  doing: 'Baking paper, a flat board and a few kilograms on it, level. Leave it until the time is up.',
  why: 'Acrylic foam bonds gain strength along a curve, most by 24 h.',
  only: { choice: 'wait', is: ['24'] },
  timer: { name: 'Cure under weight', least: { hoursOf: 'wait' } },
  cant: [{ label: 'It is needed sooner', to: sooner }],
  next,
});
