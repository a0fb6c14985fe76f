import { FirstCode } from './firstCode';

test('whoever guesses waits longer each time; the right one is not taken while it waits', () => {
  let now = 0;
  const code = new FirstCode('482915', () => now);
  for (let i = 0; i < 5; i++) expect(code.is(String(100_000 + i))).toBe(false);
  expect(() => code.is('482915')).toThrow('30 seconds');
  now += 30_000;
  expect(code.is('123456')).toBe(false);
  expect(() => code.is('482915')).toThrow('60 seconds');
  now += 60_000;
  expect(code.is(' 482915 ')).toBe(true);
});

test.each([undefined, '', '48291', '4829150', '４８２９１５', '\0'])('%j is none', (said) => {
  expect(new FirstCode('482915').is(said)).toBe(false);
});

test('a day of guessing tries few of a million codes', () => {
  let now = 0;
  let tries = 0;
  const code = new FirstCode('482915', () => now);
  for (; now < 86_400_000; now += 1_000) {
    try {
      code.is('1');
      tries += 1;
    } catch {
      continue;
    }
  }
  expect(tries).toBeLessThan(50);
});

test('where nothing is asked, anything will do', () => expect(new FirstCode(null).is(undefined)).toBe(true));
