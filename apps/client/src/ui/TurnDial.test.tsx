import { render } from '@testing-library/react-native';
import Svg from 'react-native-svg';
import { TurnDial } from './TurnDial';

/** Everything drawn: type and properties of each element. */
function drawn(turns: number, made = false) {
  const { toJSON } = render(
    <Svg>
      <TurnDial x={0} y={0} turns={turns} made={made} />
    </Svg>,
  );
  return JSON.stringify(toJSON());
}
/** The arc's path: from the top, so far round, that way. */
const arcOf = (text: string) => /M0 -23 A23 23 0 ([01]) ([01]) (-?[\d.e-]+) (-?[\d.e-]+)/.exec(text);

test.each([
  [0.25, '0', '1', 23, 0],
  [-0.25, '0', '0', -23, 0],
  [0.5, '0', '1', 0, 23],
  [0.75, '1', '1', -23, 0],
])('a turn of %d ends where a knob’s mark would', (turns, large, sweep, x, y) => {
  const arc = arcOf(drawn(turns))!;
  expect([arc[1], arc[2]]).toEqual([large, sweep]);
  expect(Number(arc[3])).toBeCloseTo(x, 6);
  expect(Number(arc[4])).toBeCloseTo(y, 6);
});

test('no turn draws no arc and a dash; more than one fills the ring and says how many', () => {
  expect(arcOf(drawn(0))).toBeNull();
  expect(drawn(0)).toContain('–');
  expect(arcOf(drawn(2.4))![1]).toBe('1');
  expect(drawn(2.4)).toContain('2.4');
});

test('a turn that was made shows a tick instead of its size', () => {
  expect(drawn(0.25)).toContain('¼');
  expect(drawn(0.25, true)).not.toContain('¼');
  expect(drawn(0.25, true)).toContain('M-7 0 L-2 6 L8 -6');
});
