import type { StackChangeInput } from './stackChange';
import type { UnderbedInput } from './underbedClearance';

/**
 * Sums done by hand, one line each, with the reason. Units mm. They are arithmetic of the trade's rules (common
 * practice); the worked ones of the trade stand first.
 */
const layer = (thickness: number, name = `layer ${thickness}`) => ({ name, thickness });
const PLATE = layer(3, 'plate');
const SOONER = { by: 'stop-screw', pitch: 0.5, clockwise: 'sooner' } as const;
const LATER = { by: 'stop-screw', pitch: 0.5, clockwise: 'later' } as const;
const FLAG_DOWN = { by: 'flag', part: 'flag', rides: 'moving', homing: 'down' } as const;
const stack = (
  before: number[],
  after: number[],
  finding: StackChangeInput['finding'],
  more: Partial<StackChangeInput> = {},
): StackChangeInput => ({
  before: [PLATE, ...before.map((t) => layer(t))],
  after: [PLATE, ...after.map((t) => layer(t))],
  finding,
  ...more,
});

interface StackCase {
  why: string;
  input: StackChangeInput;
  change: number;
  verdict: 'none' | 'do' | 'stop';
  spacer?: [printed: number, layers: number, leftover: number];
  turns?: number;
  take?: number;
  enough?: boolean;
  zero?: number | null;
  says?: RegExp;
}

const glassMetal = (thickness: number) => [{ ...PLATE, metal: true }, layer(thickness, 'glass')];
const steelOnMat = [{ ...PLATE, metal: true }, layer(1.2, 'base'), { ...layer(0.5, 'sheet'), metal: true }];

