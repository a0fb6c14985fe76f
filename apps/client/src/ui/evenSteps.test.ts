import { evenSteps } from './evenSteps';

const DAY = 86_400_000;

describe('evenSteps', () => {
  it('puts values where their dates lie, not at equal distances', () => {
    const { line, times, taken } = evenSteps(
      [
        { at: 0, value: 0.3 },
        { at: DAY, value: 0.1 },
        { at: 10 * DAY, value: 0.19 },
      ],
      11,
    );
    expect([...taken]).toEqual([0, 1, 10]);
    expect(line[1]).toBe(0.1);
    expect(line[5]).toBeCloseTo(0.1 + (0.09 * 4) / 9, 12);
    expect(times[10]).toBe(10 * DAY);
  });

  it('shows the largest of several at one step, and of several at one time', () => {
    const close = evenSteps(
      [
        { at: 0, value: 0.1 },
        { at: 1000, value: 0.4 },
        { at: 1_000_000_000, value: 0.2 },
      ],
      5,
    );
    expect(close.line[0]).toBe(0.4);
    expect(
      evenSteps([
        { at: 5, value: 0.1 },
        { at: 5, value: 0.2 },
      ]).line,
    ).toEqual([0.2]);
  });

  it('takes one value', () => {
    expect(evenSteps([{ at: 7, value: 0.1 }])).toEqual({ line: [0.1], times: [7], taken: new Set([0]) });
  });
});
