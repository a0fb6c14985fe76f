import { FirstCode } from './firstCode';

test('whoever guesses waits longer each time, and nobody else with them', () => {
  let now = 0;
  const code = new FirstCode('482915', { now: () => now });
  for (let i = 0; i < 5; i++) expect(code.is(String(100_000 + i), 'a')).toBe(false);
  expect(() => code.is('482915', 'a')).toThrow('30 seconds');
  expect(code.is(' 482915 ', 'b')).toBe(true);
  now += 30_000;
  expect(code.is('123456', 'a')).toBe(false);
  expect(() => code.is('482915', 'a')).toThrow('60 seconds');
  now += 60_000;
  expect(code.is('482915', 'a')).toBe(true);
});

test.each([undefined, '', '48291', '4829150', '４８２９１５', '\0'])('%j is none', (said) => {
  expect(new FirstCode('482915').is(said, 'a')).toBe(false);
});

test('a day of guessing tries few of a million codes', () => {
  let now = 0;
  let tries = 0;
  const code = new FirstCode('482915', { now: () => now });
  for (; now < 86_400_000; now += 1_000) {
    try {
      code.is('1', 'a');
      tries += 1;
    } catch {
      continue;
    }
  }
  expect(tries).toBeLessThan(50);
});

test('guessed at from many addresses it becomes another, and that is told', () => {
  const told: string[] = [];
  const code = new FirstCode('482915', { onNew: (next) => told.push(next) });
  for (let i = 0; i < 200; i++) code.is('1', `address ${i}`);
  expect(told).toHaveLength(1);
  expect(told[0]).toMatch(/^\d{6}$/);
  expect(code.is('482915', 'lead')).toBe(told[0] === '482915');
  expect(code.is(told[0], 'lead')).toBe(true);
});

test('where nothing is asked, anything will do', () => expect(new FirstCode(null).is(undefined, 'a')).toBe(true));