export const STACKS_BY_HAND: readonly StackCase[] = [
  {
    why: '3.175 glass (1/8 in) at 0.2 layers: 15.9 layers, so 16 = 3.2, 0.025 too thick',
    input: stack([], [3.175], { by: 'spacer' }, { spacerLayer: 0.2 }),
    change: 3.175,
    verdict: 'do',
    spacer: [3.2, 16, 0.025],
    says: /3\.2 mm \(16 layers\)/,
  },
  {
    why: 'glass 4.0 off, base 1.2 + sheet 0.5 on: 1.7 − 4.0 = −2.3, home stops short',
    input: stack([4], [1.2, 0.5], { by: 'spacer' }, { spacerLayer: 0.2 }),
    change: -2.3,
    verdict: 'do',
    says: /2\.3 mm off the spacer/,
  },
  {
    why: '2.3 thinner on a 0.5 screw that trips sooner clockwise: 4.6 turns anticlockwise',
    input: stack([4], [1.2, 0.5], SOONER),
    change: -2.3,
    verdict: 'do',
    turns: -4.6,
    says: /4\.6 turns anticlockwise/,
  },
  {
    why: 'the same screw the other way round: clockwise',
    input: stack([4], [1.2, 0.5], LATER),
    change: -2.3,
    verdict: 'do',
    turns: 4.6,
    says: /4\.6 turns clockwise/,
  },
  {
    why: 'nothing changed: nothing to move',
    input: stack([1.2, 0.5], [1.2, 0.5], { by: 'fixed' }),
    change: 0,
    verdict: 'none',
  },
  {
    why: 'layers change places: the height stays',
    input: stack([1.2, 0.5], [0.5, 1.2], { by: 'fixed' }),
    change: 0,
    verdict: 'none',
  },
  {
    why: '0.005 is half the smallest jog: left alone',
    input: stack([1.2], [1.205], { by: 'fixed' }),
    change: 0.005,
    verdict: 'none',
  },
  {
    why: 'base 1.2 and sheet 0.5 on a bare plate: 1.7 at 0.2 is 8.5 layers; nothing can take 0.1 short, so 9',
    input: stack([], [1.2, 0.5], { by: 'spacer' }, { spacerLayer: 0.2 }),
    change: 1.7,
    verdict: 'do',
    spacer: [1.8, 9, 0.1],
  },
  {
    why: '1.66 at 0.2 is 8.3: nearest 8 is 0.06 short, and the adjusters can go down 1.0',
    input: stack([], [1.2, 0.46], { by: 'spacer' }, { spacerLayer: 0.2, adjusters: { up: 1, down: 1 } }),
    change: 1.66,
    verdict: 'do',
    spacer: [1.6, 8, -0.06],
    take: -0.06,
    enough: true,
  },
  {
    why: 'the same without adjusters: 9 layers, 0.14 too thick, which is safe',
    input: stack([], [1.2, 0.46], { by: 'spacer' }, { spacerLayer: 0.2 }),
    change: 1.66,
    verdict: 'do',
    spacer: [1.8, 9, 0.14],
  },
  {
    why: 'the same with adjusters at their lower end (0.02 left): 9 layers',
    input: stack([], [1.2, 0.46], { by: 'spacer' }, { spacerLayer: 0.2, adjusters: { up: 1, down: 0.02 } }),
    change: 1.66,
    verdict: 'do',
    spacer: [1.8, 9, 0.14],
    take: 0.14,
    enough: true,
  },
  {
    why: '2.0 at 0.25 is 8 layers exactly',
    input: stack([], [2], { by: 'spacer' }, { spacerLayer: 0.25 }),
    change: 2,
    verdict: 'do',
    spacer: [2, 8, 0],
  },
  {
    why: '12.7 (1/2 in) of stone at 0.3: 42.3, nearest 42 is 0.1 short, adjusters have 0.5',
    input: stack([], [12.7], { by: 'spacer' }, { spacerLayer: 0.3, adjusters: { up: 0.5, down: 0.5 } }),
    change: 12.7,
    verdict: 'do',
    spacer: [12.6, 42, -0.1],
    take: -0.1,
    enough: true,
  },
  {
    why: 'no layer height told: the spacer as it should be',
    input: stack([], [3.175], { by: 'spacer' }),
    change: 3.175,
    verdict: 'do',
    spacer: [3.175, 0, 0],
  },
  {
    why: '0.04 at 0.2 layers is 0.2 layers: one, since nothing else could take it',
    input: stack([], [0.04], { by: 'spacer' }, { spacerLayer: 0.2 }),
    change: 0.04,
    verdict: 'do',
    spacer: [0.2, 1, 0.16],
  },
  {
    why: 'sheet 0.5 for sheet 0.7: 0.2 is one layer of 0.2',
    input: stack([1.2, 0.5], [1.2, 0.7], { by: 'spacer' }, { spacerLayer: 0.2 }),
    change: 0.2,
    verdict: 'do',
    spacer: [0.2, 1, 0],
  },
  {
    why: '0.2 on a 0.5 screw: 0.4 turn, said as three eighths (0.375), which leaves 0.0125 to lower',
    input: stack([], [0.2], SOONER, { adjusters: { up: 1, down: 1 } }),
    change: 0.2,
    verdict: 'do',
    turns: 0.4,
    take: -0.0125,
    enough: true,
    says: /three eighths of a turn clockwise/,
  },
  {
    why: '3.175 on M4 (0.7): 4.54 turns, said 4.5, which leaves 0.025 to lower',
    input: stack([], [3.175], { by: 'stop-screw', pitch: 0.7, clockwise: 'sooner' }, { adjusters: { up: 2, down: 2 } }),
    change: 3.175,
    verdict: 'do',
    turns: 3.175 / 0.7,
    take: -0.025,
    enough: true,
    says: /4\.5 turns clockwise/,
  },
  {
    why: '−0.3 on M3 sooner clockwise: 0.6 turn back, said five eighths (0.625): 0.0125 too late, so lower',
    input: stack([0.8], [0.5], SOONER, { adjusters: { up: 1, down: 1 } }),
    change: -0.3,
    verdict: 'do',
    turns: -0.6,
    take: -0.0125,
    enough: true,
  },
  {
    why: '0.012 on 0.5: a fortieth of a turn can not be made by hand',
    input: stack([1.2], [1.212], SOONER),
    change: 0.012,
    verdict: 'do',
    turns: 0.024,
    says: /Leave the stop screw/,
  },
  {
    why: '1.0 on M3: two turns exactly, nothing left',
    input: stack([], [1], SOONER, { adjusters: { up: 1, down: 1 } }),
    change: 1,
    verdict: 'do',
    turns: 2,
    says: /two turns clockwise/,
  },
  {
    why: 'resin: thicker platform, flag rides on it and travels down: lower, trips sooner',
    input: stack([], [1.9], FLAG_DOWN, { family: 'resin' }),
    change: 1.9,
    verdict: 'do',
    says: /flag 1\.9 mm lower.*sooner/,
  },
  {
    why: 'resin: thinner stack stops short of the screen: flag higher',
    input: stack([1.9], [0.5], FLAG_DOWN, { family: 'resin' }),
    change: -1.4,
    verdict: 'do',
    says: /flag 1\.4 mm higher.*later/,
  },
  {
    why: 'a sensor on the frame meets the flag sooner when it sits higher',
    input: stack([], [1.9], { by: 'flag', part: 'sensor', rides: 'frame', homing: 'down' }),
    change: 1.9,
    verdict: 'do',
    says: /sensor 1\.9 mm higher.*sooner/,
  },
  {
    why: 'a bed that homes upward: its flag trips sooner when it sits higher',
    input: stack([], [0.7], { by: 'flag', part: 'flag', rides: 'moving', homing: 'up' }),
    change: 0.7,
    verdict: 'do',
    says: /flag 0\.7 mm higher.*sooner/,
  },
  {
    why: 'a bed that homes upward, sensor on the frame: lower',
    input: stack([], [0.7], { by: 'flag', part: 'sensor', rides: 'frame', homing: 'up' }),
    change: 0.7,
    verdict: 'do',
    says: /sensor 0\.7 mm lower.*sooner/,
  },
  {
    why: 'a bed that homes upward, thinner stack, sensor on the frame: higher, later',
    input: stack([0.7], [], { by: 'flag', part: 'sensor', rides: 'frame', homing: 'up' }),
    change: -0.7,
    verdict: 'do',
    says: /sensor 0\.7 mm higher.*later/,
  },
  {
    why: 'fixed, 0.7 thicker, adjusters have 2.0 down: lower by 0.7',
    input: stack([], [0.7], { by: 'fixed' }, { adjusters: { up: 1, down: 2 } }),
    change: 0.7,
    verdict: 'do',
    take: -0.7,
    enough: true,
  },
  {
    why: 'fixed, 3.0 thicker, adjusters have 2.0 down: they bottom out 1.0 short, stop',
    input: stack([], [3], { by: 'fixed' }, { adjusters: { up: 1, down: 2 } }),
    change: 3,
    verdict: 'stop',
    take: -3,
    enough: false,
    says: /Don't home/,
  },
  {
    why: 'fixed, thicker, and nothing can move: stop',
    input: stack([], [0.5], { by: 'fixed' }),
    change: 0.5,
    verdict: 'stop',
    says: /Don't home/,
  },
  {
    why: 'fixed, 0.5 thicker, home stands 0.8 clear today: zero 0.5 higher, 0.3 stays',
    input: stack([], [0.5], { by: 'fixed' }, { slack: 0.8 }),
    change: 0.5,
    verdict: 'do',
    zero: 0.5,
    says: /still stops 0\.3 mm above/,
  },
  {
    why: 'fixed, 0.5 thicker, home stands 0.3 clear: 0.2 by the adjusters, 0.3 by zero',
    input: stack([], [0.5], { by: 'fixed' }, { slack: 0.3, adjusters: { up: 1, down: 1 } }),
    change: 0.5,
    verdict: 'do',
    take: -0.2,
    enough: true,
    zero: 0.3,
  },
  {
    why: 'fixed, 0.5 thicker, home 0.5 clear: touches exactly, which is not into the surface',
    input: stack([], [0.5], { by: 'fixed' }, { slack: 0.5 }),
    change: 0.5,
    verdict: 'do',
    zero: 0.5,
  },
  {
    why: 'fixed, 1.0 thinner, adjusters can raise 0.6: the rest, 0.4, by zero',
    input: stack([1], [], { by: 'fixed' }, { adjusters: { up: 0.6, down: 1 } }),
    change: -1,
    verdict: 'do',
    take: 0.6,
    enough: true,
    zero: -0.4,
  },
  {
    why: 'fixed, 1.0 thinner, no adjusters: zero 1.0 lower, home stays safe',
    input: stack([1], [], { by: 'fixed' }),
    change: -1,
    verdict: 'do',
    zero: -1,
  },
  {
    why: 'a switch with a spacer, home 0.6 clear today: the spacer is still the whole change, slack is no place for it',
    input: stack([], [1.2], { by: 'spacer' }, { spacerLayer: 0.2, slack: 0.6 }),
    change: 1.2,
    verdict: 'do',
    spacer: [1.2, 6, 0],
  },
  {
    why: '0.9 at 0.28 is 3.2: nearest 3 is 0.06 short and 0.05 is left below, so 4 = 1.12, 0.22 too thick',
    input: stack([], [0.9], { by: 'spacer' }, { spacerLayer: 0.28, adjusters: { up: 0.1, down: 0.05 } }),
    change: 0.9,
    verdict: 'do',
    spacer: [1.12, 4, 0.22],
    take: 0.22,
    enough: false,
  },
  {
    why: 'an eighth of an inch on #6-32 (25.4/32 = 0.79375): four turns exactly',
    input: stack([], [3.175], { by: 'stop-screw', pitch: 25.4 / 32, clockwise: 'sooner' }),
    change: 3.175,
    verdict: 'do',
    turns: 4,
    says: /4 turns clockwise/,
  },
  {
    why: 'contact probe: home follows the surface',
    input: stack([], [3.175], { by: 'contact-probe' }),
    change: 3.175,
    verdict: 'none',
    says: /follows the surface/,
  },
  {
    why: 'contact probe, thinner: the same',
    input: stack([4], [1.7], { by: 'contact-probe' }),
    change: -2.3,
    verdict: 'none',
  },
  {
    why: 'inductive, bare metal to 3.175 glass: the probe has to sit 3.175 lower',
    input: { before: [{ ...PLATE, metal: true }], after: glassMetal(3.175), finding: { by: 'inductive-probe' } },
    change: 3.175,
    verdict: 'do',
    says: /probe 3\.175 mm lower/,
  },
  {
    why: 'inductive, 0.3 film more on metal, nozzle 1.5 clear at the trip: offset 0.3 higher, 1.2 stays',
    input: {
      before: [{ ...PLATE, metal: true }],
      after: glassMetal(0.3),
      finding: { by: 'inductive-probe' },
      slack: 1.5,
    },
    change: 0.3,
    verdict: 'do',
    zero: 0.3,
    says: /1\.2 mm above/,
  },
  {
    why: 'inductive, 3.175 glass and 1.5 clear: it would hit before it trips, probe lower',
    input: {
      before: [{ ...PLATE, metal: true }],
      after: glassMetal(3.175),
      finding: { by: 'inductive-probe' },
      slack: 1.5,
    },
    change: 3.175,
    verdict: 'do',
    says: /probe 3\.175 mm lower/,
  },
  {
    why: 'inductive, base and steel sheet on a metal plate: metal is on top before and after',
    input: { before: [{ ...PLATE, metal: true }], after: steelOnMat, finding: { by: 'inductive-probe' } },
    change: 1.7,
    verdict: 'none',
  },
  {
    why: 'inductive, glass 4.0 off a metal plate: the offset comes down by 4.0',
    input: { before: glassMetal(4), after: [{ ...PLATE, metal: true }], finding: { by: 'inductive-probe' } },
    change: -4,
    verdict: 'do',
    zero: -4,
  },
  {
    why: 'inductive, no metal left in the stack: it finds nothing',
    input: { before: glassMetal(4), after: [layer(3, 'stone')], finding: { by: 'inductive-probe' } },
    change: -4,
    verdict: 'stop',
    says: /find nothing/,
  },
];

