/** What moves toward the other when a machine finds Z. */
export type Moves = 'head' | 'bed' | 'platform';

/** Where home lies: where the tool meets the surface (the screen on a resin printer), or at the far end of travel. */
export type Home = 'surface' | 'away';

/** One thing that a person does when a stack changes, as data; they are done in the order in which they stand. mm. */
export type StackStep =
  /** A printed spacer of this thickness lies on the switch, in place of the one that is there (0: none is). */
  | { do: 'spacer'; printed: number; layers: number; replaces: number }
  | { do: 'spacer-off'; thickness: number }
  /** + clockwise, looking at the head of the screw; already rounded to what a hand can do. */
  | { do: 'screw'; turns: number; trips: 'sooner' | 'later' }
  | { do: 'flag'; part: 'flag' | 'sensor'; way: 'higher' | 'lower'; by: number; trips: 'sooner' | 'later' }
  /** `turns` of each adjuster, + clockwise, rounded to what a hand can do; null: pitch or direction is not known. */
  | { do: 'adjust'; what: 'bed' | 'platform'; way: 'raise' | 'lower'; by: number; turns: number | null }
  /** The inductive probe in its holder. */
  | { do: 'probe'; way: 'lower'; by: number }
  | { do: 'home' }
  /** Where a print starts, in software. */
  | { do: 'zero'; way: 'further' | 'nearer'; by: number }
  /** Zero set anew at the surface, by paper or gauge: what the sum can't tell. */
  | { do: 'zero-anew' };

/** Something that has to be known before the sum can be done. */
export type StackUnknown = 'moves' | 'home' | 'sensing-range' | 'probe-height';
