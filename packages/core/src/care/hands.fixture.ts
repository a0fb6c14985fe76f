/**
 * What hands do to things in the steps of the jobs, as their words say it, written down apart from what the steps tell the
 * records: a bench beside the book. Ways out of a step: an answer by its id, "cant" and its place, or "next".
 */
export interface Bench {
  /** Where each part is. */
  where: Record<string, 'machine' | 'table' | 'waste'>;
  /** Parts on which an adhesive cures. */
  cures: Set<string>;
  /** How often home was moved. */
  home: number;
}
type Hands = (bench: Bench, way: string) => void;

const to =
  (where: Bench['where'][string], ...parts: string[]) =>
  (bench: Bench) => {
    for (const part of parts) bench.where[part] = where;
  };
const on = (...parts: string[]) => to('machine', ...parts);
const off = (...parts: string[]) => to('table', ...parts);
const waste = (...parts: string[]) => to('waste', ...parts);
/** Does it whichever way the step is left. */
const whichever =
  (...doings: ((bench: Bench) => void)[]): Hands =>
  (bench) =>
    doings.forEach((doing) => doing(bench));
/** Does it only where the step is left in one of these ways. */
const where =
  (ways: Record<string, (bench: Bench) => void>): Hands =>
  (bench, way) =>
    ways[way]?.(bench);
/** Done to its end, by any answer; not when something was in the way. */
const done =
  (...doings: ((bench: Bench) => void)[]): Hands =>
  (bench, way) => {
    if (!way.startsWith('cant')) doings.forEach((doing) => doing(bench));
  };
const cures =
  (...parts: string[]) =>
  (bench: Bench) =>
    parts.forEach((part) => bench.cures.add(part));
const cured =
  (...parts: string[]) =>
  (bench: Bench) =>
    parts.forEach((part) => bench.cures.delete(part));
const moves = (bench: Bench) => void bench.home++;

export const HANDS: Record<string, Record<string, Hands>> = {
  'remove-old-surface': {
    peel: where({ whole: off('old', 'mat'), mat: off('old') }),
    // What scraps hide is not known: the mat counts as lying there.
    torn: (bench, way) => (way === 'bare' ? off('old', 'mat') : off('old'))(bench),
    'glass-welded': where({ yes: off('old', 'mat') }),
    'glass-cold': where({ yes: off('old') }),
  },
  'fit-base-and-sheet': {
    'off-old': done(off('old')),
    'remove-first': where({ yes: off('old') }),
    roll: whichever(on('base'), cures('base')),
    'new-base': whichever(off('sheet'), waste('base'), cured('base')),
    move: done(moves),
    'sheet-on': whichever(on('sheet')),
    'edge-lifts': where({ lifts: off('sheet') }),
    ridges: where({ no: off('sheet') }),
  },
  'fit-flex-on-resin': {
    move: done(moves),
    press: whichever(on('magnet'), cures('magnet', 'platform')),
    lost: whichever(off('flex'), waste('magnet'), cured('magnet', 'platform')),
    'home-back': done(moves),
    'clean-both': done(on('flex')),
  },
  'rehearse-platform': { move: done(moves), 'home-back': done(moves) },
  'level-resin': { 'move-lower': done(moves), late: done(moves) },
  'fit-film': { 'old-off': where({ worn: waste('old'), pierced: waste('old') }), dry: done(on('film')) },
  'laminate-film': { press: whichever(cures('sheet')), lost: whichever(cured('sheet')) },
  'renew-film': { press: whichever(cures('sheet')), lost: whichever(cured('sheet')) },
  'mount-glass': {
    mat: whichever(off('old')),
    'pane-down': where({ lies: on('glass') }),
    clips: whichever(on('glass')),
    broken: whichever(waste('glass')),
    move: done(moves),
  },
  'base-on-glass': {
    off: done(off('old')),
    roll: where({ flat: off('glass'), bubble: off('glass') }),
    lost: whichever(waste('base')),
    broken: whichever(waste('glass')),
    'put-on': whichever(on('base', 'sheet')),
    move: done(moves),
  },
  'magnet-under-board': { off: done(off('old')), pull: whichever(on('board')), move: done(moves) },
  'replace-and-retire': {
    cool: done(off('old')),
    retire: (bench, way) => (way.startsWith('cant') ? off('old')(bench) : waste('old')(bench)),
    move: done(moves),
    on: done(on('new')),
  },
  'under-bed-check': { move: done(moves) },
};
