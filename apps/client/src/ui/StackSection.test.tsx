import { render, screen } from '@testing-library/react-native';
import { PaperProvider } from 'react-native-paper';
import { readAs } from './manner';
import { StackSection, type SectionLayer } from './StackSection';

const layer = (name: string, thickness: number, more: Partial<SectionLayer> = {}): SectionLayer => ({
  name,
  thickness,
  measured: true,
  loose: false,
  ...more,
});
const STACK = [
  layer('Heated plate', 3, { measured: false }),
  layer('B-001', 1.2),
  layer('S-014, side B up', 0.64, { loose: true, marked: true }),
];
const draw = (layers = STACK) =>
  render(
    <PaperProvider>
      <StackSection layers={layers} width={235} label="Stack of Dunlin" />
    </PaperProvider>,
  );
/** Edges of the drawn layers, in the order given: top and bottom from above. */
const bands = () =>
  screen.UNSAFE_root.findAll(({ type }) => (type as unknown) === 'RNSVGRect').map(({ props }) => ({
    top: Number(props['y']),
    bottom: Number(props['y']) + Number(props['height']),
  }));

beforeEach(() => readAs({ units: 'mm', zone: 'UTC', numbers: 'point' }));

test('layers lie on one another bottom first, the loose one a little off', () => {
  draw();
  const [plate, base, sheet] = bands() as [
    { top: number; bottom: number },
    { top: number; bottom: number },
    { top: number; bottom: number },
  ];
  expect(base.bottom).toBeCloseTo(plate.top, 6);
  expect(sheet.bottom).toBeLessThan(base.top);
  expect(plate.bottom - plate.top).toBeGreaterThan(base.bottom - base.top);
});

test('each says its thickness, and whether it was measured, in the unit of the shop', () => {
  draw();
  const words = JSON.stringify(screen.toJSON());
  expect(words).toContain('3 nominal');
  expect(words).toContain('0.64');
  expect(words).toContain('mm, bottom to top');
  readAs({ units: 'in', zone: 'UTC', numbers: 'comma' });
  draw();
  expect(JSON.stringify(screen.toJSON())).toContain('0,0252');
});

test('a stack without thickness is drawn all the same', () => {
  draw([layer('tape', 0)]);
  expect(bands()).toHaveLength(1);
  expect(bands()[0]!.bottom).toBeGreaterThan(bands()[0]!.top);
});
