/** Median time of one call, ms: `rounds` timed batches after a warm-up, so that a hiccup decides nothing. */
export function medianMs(
  work: () => unknown,
  { rounds = 31, batch = 1 }: { rounds?: number; batch?: number } = {},
): number {
  for (let i = 0; i < 5; i++) work();
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const start = performance.now();
    for (let j = 0; j < batch; j++) work();
    times.push((performance.now() - start) / batch);
  }
  return median(times);
}

/** The same for work that answers later. */
export async function medianMsAsync(
  work: () => Promise<unknown>,
  { rounds = 31 }: { rounds?: number } = {},
): Promise<number> {
  for (let i = 0; i < 5; i++) await work();
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return median(times);
}

const median = (times: number[]) => times.sort((p, q) => p - q)[times.length >> 1]!;

/** One line of a benchmark: ours, the other, their ratio, and the aim it is held against. */
export function report(
  name: string,
  line: { ours: number; other: number; otherName: string; unit: string; aim: string; ratio: string; met: boolean },
): void {
  const { ours, other, otherName, unit, aim, ratio, met } = line;
  console.log(
    `${met ? 'met     ' : 'NOT MET '} ${name}: ${ours.toFixed(2)} ${unit}; ${otherName}: ${other.toFixed(2)} ${unit}; ${ratio} (aim: ${aim})`,
  );
}
