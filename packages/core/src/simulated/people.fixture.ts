/** How a simulated person departs from what is asked of them: the same people for everything that is followed. */
export interface Person {
  /** How often the key, tick or figure beside the right one is given. */
  slips?: number;
  /** Always the same answer, by its place in the list. */
  always?: number;
  /** Any answer, whatever is there. */
  random?: boolean;
  /** How often a turn is made the wrong way round. */
  wrongWay?: number;
  /** How often a thing asked for is passed over, and told as done. */
  forgets?: number;
  /** How often two things are taken for each other: the neighbour is turned. */
  swaps?: number;
  /** How far a turn of the hand is from what was said, turns, one standard deviation. */
  hand?: number;
  /** Edges and noise of what they feel, as a multiple of the usual. */
  edges?: number;
  noise?: number;
}

export const TIDY: Person = { hand: 0.02, noise: 0.008 };

/** The people that advice is followed by. */
export const PEOPLE = {
  tidy: TIDY,
  'slips a key': { ...TIDY, slips: 0.05 },
  'answers at random': { ...TIDY, random: true },
  'turns the wrong way': { ...TIDY, wrongWay: 0.03 },
  'forgets one': { ...TIDY, forgets: 0.03 },
  'swaps two': { ...TIDY, swaps: 0.03 },
  'feels finely': { ...TIDY, noise: 0.004, edges: 0.5 },
  'feels coarsely': { ...TIDY, noise: 0.016, edges: 2 },
} as const satisfies Record<string, Person>;

/** The answer that this person gives where `right` of `count` would be right. */
export function answered(person: Person, right: number, count: number, random: () => number): number {
  if (person.always !== undefined) return person.always;
  if (person.random) return Math.floor(random() * count);
  if (random() < (person.slips ?? 0)) return Math.max(0, Math.min(count - 1, right + (random() < 0.5 ? -1 : 1)));
  return right;
}
