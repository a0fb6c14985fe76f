/** Readings or adjusters from which no single answer follows: too few, in one line, or not numbers. */
export class DegenerateInput extends Error {
  readonly code = 'degenerate-input';
  override readonly name = 'DegenerateInput';
}

/** Adjusters that cannot tilt a bed in both directions: fewer than three, in one line, or two on one spot. */
export class DegenerateAdjusters extends Error {
  readonly code = 'degenerate-adjusters';
  override readonly name = 'DegenerateAdjusters';
}

/** Text in which no heights were found, or too much text to read. `code` says which. */
export class UnreadableHeights extends Error {
  override readonly name = 'UnreadableHeights';
  constructor(
    readonly code: 'no-heights' | 'too-large' | 'bad-option',
    message: string,
  ) {
    super(message);
  }
}
