import { meshOf } from '@even-bed/core/fit/solidFile';
import { spacerSolid } from '@even-bed/core/fit/spacerSolid';
import { render } from '@testing-library/react-native';
import { Line, Polygon } from 'react-native-svg';
import { SolidView } from './SolidView';

const drawn = (ask: Parameters<typeof spacerSolid>[0]) => {
  const view = render(<SolidView {...meshOf(spacerSolid(ask).solid)} label="a spacer" />);
  return { lines: view.UNSAFE_getAllByType(Line), faces: view.UNSAFE_getAllByType(Polygon) };
};

test('a plain block shows three faces and nine edges; the three behind are hidden', () => {
  const { lines, faces } = drawn({ shape: 'pad', thickness: 3, layer: null, width: 10, depth: 20, hole: 0 });
  expect(lines).toHaveLength(9);
  expect(faces).toHaveLength(6);
});

test('a hole shows its rim and hides the rim below it where the plate is thick', () => {
  const edges = (thickness: number) =>
    drawn({ shape: 'pad', thickness, layer: null, width: 10, depth: 20, hole: 4 }).lines.length;
  // A rim of 64 edges, whole: the lower one is seen through the hole only while the plate is thin.
  expect(edges(8)).toBe(9 + 64);
  expect(edges(0.5)).toBeGreaterThan(9 + 64);
});
