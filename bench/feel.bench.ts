// Touches to an even bed by paper and feel, against the routine as practised, on the same seeded beds in one run.
import { feelToEnd, feltBy } from '../packages/core/src/simulated/feelPerson.fixture';
import { PEOPLE } from '../packages/core/src/simulated/people.fixture';
import { byRoutine, screwBed } from '../packages/core/src/simulated/screwBed.fixture';

const BEDS = 300;
const PARTS = [0.05, 0.25, 0.5, 0.75, 0.95, 0.99, 1];
const parts = (values: number[]) => {
  const sorted = [...values].sort((a, b) => a - b);
  return PARTS.map((part) => sorted[Math.ceil(part * sorted.length) - 1]).join(' / ');
};
const isOut = (bed: ReturnType<typeof screwBed>) => bed.places.some((_, i) => Math.abs(bed.gap(i)) > 0.03);

for (const count of [3, 4] as const)
  for (const who of ['tidy', 'slips a key'] as const) {
    const [advice, routine] = [[] as number[], [] as number[]];
    const wrong = { advice: 0, routine: 0 };
    for (let seed = 1; seed <= BEDS; seed++) {
      const by = screwBed({ seed, count });
      routine.push(byRoutine(by, (place) => feltBy(by, PEOPLE[who], place)));
      if (isOut(by)) wrong.routine++;
      const end = feelToEnd(screwBed({ seed, count }), PEOPLE[who]);
      advice.push(end.touches);
      if (end.wrong) wrong.advice++;
    }
    const share = (n: number) => `${((100 * n) / BEDS).toFixed(1)} %`;
    process.stdout.write(
      `${count} adjusters, ${who}\n  advice  ${parts(advice)}, wrong ends ${share(wrong.advice)}\n  routine ${parts(routine)}, wrong ends ${share(wrong.routine)}\n`,
    );
  }
