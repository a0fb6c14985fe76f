import { doubleKnock, type Shake } from './doubleKnock';

/** Readings every 20 ms of something that lies still, with a jolt of so many m/s² at these moments. */
function lying(until: number, jolts: Record<number, number>, noise = 0.05): Shake[] {
  return Array.from({ length: Math.ceil(until / 20) }, (_, i) => {
    const at = i * 20;
    const jolt = jolts[at] ?? 0;
    return { at, x: noise * Math.sin(i), y: noise * Math.cos(3 * i), z: 9.81 + jolt };
  });
}
const heard = (shakes: readonly Shake[]) => {
  const listen = doubleKnock();
  return shakes.filter(listen).map(({ at }) => at);
};

test('two knocks a moment apart are heard once', () => {
  expect(heard(lying(3000, { 1000: 18, 1300: 16 }))).toEqual([1300]);
  expect(heard(lying(6000, { 1000: 18, 1300: 16, 4000: 14, 4200: 20 }))).toEqual([1300, 4200]);
});

test.each([
  ['one knock', { 1000: 20 }],
  ['two far apart', { 1000: 20, 2200: 20 }],
  ['one that rings on', { 1000: 20, 1060: 15 }],
  ['soft taps', { 1000: 6, 1300: 6 }],
] as const)('%s is none', (_, jolts) => expect(heard(lying(4000, jolts))).toEqual([]));

test('what is carried about knocks nothing', () => {
  const carried = lying(6000, {}).map((shake, i) => ({ ...shake, x: 7 * Math.sin(i), y: 6 * Math.cos(2 * i) }));
  expect(heard(carried)).toEqual([]);
});

test('readings without a number, or out of order, are passed over', () => {
  const shakes = lying(3000, { 1000: 18, 1300: 16 });
  const odd = [
    { at: NaN, x: 0, y: 0, z: 0 },
    { at: 500, x: NaN, y: 0, z: 0 },
    { at: -1, x: 0, y: 0, z: 99 },
  ];
  expect(heard([...shakes.slice(0, 30), ...odd, ...shakes.slice(30)])).toEqual([1300]);
});
