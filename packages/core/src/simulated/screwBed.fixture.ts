import { seededRandom } from '../level/seededMap.fixture';

/**
 * A bed on three or four screws, with kinematics of its own: the sums under test are not used here. The plate lies on equal
 * springs; a stiff one stays plane, a soft one follows each screw.
 */
export interface ScrewBedAsk {
  seed: number;
  count: 3 | 4;
  /** Height of each screw as found, mm, one standard deviation. */
  height?: number;
  /** The middle over the plane, mm, one standard deviation. */
  bow?: number;
  /** What a turn moves as a share of its thread, one standard deviation. */
  gain?: number;
  /** 0: the plate stays plane · 1: each corner follows its own screw. */
  twist?: number;
  /** Turns lost when a screw is turned back. */
  backlash?: number;
  /** What each screw really moves as a share of its thread: − the other way, 0 stuck. */
  share?: readonly number[];
  /** A screw goes no farther than this from where it was found, mm. */
  springs?: number;
}

export interface ScrewBed {
  places: { x: number; y: number }[];
  pitch: number;
  /** Height of the bed over the nozzle's plane less the gauge, as a gap: + too wide; by place, then the middle. */
  gap: (place: number) => number;
  /** Turns a screw, + clockwise looking down, which lowers. */
  turn: (screw: number, turns: number) => void;
  random: () => number;
  normal: () => number;
}

const SIDE = 220;
const CORNERS = [
  [0, 0],
  [SIDE, 0],
  [0, SIDE],
  [SIDE, SIDE],
] as const;
const THREE = [
  [SIDE / 2, SIDE],
  [0, 0],
  [SIDE, 0],
] as const;

export function screwBed(ask: ScrewBedAsk): ScrewBed {
  const {
    seed,
    count,
    height = 0.35,
    bow = 0.03,
    gain = 0.05,
    twist = 0,
    backlash = 0,
    share = [],
    springs = 3.5,
  } = ask;
  const random = seededRandom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const places = (count === 3 ? THREE : CORNERS).map(([x, y]) => ({ x, y }));
  const pitch = 0.5;
  const found = places.map(() => height * normal() * (count === 4 && twist === 0 ? Math.sqrt(4 / 3) : 1));
  const moved = places.map(() => 0);
  const shares = places.map((_, i) => (share[i] ?? 1) * (1 + gain * normal()));
  const bulge = bow * normal();
  const slack = places.map(() => 0);
  /** Heights of the plate at its corners and in the middle. */
  const plate = (): number[] => {
    const h = found.map((z, i) => z + moved[i]!);
    if (count === 3) return [...h, (h[0]! + h[1]! + h[2]!) / 3];
    // A square on four equal springs: what goes up on one diagonal and down on the other is left.
    const saddle = (h[0]! - h[1]! - h[2]! + h[3]!) / 4;
    const left = [saddle, -saddle, -saddle, saddle];
    return [...h.map((z, i) => z - (1 - twist) * left[i]!), (h[0]! + h[1]! + h[2]! + h[3]!) / 4];
  };
  return {
    places,
    pitch,
    random,
    normal,
    gap: (place) => -plate()[place]! + (place === count ? bulge : 0),
    turn: (screw, turns) => {
      // The nut's play is taken up first when the way changes.
      let left = turns;
      const room = turns > 0 ? backlash - slack[screw]! : -slack[screw]!;
      const taken = turns > 0 ? Math.min(left, room) : Math.max(left, room);
      slack[screw]! += taken;
      left -= taken;
      const next = moved[screw]! - left * pitch * shares[screw]!;
      moved[screw] = Math.max(-springs, Math.min(springs, next));
    },
  };
}

/**
 * Touches that the routine takes: each by an eighth until it drags, round until a whole round needs no turn.
 * @param feel 0 jammed … 4 free, at a place
 */
export function byRoutine(bed: ScrewBed, feel: (place: number) => number, most = 2000): number {
  let touches = 0;
  for (let turned = true; turned && touches < most;) {
    turned = false;
    for (const i of bed.places.keys())
      for (;;) {
        touches++;
        const felt = feel(i);
        if (felt === 2 || touches > most) break;
        // Clockwise lowers: too narrow a gap wants it.
        bed.turn(i, (felt < 2 ? 1 : -1) / 8);
        touches++;
        turned = true;
      }
  }
  return touches;
}
