import { seededRandom } from './seededMap.fixture';
import {
  afterFeel,
  afterTurn,
  FEEL_EDGES,
  FEELS,
  nextMove,
  startFeel,
  type Feel,
  type FeelAdjuster,
  type FeelState,
} from './feel';
import { stiffBed } from './stiffBed';

/** A made-up bed that a simulated hand feels: planes, a bow, screws that move more or less than their thread says. */
export interface HandBed {
  adjusters: FeelAdjuster[];
  feel: (place: { x: number; y: number }) => Feel;
  turn: (index: number, turns: number) => void;
  /** Gap less gauge at a place, mm: the truth. */
  gap: (place: { x: number; y: number }) => number;
}

const SIDE = 220;
const THREE = [
  { id: 'rear', x: SIDE / 2, y: SIDE },
  { id: 'front-left', x: 0, y: 0 },
  { id: 'front-right', x: SIDE, y: 0 },
];
const FOUR = [
  { id: 'front-left', x: 0, y: 0 },
  { id: 'front-right', x: SIDE, y: 0 },
  { id: 'rear-left', x: 0, y: SIDE },
  { id: 'rear-right', x: SIDE, y: SIDE },
];

export interface HandAsk {
  seed: number;
  count: 3 | 4;
  /** mm, one standard deviation each. */
  height?: number;
  bow?: number;
  gain?: number;
  noise?: number;
  hand?: number;
  /** How often a feel is off by one. */
  slip?: number;
  /** What the first adjuster really moves as a share of its thread; − the other way. */
  odd?: number;
}

export function handBed({
  seed,
  count,
  height = 0.35,
  bow = 0.03,
  gain = 0.08,
  noise = 0.008,
  hand = 0.02,
  slip = 0,
  odd = 1,
}: HandAsk): HandBed {
  const random = seededRandom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const adjusters = (count === 3 ? THREE : FOUR).map((place): FeelAdjuster => ({
    ...place,
    pitch: 0.5,
    clockwise: 'lowers',
  }));
  const bed = stiffBed(adjusters);
  // A bed as it is found: its screws stand anywhere.
  const first = bed(adjusters.map(() => height * Math.sqrt(count === 3 ? 1 : 4 / 3) * normal()));
  let plane = [first.a, first.b, first.c];
  const bulge = bow * normal();
  const gains = adjusters.map((_, i) => (i === 0 ? odd : 1) * (1 + gain * normal()));
  const [cx, cy] = [0, 1].map((k) => adjusters.reduce((sum, p) => sum + (k === 0 ? p.x : p.y), 0) / count);
  const radius = Math.max(...adjusters.map((p) => Math.hypot(p.x - cx!, p.y - cy!)));
  const gap = ({ x, y }: { x: number; y: number }) => {
    const [u, v] = [(x - cx!) / radius, (y - cy!) / radius];
    return -(plane[0]! * x + plane[1]! * y + plane[2]!) + bulge * (1 - u * u - v * v);
  };
  return {
    adjusters,
    gap,
    feel: (place) => {
      const felt = gap(place) + noise * normal();
      let index = FEEL_EDGES.filter((edge) => felt > edge).length;
      if (random() < slip) index = Math.max(0, Math.min(FEELS.length - 1, index + (random() < 0.5 ? -1 : 1)));
      return FEELS[index]!;
    },
    turn: (index, turns) => {
      const { pitch, clockwise } = adjusters[index]!;
      const made = turns + hand * normal();
      const rise = made * pitch * (clockwise === 'raises' ? 1 : -1) * gains[index]!;
      const { a, b, c } = bed(adjusters.map((_, i) => (i === index ? rise : 0)));
      plane = [plane[0]! + a, plane[1]! + b, plane[2]! + c];
    },
  };
}

/** Touches that the routine takes: each by an eighth until it drags, round until a whole round needs no turn. */
export function byRoutine(bed: HandBed, most = 2000): number {
  let touches = 0;
  for (let turned = true; turned && touches < most;) {
    turned = false;
    for (const [i, adjuster] of bed.adjusters.entries()) {
      for (;;) {
        touches++;
        const feel = bed.feel(adjuster);
        if (feel === 'drags' || touches > most) break;
        // Too wide a gap wants the bed raised.
        const raise = feel === 'light' || feel === 'free';
        bed.turn(i, (raise === (adjuster.clockwise === 'raises') ? 1 : -1) / 8);
        touches++;
        turned = true;
      }
    }
  }
  return touches;
}

/** A simulated hand does what it is told until it is told that it is done. @throws Error it never ends */
export function byAdvice(bed: HandBed, most = 300): { touches: number; state: FeelState } {
  let state = startFeel({ adjusters: bed.adjusters, gauge: { thickness: 0.1, uncertainty: 0.003 } });
  for (let touches = 0; touches < most; touches++) {
    const move = nextMove(state);
    if (move.do === 'done') return { touches, state };
    if (move.do === 'feel') {
      const place = state.places.find(({ id }) => id === move.at)!;
      state = afterFeel(state, { at: move.at, feel: bed.feel(place) });
    } else {
      bed.turn(
        bed.adjusters.findIndex(({ id }) => id === move.adjuster),
        move.turns,
      );
      state = afterTurn(state, move);
    }
  }
  throw new Error('it never ended');
}
