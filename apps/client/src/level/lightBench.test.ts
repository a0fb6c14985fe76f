import { drawnLines, FIRST_SIX, nextLine, withoutLines, withStretch, type LightBench } from './lightBench';

const lit = (from: number, to: number, feeler: number | null = null) => ({ from, to, light: 'clear' as const, feeler });

test('a stretch takes the place of what it covers', () => {
  expect(withStretch([], lit(0.2, 0.4))).toEqual([lit(0.2, 0.4)]);
  expect(withStretch([lit(0.6, 1)], lit(0, 0.3))).toEqual([lit(0, 0.3), lit(0.6, 1)]);
  expect(withStretch([lit(0.2, 0.8, 0.1)], lit(0.5, 1))).toEqual([lit(0.2, 0.5, 0.1), lit(0.5, 1)]);
  expect(withStretch([lit(0.2, 0.4), lit(0.5, 0.6)], lit(0, 1))).toEqual([lit(0, 1)]);
});

test('the next line is the first that nobody looked along; a doubted one is drawn so', () => {
  const bench: LightBench = {
    machineId: null,
    surfaceId: null,
    width: '',
    depth: '',
    seen: {},
    at: null,
    eight: false,
  };
  expect(nextLine(bench)).toBe('along-left');
  const seen = Object.fromEntries(FIRST_SIX.map((id) => [id, []]));
  expect(nextLine({ ...bench, seen })).toBeNull();
  expect(nextLine({ ...bench, seen, eight: true })).toBe('along-middle');
  // After a cure only the changed lines are looked along again.
  const again = withoutLines({ ...bench, seen }, ['across-rear', 'diagonal-1']);
  expect(again.at).toBe('across-rear');
  expect(Object.keys(again.seen)).toHaveLength(4);
  const lines = drawnLines({ width: 200, depth: 100 }, { seen: { 'along-left': [lit(0, 1)] }, eight: false }, [
    'diagonal-1',
  ]);
  expect(lines).toHaveLength(6);
  expect(lines[0]).toMatchObject({ seen: true, lit: [{ strong: true }] });
  expect(lines.find(({ id }) => id === 'diagonal-1')).toMatchObject({ seen: false, doubted: true });
});
