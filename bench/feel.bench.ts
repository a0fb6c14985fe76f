// Touches to an even bed by paper and feel, against the routine as practised, on the same seeded beds in one run.
import { byAdvice, byRoutine, handBed } from '../packages/core/src/level/feelHand.fixture';

const BEDS = 1000;
const PARTS = [0.05, 0.25, 0.5, 0.75, 0.95, 0.99, 1];
const parts = (values: number[]) => {
  const sorted = [...values].sort((a, b) => a - b);
  return PARTS.map((part) => sorted[Math.ceil(part * sorted.length) - 1]).join(' / ');
};

for (const count of [3, 4] as const)
  for (const slip of [0, 0.05]) {
    const advice: number[] = [];
    const routine: number[] = [];
    let wrong = 0;
    for (let seed = 1; seed <= BEDS; seed++) {
      routine.push(byRoutine(handBed({ seed, count, slip })));
      const bed = handBed({ seed, count, slip });
      advice.push(byAdvice(bed).touches);
      if (bed.adjusters.some((place) => Math.abs(bed.gap(place)) > 0.03)) wrong++;
    }
    process.stdout.write(
      `${count} adjusters, ${100 * slip} % of feels off by one\n  advice  ${parts(advice)}\n  routine ${parts(routine)}\n  wrong ends ${((100 * wrong) / BEDS).toFixed(1)} %\n`,
    );
  }
