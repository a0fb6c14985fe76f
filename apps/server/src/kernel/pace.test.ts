import request from 'supertest';
import { LIMITS } from './limits';
import { Pacer } from './pace';
import type { Problem } from './problem';
import { openShop } from '../app/shop.fixture';

const refusals = (pacer: Pacer, caller: string, times: number, now: number) => {
  let refused = 0;
  for (let i = 0; i < times; i++)
    try {
      pacer.take(caller, false, now);
    } catch (error) {
      expect((error as Problem).status).toBe(429);
      refused++;
    }
  return refused;
};
const { burst, perSecond } = LIMITS.paceUnknown;

test('a burst is taken, more is refused, and time gives it back', () => {
  const pacer = new Pacer();
  expect(refusals(pacer, 'a', burst, 0)).toBe(0);
  expect(refusals(pacer, 'a', 5, 0)).toBe(5);
  expect(refusals(pacer, 'b', 5, 0)).toBe(0);
  expect(refusals(pacer, 'a', perSecond + 3, 1000)).toBe(3);
  // A clock set back takes nothing away and gives nothing.
  expect(refusals(pacer, 'b', burst, -1e9)).toBe(5);
});

test('a million callers are not all remembered', () => {
  const pacer = new Pacer();
  for (let i = 0; i < 20_000; i++) pacer.take(`caller ${i}`, false, 0);
  expect((pacer as unknown as { buckets: Map<string, unknown> }).buckets.size).toBeLessThanOrEqual(10_000);
});

test('who asks too fast hears when to come back, and others are served meanwhile', async () => {
  const shop = await openShop();
  // However slow this machine is: no time passes, and nothing is given back.
  const clock = jest.spyOn(performance, 'now').mockReturnValue(1_000_000);
  const outsider = request(shop.app.callback());
  const refused: string[] = [];
  for (let i = 0; i < burst + 20; i++) {
    const { status, headers } = await outsider.get('/api/machines');
    if (status === 429) refused.push((headers as Record<string, string>)['retry-after']!);
  }
  expect(refused.length).toBeGreaterThan(0);
  expect(Number(refused[0])).toBeGreaterThanOrEqual(1);
  await shop.api.get('/api/machines').expect(200);
  clock.mockRestore();
  await shop.close();
});
