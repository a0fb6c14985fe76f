import {
  afterFeel,
  afterTurn,
  FEEL_EDGES,
  FEELS,
  nextMove,
  startFeel,
  type FeelAdjuster,
  type FeelMove,
  type FeelState,
} from '../level/feel';
import { answered, type Person } from './people.fixture';
import type { ScrewBed } from './screwBed.fixture';

const PAPER = { thickness: 0.1, uncertainty: 0.003 };

export const adjustersOf = ({ places, pitch }: ScrewBed): FeelAdjuster[] =>
  places.map((place, i) => ({ id: `corner-${i}`, ...place, pitch, clockwise: 'lowers' }));

export interface FeltToEnd {
  touches: number;
  end: Extract<FeelMove, { do: 'done' | 'stop' }>;
  state: FeelState;
  /** Largest turn asked for, and farthest that a screw was sent from where it was found, turns. */
  largest: number;
  farthest: number;
  /** Turns that drove the bed farther into the nozzle's place at the knob without being told to lift it. */
  unflagged: number;
  flagged: number;
  /** It was said to be done, and a corner is farther off than 0.03. */
  wrong: boolean;
}

/** The key that this person presses at a place. */
export function feltBy(bed: ScrewBed, person: Person, place: number): number {
  const felt = bed.gap(place) + (person.noise ?? 0) * bed.normal();
  const right = FEEL_EDGES.filter((edge) => felt > edge * (person.edges ?? 1)).length;
  return answered(person, right, FEELS.length, bed.random);
}

/**
 * A person does what they are told on a bed until it ends, or for at most so many touches.
 * @throws Error it never ends by itself
 */
export function feelToEnd(bed: ScrewBed, person: Person, most = Infinity): FeltToEnd {
  const adjusters = adjustersOf(bed);
  let state = startFeel({ adjusters, gauge: PAPER });
  const net = adjusters.map(() => 0);
  let [largest, farthest, unflagged, flagged] = [0, 0, 0, 0];
  for (let touches = 0; touches < 400; touches++) {
    const move = nextMove(state);
    if (move.do === 'done' || move.do === 'stop' || touches >= most) {
      const end = move.do === 'done' || move.do === 'stop' ? move : ({ do: 'stop', why: 'too-long' } as const);
      const wrong = move.do === 'done' && bed.places.some((_, i) => Math.abs(bed.gap(i)) > 0.03);
      return { touches, end, state, largest, farthest, unflagged, flagged, wrong };
    }
    if (move.do === 'feel') {
      const place = state.places.findIndex(({ id }) => id === move.at);
      state = afterFeel(state, { at: move.at, feel: FEELS[feltBy(bed, person, place)]! });
      continue;
    }
    const index = adjusters.findIndex(({ id }) => id === move.adjuster);
    const turned = bed.random() < (person.swaps ?? 0) ? (index + 1) % adjusters.length : index;
    const before = bed.gap(turned);
    if (!(bed.random() < (person.forgets ?? 0)))
      bed.turn(
        turned,
        (bed.random() < (person.wrongWay ?? 0) ? -1 : 1) * (move.turns + (person.hand ?? 0) * bed.normal()),
      );
    const after = bed.gap(turned);
    largest = Math.max(largest, Math.abs(move.turns));
    net[index]! += move.turns;
    farthest = Math.max(farthest, Math.abs(net[index]!));
    if (move.mayTouch) flagged++;
    if (after < -PAPER.thickness && after < before - 0.01 && !move.mayTouch) unflagged++;
    state = afterTurn(state, move);
  }
  throw new Error('it never ended');
}
