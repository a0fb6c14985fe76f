/** How a first layer failed. */
export type PrintFailure = 'lifted-corner' | 'let-go' | 'welded' | 'foot' | 'marks' | 'other';
export const FAILURES: readonly PrintFailure[] = ['lifted-corner', 'let-go', 'welded', 'foot', 'marks', 'other'];

/** How a print came off. */
export type PrintRelease = 'by-itself' | 'flexed' | 'nudged' | 'forced';
export const RELEASES: readonly PrintRelease[] = ['by-itself', 'flexed', 'nudged', 'forced'];

export const FAILURE_WORDS: Record<PrintFailure, string> = {
  'lifted-corner': 'corner lifted',
  'let-go': 'let go',
  welded: 'welded on',
  foot: 'foot',
  marks: 'marks',
  other: 'other',
};

export const RELEASE_WORDS: Record<PrintRelease, string> = {
  'by-itself': 'came off by itself',
  flexed: 'flexed off',
  nudged: 'nudged off',
  forced: 'forced off',
};

const letters = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** Words by which lists say the same thing, besides the code itself. */
const FAILURE_ALIASES: [PrintFailure, RegExp][] = [
  ['lifted-corner', /\b(warp\w*|lift\w*|curl\w*|corner\w*)\b/],
  ['let-go', /\b(let go|detach\w*|came off|loose|knocked|no adhesion|spaghetti|not stick\w*)\b/],
  ['welded', /\b(weld\w*|stuck|fused)\b/],
  ['foot', /\b(foot|elephant\w*|squash\w*|bulg\w*)\b/],
  ['marks', /\b(mark\w*|scratch\w*|ghost\w*)\b/],
];
const RELEASE_ALIASES: [PrintRelease, RegExp][] = [
  ['by-itself', /\b(itself|pop\w*|fell)\b/],
  ['flexed', /\b(flex\w*|bent|bend\w*)\b/],
  ['nudged', /\b(nudg\w*|tap\w*|light\w*)\b/],
  ['forced', /\b(forc\w*|pr[iy]\w*|scrap\w*|hammer\w*)\b/],
];

/** A failure as a list writes it; "other" for words that are none of them, null for an empty cell. */
export function readFailure(text: string): PrintFailure | null {
  const plain = letters(text);
  if (plain === '' || plain === 'none') return null;
  const code = FAILURES.find((known) => letters(known) === plain);
  return code ?? FAILURE_ALIASES.find(([, pattern]) => pattern.test(plain))?.[0] ?? 'other';
}

/** How a print came off as a list writes it; null for an empty cell or words that say nothing of it. */
export function readRelease(text: string): PrintRelease | null {
  const plain = letters(text);
  const code = RELEASES.find((known) => letters(known) === plain);
  return code ?? RELEASE_ALIASES.find(([, pattern]) => pattern.test(plain))?.[0] ?? null;
}

const HELD = new Set([
  'yes',
  'y',
  'true',
  '1',
  'held',
  'ok',
  'good',
  'success',
  'done',
  'completed',
  'finished',
  'pass',
]);
const NOT_HELD = new Set([
  'no',
  'n',
  'false',
  '0',
  'failed',
  'fail',
  'bad',
  'error',
  'cancelled',
  'canceled',
  'aborted',
]);

/** Whether the first layer held, as a list writes it; null when it says neither. */
export function readHeld(text: string): boolean | null {
  // "failed, corner lifted": what follows the mark says how.
  const plain = letters(text.split(/[,;:(]/)[0]!);
  return HELD.has(plain) ? true : NOT_HELD.has(plain) ? false : null;
}
