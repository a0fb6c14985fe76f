import { planTurns } from '@even-bed/core/level/planTurns';
import { fireEvent, render, screen } from '@testing-library/react-native';
import type { CheckDraft } from './levelSlice';
import { TurnList } from './TurnList';

const corner = (id: string, x: number, y: number) => ({ id, x, y, pitch: 0.7, clockwise: 'lowers' as const });
const adjusters = [corner('fl', 0, 0), corner('fr', 200, 0), corner('rl', 0, 200), corner('rr', 200, 200)];
const points = [0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => ({ x, y, z: 0.002 * x + 0.001 * y })));
const plan = planTurns({ points, adjusters, aim: 0.1 });
const draft = {
  adjusterNames: { fl: 'front-left', fr: 'front-right', rl: 'rear-left', rr: 'rear-right' },
  setup: { seenFrom: 'above', adjusters },
} as unknown as CheckDraft;

test('lists the turns in the order to make them, lowering first, with words, travel and state', () => {
  render(<TurnList plan={plan} draft={draft} ticked={new Set([plan.order[1]!])} locked={false} onTick={jest.fn()} />);
  const boxes = screen.getAllByRole('checkbox');
  expect(boxes).toHaveLength(plan.order.length);
  expect(screen.getByTestId(`turn-${plan.order[0]}`)).toHaveTextContent(
    /^1Rear-right.* clockwise.*lowers .* mm.*not made$/,
  );
  expect(screen.getByTestId(`turn-${plan.order[1]}`)).toHaveTextContent(/made$/);
  expect(screen.getByTestId(`turn-${plan.order[1]}`)).toBeChecked();
});

test('seen from below every direction turns over', () => {
  const below = { ...draft, setup: { seenFrom: 'below', adjusters } } as unknown as CheckDraft;
  render(<TurnList plan={plan} draft={below} ticked={new Set()} locked={false} onTick={jest.fn()} />);
  expect(screen.getByText('TURNS IN ORDER, LOOKING UP FROM BELOW')).toBeTruthy();
  expect(screen.getByTestId(`turn-${plan.order[0]}`)).toHaveTextContent(/anticlockwise/);
});

test('a tap ticks, unless the turns are noted already', () => {
  const onTick = jest.fn();
  const { rerender } = render(<TurnList plan={plan} draft={draft} ticked={new Set()} locked={false} onTick={onTick} />);
  fireEvent.press(screen.getByTestId(`turn-${plan.order[0]}`));
  expect(onTick).toHaveBeenCalledWith(plan.order[0]);
  rerender(<TurnList plan={plan} draft={draft} ticked={new Set()} locked onTick={onTick} />);
  fireEvent.press(screen.getByTestId(`turn-${plan.order[0]}`));
  expect(onTick).toHaveBeenCalledTimes(1);
});

test('of what a motor drives the move is said, not a turn', () => {
  const motors = adjusters.map((one) => ({ ...one, pitch: 1, clockwise: 'raises' as const, motor: true as const }));
  const driven = planTurns({ points, adjusters: motors, aim: 0.1 });
  const setup = { seenFrom: 'below', adjusters: motors };
  render(
    <TurnList
      plan={driven}
      draft={{ ...draft, setup } as unknown as CheckDraft}
      ticked={new Set()}
      locked={false}
      onTick={jest.fn()}
    />,
  );
  expect(screen.getByTestId(`turn-${driven.order[0]}`)).toHaveTextContent(/^1Rear-right ?down by 0\.\d\d mm/);
});
