import { proved, trials } from '../simulated/prove.fixture';
import { compareMaps } from './compareMaps';
import { describeShape } from './describeShape';
import { readingStep, stepNoise } from './readingStep';
import { repeatability } from './repeatability';
import { seededRandom } from './seededMap.fixture';

test('the coarsest usual step that all heights are whole numbers of', () => {
  expect(readingStep([0.02, 0.05, -0.01])).toBe(0.01);
  expect(readingStep([0.1, 0.2, 0.15, 0, -0.05, 0.25, 0.3, 0.05, 0.1])).toBe(0.05);
  // Few readings fall on twentieths by chance.
  expect(readingStep([0.1, 0.2, 0.15])).toBe(0.01);
  expect(readingStep([0.0123456, 0.2])).toBe(0);
  expect(readingStep([])).toBe(0);
  expect(readingStep([0.1, 0.1])).toBe(0);
  expect(readingStep([NaN, 0.1])).toBe(0);
  // GUM F.2.2.1: a step of 0.01 is a standard uncertainty of 0.00289.
  expect(stepNoise([0.02, 0.05, -0.01])).toBeCloseTo(0.00289, 5);
});

test('what repeats on a coarse step is not exact', () => {
  const twice = [0.01, 0.01, 0.03, 0.03, 0.02, 0.02].map((z, i) => ({ x: i >> 1, y: 0, z }));
  expect(repeatability(twice)).toBeCloseTo(0.01 / Math.sqrt(12), 9);
});

describe.each([0.01, 0.02, 0.05])('flat beds read in steps of %d', (step) => {
  const beds = trials(2000, 100);
  const read = (random: () => number, slopes: readonly number[], side: number) =>
    Array.from({ length: side * side }, (_, i) => {
      const [x, y] = [(200 * (i % side)) / (side - 1), (200 * Math.floor(i / side)) / (side - 1)];
      const noise = 0.004 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      return { x, y, z: Math.round((slopes[0]! * x + slopes[1]! * y + noise) / step) * step };
    });
  test('have a shape named, or are called changed, in at most one of twenty', () => {
    let [named, changed] = [0, 0];
    for (let seed = 1; seed <= beds; seed++) {
      const random = seededRandom(seed);
      const slopes = [0.002 * (random() - 0.5), 0.002 * (random() - 0.5)];
      const side = 5 + (seed % 4);
      const map = read(random, slopes, side);
      if (!['none', 'untold'].includes(describeShape(map).name)) named++;
      if (compareMaps({ before: map, after: read(random, slopes, side) }).verdict === 'changed') changed++;
    }
    proved(
      'coarse steps',
      `flat beds in steps of ${step}`,
      `a shape named in ${named}, unchanged called changed in ${changed} of ${beds}`,
    );
    expect(named / beds).toBeLessThanOrEqual(0.05);
    expect(changed / beds).toBeLessThanOrEqual(0.05);
  });
});