interface UnderbedCase {
  why: string;
  input: UnderbedInput;
  interference: number;
  compressed: number;
  backedOff: number;
  verdict: 'clear' | 'touches-compressed' | 'touches';
  /** Thickness and pieces of the pile named. */
  pile?: [thickness: number, pieces: number] | null;
  travelLeft?: number;
}

const part = (height: number, name = `part ${height}`) => ({ name, height });
const M3 = { name: 'ISO 7089 M3', thickness: 0.5 };
const M4 = { name: 'ISO 7089 M4', thickness: 0.8 };
const clampAndFoam = [part(7.2, 'clamp'), part(5.5, 'foam')];

export const UNDERBEDS_BY_HAND: readonly UnderbedCase[] = [
  {
    why: '7.2 + 5.5 − 11.6 = 1.1 too tall; three M3 washers make 1.5',
    input: { parts: clampAndFoam, springCompressed: 11.6, kinds: [M3] },
    interference: 1.1,
    compressed: -1.1,
    backedOff: -1.1,
    verdict: 'touches',
    pile: [1.5, 3],
  },
  {
    why: '1.5 of washers: 0.4 left',
    input: { parts: clampAndFoam, springCompressed: 11.6, washers: 1.5 },
    interference: 1.1,
    compressed: 0.4,
    backedOff: 0.4,
    verdict: 'clear',
    pile: [0, 0],
  },
  {
    why: 'and one M3 turn back from compressed: 0.9',
    input: { parts: clampAndFoam, springCompressed: 11.6, washers: 1.5, pitch: 0.5, backOff: 1 },
    interference: 1.1,
    compressed: 0.4,
    backedOff: 0.9,
    verdict: 'clear',
  },
  {
    why: 'one M4 turn: 0.4 + 0.7 = 1.1',
    input: { parts: clampAndFoam, springCompressed: 11.6, washers: 1.5, pitch: 0.7, backOff: 1 },
    interference: 1.1,
    compressed: 0.4,
    backedOff: 1.1,
    verdict: 'clear',
  },
  {
    why: 'three M3 turns without washers free it while backed off: −1.1 + 1.5 = 0.4',
    input: { parts: clampAndFoam, springCompressed: 11.6, pitch: 0.5, backOff: 3 },
    interference: 1.1,
    compressed: -1.1,
    backedOff: 0.4,
    verdict: 'touches-compressed',
    pile: null,
  },
  {
    why: 'two turns are not enough: −1.1 + 1.0',
    input: { parts: clampAndFoam, springCompressed: 11.6, pitch: 0.5, backOff: 2 },
    interference: 1.1,
    compressed: -1.1,
    backedOff: -0.1,
    verdict: 'touches',
  },
  {
    why: 'the foam alone stands 5.5 under 11.6: 6.1 free',
    input: { parts: [part(5.5, 'foam')], springCompressed: 11.6 },
    interference: -6.1,
    compressed: 6.1,
    backedOff: 6.1,
    verdict: 'clear',
    pile: [0, 0],
  },
  {
    why: 'nothing stands there: the whole spring is free',
    input: { parts: [], springCompressed: 9 },
    interference: -9,
    compressed: 9,
    backedOff: 9,
    verdict: 'clear',
  },
  {
    why: 'exactly as tall as the spring: it touches and does not press',
    input: { parts: [part(9)], springCompressed: 9 },
    interference: 0,
    compressed: 0,
    backedOff: 0,
    verdict: 'clear',
  },
  {
    why: '1.1 with M4 washers: two of 0.8 are 1.6',
    input: { parts: clampAndFoam, springCompressed: 11.6, kinds: [M4] },
    interference: 1.1,
    compressed: -1.1,
    backedOff: -1.1,
    verdict: 'touches',
    pile: [1.6, 2],
  },
  {
    why: '1.1 with both on hand: 0.8 + 0.5 = 1.3 is the thinnest that reaches',
    input: { parts: clampAndFoam, springCompressed: 11.6, kinds: [M3, M4] },
    interference: 1.1,
    compressed: -1.1,
    backedOff: -1.1,
    verdict: 'touches',
    pile: [1.3, 2],
  },
  {
    why: '0.5 needed and M3 washers: one, exactly',
    input: { parts: [part(10)], springCompressed: 9.5, kinds: [M3] },
    interference: 0.5,
    compressed: -0.5,
    backedOff: -0.5,
    verdict: 'touches',
    pile: [0.5, 1],
  },
  {
    why: '3.2 needs seven M3 washers: more than stay in line',
    input: { parts: [part(12.7)], springCompressed: 9.5, kinds: [M3] },
    interference: 3.2,
    compressed: -3.2,
    backedOff: -3.2,
    verdict: 'touches',
    pile: null,
  },
  {
    why: '3.0 is six M3 washers: the most',
    input: { parts: [part(12.5)], springCompressed: 9.5, kinds: [M3] },
    interference: 3,
    compressed: -3,
    backedOff: -3,
    verdict: 'touches',
    pile: [3, 6],
  },
  {
    why: '0.5 of washers already there, 0.6 missing: two more M3',
    input: { parts: clampAndFoam, springCompressed: 11.6, washers: 0.5, kinds: [M3] },
    interference: 1.1,
    compressed: -0.6,
    backedOff: -0.6,
    verdict: 'touches',
    pile: [1, 2],
  },
  {
    why: 'travel 6, 1.5 of washers and one turn of 0.5 are gone: 4.0 left',
    input: { parts: clampAndFoam, springCompressed: 11.6, washers: 1.5, pitch: 0.5, backOff: 1, travel: 6 },
    interference: 1.1,
    compressed: 0.4,
    backedOff: 0.9,
    verdict: 'clear',
    travelLeft: 4,
  },
  {
    why: 'the pile still to be put in counts too: 6 − 1.5 = 4.5',
    input: { parts: clampAndFoam, springCompressed: 11.6, kinds: [M3], travel: 6 },
    interference: 1.1,
    compressed: -1.1,
    backedOff: -1.1,
    verdict: 'touches',
    pile: [1.5, 3],
    travelLeft: 4.5,
  },
  {
    why: 'a quarter turn of M4 back from 0.1 too tall: −0.1 + 0.175 = 0.075',
    input: { parts: [part(9.1)], springCompressed: 9, pitch: 0.7, backOff: 0.25 },
    interference: 0.1,
    compressed: -0.1,
    backedOff: 0.075,
    verdict: 'touches-compressed',
  },
  {
    why: 'foam pressed to 2.0 under a 0.5 in (12.7) spring: 10.7 free',
    input: { parts: [part(2, 'pressed foam')], springCompressed: 12.7 },
    interference: -10.7,
    compressed: 10.7,
    backedOff: 10.7,
    verdict: 'clear',
  },
  {
    why: 'three things one over the other: 3 + 4.4 + 2.1 = 9.5, 0.4 over 9.1',
    input: { parts: [part(3), part(4.4), part(2.1)], springCompressed: 9.1, kinds: [M3] },
    interference: 0.4,
    compressed: -0.4,
    backedOff: -0.4,
    verdict: 'touches',
    pile: [0.5, 1],
  },
  {
    why: 'backed off but no pitch told: turns move nothing that is known',
    input: { parts: clampAndFoam, springCompressed: 11.6, washers: 1.5, backOff: 2 },
    interference: 1.1,
    compressed: 0.4,
    backedOff: 0.4,
    verdict: 'clear',
  },
];
