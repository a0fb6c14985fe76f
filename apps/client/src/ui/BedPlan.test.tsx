import { contourBed } from '@even-bed/core/level/contourBed';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { BedPlan } from './BedPlan';

const plate = { width: 220, depth: 240, originX: 10, originY: 20, printWidth: 200, printDepth: 200 };
const points = [0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => ({ x, y, z: 5 + 0.001 * x })));
const contours = contourBed({ points, step: 0.05 });

/** Draws into a room of 400 px, as a layout pass would. */
function draw(props: Partial<Parameters<typeof BedPlan>[0]> = {}) {
  render(<BedPlan plate={plate} label="The bed" testID="plan" {...props} />);
  fireEvent(screen.getByTestId('plan', { includeHiddenElements: true }), 'layout', {
    nativeEvent: { layout: { width: 400, height: 400, x: 0, y: 0 } },
  });
  return JSON.stringify(screen.toJSON());
}

test('heights stand in hundredths about their mean, with FRONT at the bottom', () => {
  const text = draw({ points, contours });
  for (const figure of ['+10', '\u221210', '"0"']) expect(text).toContain(figure);
  expect(text).toContain('FRONT');
  expect(screen.getByLabelText('The bed')).toBeTruthy();
});

test('the drawing keeps the plate’s proportions, and the rear is at the top', () => {
  const text = draw({
    points: [
      { x: 0, y: 0, z: 0 },
      { x: 200, y: 200, z: 1 },
    ],
    contours: null,
    maxHeight: 1000,
  });
  const plateRect = /"width":([\d.]+),"height":([\d.]+)[^}]*|"height":([\d.]+),"width":([\d.]+)/;
  expect(plateRect.test(text)).toBe(true);
  const { width, height } = rectangle(text);
  expect(height / width).toBeCloseTo(240 / 220, 6);
});

test('a figure gives way to an adjuster’s dot and to its dial', () => {
  const adjuster = { id: 'a', x: 100, y: 100 };
  const count = (text: string) => (text.match(/\+10|\u221210|"0"/g) ?? []).length;
  expect(count(draw({ points, contours }))).toBe(9);
  expect(count(draw({ points, contours, adjusters: [adjuster] }))).toBe(8);
});

test('a large map gets figures on some of its rows and columns only', () => {
  const many = Array.from({ length: 400 }, (_, i) => ({ x: 10 * (i % 20), y: 10 * Math.floor(i / 20), z: 0 }));
  const text = draw({ points: many, contours: null });
  expect((text.match(/RNSVGText/g) ?? []).length).toBeLessThanOrEqual(26);
});

test('a small plan has no words in it', () => {
  const text = draw({ points, contours, small: true, label: undefined });
  expect(text).not.toContain('FRONT');
  expect(text).not.toContain('+10');
});

/** The first rectangle drawn: the plate. */
function rectangle(text: string): { width: number; height: number } {
  const at = text.indexOf('RNSVGRect');
  const part = text.slice(at, at + 600);
  const value = (name: string) => Number(new RegExp(`"${name}":"?([\\d.]+)`).exec(part)![1]);
  return { width: value('width'), height: value('height') };
}
