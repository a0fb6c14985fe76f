import { FEELS, gapAt, MIDDLE, type Feel, type FeelEvent, type FeelState } from './feel';

// A level that was felt is a reading like any other: a text that is kept as it is. Its lines with a # are what hands did; the
// others are the heights that follow from it, in the layout of any other list of places.

const HEAD = '# felt with ';
/** What the heights are in is never asked of what this house wrote itself, however small the bed. */
const HEADS = 'x_mm,y_mm,z_mm';

/** What a bed was felt with and how, as a reading of heights: + higher. */
export function feltText(state: FeelState): string {
  const { gauge, history, places, adjusters } = state;
  const known = places.filter(
    ({ id }) => id !== MIDDLE || history.some((event) => event.do === 'feel' && event.at === id),
  );
  return [
    `${HEAD}${gauge.thickness.toFixed(3)} mm, uncertain by ${gauge.uncertainty.toFixed(3)}`,
    ...history.map((event) =>
      event.do === 'feel' ? `# feel ${event.at} ${event.feel}` : `# turn ${event.adjuster} ${event.turns}`,
    ),
    `# adjusters ${adjusters.map(({ id }) => id).join(' ')}`,
    HEADS,
    // A gap too wide is a bed too low.
    ...known.map(({ id, x, y }) => `${x.toFixed(2)},${y.toFixed(2)},${(-gapAt(state, id).mean).toFixed(4)}`),
  ].join('\n');
}

/** The heights of a felt reading without what hands did; null: it is no such text. */
export function heightsFelt(text: string): string | null {
  if (!text.startsWith(HEAD)) return null;
  return text
    .split('\n')
    .filter((line) => !line.startsWith('#'))
    .map((line) => (line === 'x,y,z' ? HEADS : line))
    .join('\n');
}

/** What hands did, as such a text keeps it; null: it is no felt reading. */
export function feltHistory(text: string): { thickness: number; uncertainty: number; history: FeelEvent[] } | null {
  const head = /^# felt with ([\d.]{1,12}) mm, uncertain by ([\d.]{1,12})$/m.exec(text);
  if (!head) return null;
  const history: FeelEvent[] = [];
  for (const line of text.split('\n')) {
    const feel = /^# feel (\S{1,40}) (\w{1,10})$/.exec(line);
    if (feel && (FEELS as readonly string[]).includes(feel[2]!))
      history.push({ do: 'feel', at: feel[1]!, feel: feel[2] as Feel });
    const turn = /^# turn (\S{1,40}) (-?[\d.]{1,12})$/.exec(line);
    if (turn) history.push({ do: 'turn', adjuster: turn[1]!, turns: Number(turn[2]) });
  }
  return { thickness: Number(head[1]), uncertainty: Number(head[2]), history };
}
