/** One value at its time. */
export interface TimedValue {
  /** epoch ms */
  at: number;
  value: number;
}

interface EvenSteps {
  /** The line at equal steps of time, straight between the values. */
  line: number[];
  /** The time of each step, epoch ms. */
  times: number[];
  /** Steps at which a value was taken. */
  taken: ReadonlySet<number>;
}

/**
 * Values of any dates as a line at equal steps of time, for charts whose points lie at equal distances. Each value is
 * kept as it is, at the step nearest to its time; of several at one step the largest is shown.
 * @param values in order of time, at least one
 */
export function evenSteps(values: readonly TimedValue[], steps = 121): EvenSteps {
  const first = values[0]!.at;
  const span = values.at(-1)!.at - first;
  if (!(span > 0)) {
    const largest = Math.max(...values.map(({ value }) => value));
    return { line: [largest], times: [first], taken: new Set([0]) };
  }
  const line = new Array<number>(steps).fill(NaN);
  const taken = new Set<number>();
  for (const { at, value } of values) {
    const step = Math.round(((at - first) / span) * (steps - 1));
    line[step] = taken.has(step) ? Math.max(line[step]!, value) : value;
    taken.add(step);
  }
  const known = [...taken].sort((a, b) => a - b);
  known.slice(1).forEach((to, i) => {
    const from = known[i]!;
    for (let step = from + 1; step < to; step++)
      line[step] = line[from]! + ((line[to]! - line[from]!) * (step - from)) / (to - from);
  });
  return { line, times: line.map((_, step) => first + (span * step) / (steps - 1)), taken };
}
