import { joinedMarks } from './LifeStrip';

test('letters that would lie on each other are one figure', () => {
  const marks = [0.5, 0.1, 0.13, 0.16, 0.9].map((share, i) => ({ share, text: 'wsWwR'[i]! }));
  const joined = joinedMarks(marks);
  expect(joined.map(({ text }) => text)).toEqual(['sWw', 'w', 'R']);
  expect(joined[0]!.share).toBeCloseTo(0.13, 12);
  expect(joinedMarks([])).toEqual([]);
});
