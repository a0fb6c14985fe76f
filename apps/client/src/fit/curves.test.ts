import { soak } from '@even-bed/core/fit/soak';
import { soakOf } from '@even-bed/core/fit/toolInputs';
import { readAs } from '../ui/manner';
import { curvesOf, sampled, startOf } from './curves';

test('values at equal steps lie on the straight line between the points taken, and stay level after the end', () => {
  expect(sampled([0, 1, 10], [20, 30, 120], 10, 5)).toEqual([20, 45, 70, 95, 120]);
  expect(sampled([0, 5], [20, 70], 10, 3)).toEqual([20, 70, 70]);
});

test('bottom leads, top follows, and a kept stack is drawn beside them to the end of the longer', () => {
  const ask = { flux: 4000, setpoint: 100, ambient: 22, loss: 12, within: 2 };
  const thin = soak(soakOf({ ...ask, layers: [{ material: 'aluminium', thickness: 3, dry: false }] }));
  const thick = soak(
    soakOf({
      ...ask,
      layers: [
        { material: 'aluminium', thickness: 3, dry: false },
        { material: 'glass', thickness: 4, dry: true },
      ],
    }),
  );
  const { lines, labels } = curvesOf(thin, { result: thick });
  expect(lines.map(({ name }) => name)).toEqual(['Bottom, as the sensor sees it', 'Top', 'Top of the one kept']);
  for (const { values } of lines) expect(values).toHaveLength(61);
  expect(lines[2]!.values.at(-1)!).toBeLessThan(lines[1]!.values.at(-1)!);
  expect(labels[0]).toBe('0 min');
});

test('when to switch on, in the zone of the shop', () => {
  readAs({ units: 'mm', zone: 'Europe/Berlin', numbers: 'point' } as Parameters<typeof readAs>[0]);
  // 12:00 UTC is 13:00 there in November.
  const now = Date.UTC(2026, 10, 25, 12);
  expect(startOf('14:30', 600, now)).toBe('switch on at 14:20');
  expect(startOf('13.05', 600, now)).toBe('it is late: begun now it is hot at 13:10');
  expect(startOf('9:00', 600, now)).toBe('switch on tomorrow at 08:50');
  expect(startOf('soon', 600, now)).toBeNull();
  expect(startOf('25:00', 600, now)).toBeNull();
});
