import { LABEL_SHEETS, labelPlaces } from './labelSheet';

test.each(LABEL_SHEETS.map((sheet) => [sheet.name, sheet] as const))(
  '%s fits its page, label beside label',
  (_, sheet) => {
    const { page, label, columns, rows, left, top, across, down } = sheet;
    expect(left + (columns - 1) * across + label.width).toBeLessThanOrEqual(page.width + 1e-9);
    expect(top + (rows - 1) * down + label.height).toBeLessThanOrEqual(page.height + 1e-9);
    expect(across).toBeGreaterThanOrEqual(label.width);
    expect(down).toBeGreaterThanOrEqual(label.height);
    // Symmetrical: what is left over is shared by both edges.
    expect(page.width - (left + (columns - 1) * across + label.width)).toBeCloseTo(left, 6);
    expect(page.height - (top + (rows - 1) * down + label.height)).toBeCloseTo(top, 6);
  },
);

test('labels go to the chosen cells of the first sheet, then to all of the next ones', () => {
  const sheet = LABEL_SHEETS[0]!;
  const places = labelPlaces(sheet, 28, [4, 0, 4]);
  expect(places.slice(0, 3)).toEqual([
    { page: 0, x: 0, y: 0.5 },
    { page: 0, x: 70, y: 37.5 },
    { page: 1, x: 0, y: 0.5 },
  ]);
  expect(places[25]).toEqual({ page: 1, x: 140, y: 259.5 });
  expect(places[26]!.page).toBe(2);
  expect(new Set(places.map(({ page, x, y }) => `${page} ${x} ${y}`)).size).toBe(28);
});

test.each([[[]], [[24]], [[-1]], [[0.5]]])('refuses cells %j', (cells) =>
  expect(() => labelPlaces(LABEL_SHEETS[0]!, 1, cells)).toThrow(RangeError),
);
