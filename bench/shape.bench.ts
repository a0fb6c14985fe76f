import { flatness } from '../packages/core/src/level/flatness';
import { seededMap } from '../packages/core/src/level/seededMap.fixture';
import { zoneProgramme, zoneSolver } from '../packages/core/src/level/zoneByHighs.fixture';
import { medianMs, report } from './measure';

const points = seededMap(42, { columns: 100, rows: 100 });
const zone = await zoneSolver();
// Written out before it is timed; the solver still has to read it.
const programme = zoneProgramme(points.map(({ x, y, z }) => ({ x: x / 100, y: y / 100, z })));

const apart = Math.abs(flatness(points).value - zone(programme));
if (!(apart < 1e-9)) throw new Error(`the two zones differ by ${apart}`);
const ours = medianMs(() => flatness(points));
const other = medianMs(() => zone(programme), { rounds: 5 });
report('flatness of 10,000 points', {
  ours,
  other,
  otherName: 'HiGHS (linear programme)',
  unit: 'ms',
  ratio: `${(other / ours).toFixed(0)} times faster, answers within ${apart.toExponential(0)}`,
  aim: 'at least 20 times faster, same answer',
  met: other / ours >= 20,
});
