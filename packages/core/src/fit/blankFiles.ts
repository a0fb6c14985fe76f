import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf';
import { blankOutline } from './blankOutline';
import type { BlankLayout, BlankPlan } from './planBlanks';

/** Length of the line by which a print or a cutter is checked, mm. */
export const CHECK_LINE = 100;
/** Room under the sheet for the check line, mm. */
const FOOT = 12;
const CHECK = `check: ${CHECK_LINE} mm`;

/** A layout at true size as SVG: 1 user unit is 1 mm, the sheet's front edge at the bottom. */
export function blankSvg(plan: BlankPlan, layout: BlankLayout): string {
  const { width, depth } = plan.sheet;
  const wide = Math.max(width, CHECK_LINE + 4);
  const up = (y: number) => figure(depth - y);
  const pieces = layout.pieces.map((piece) => {
    const points = blankOutline(piece, plan.blanks[piece.kind]?.corners).map(([x, y]) => `${figure(x)},${up(y)}`);
    const name = `${figure(piece.width)} × ${figure(piece.depth)}`;
    return `<polygon points="${points.join(' ')}"/><text x="${figure(piece.x + piece.width / 2)}" y="${up(piece.y + piece.depth / 2)}" stroke="none" fill="black" font-size="${figure(Math.min(8, piece.width / 8))}" text-anchor="middle">${name}</text>`;
  });
  const foot = figure(depth + FOOT / 2);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${figure(wide)}mm" height="${figure(depth + FOOT)}mm" viewBox="0 0 ${figure(wide)} ${figure(depth + FOOT)}" fill="none" stroke="black" stroke-width="0.2">`,
    `<rect id="sheet" x="0" y="0" width="${figure(width)}" height="${figure(depth)}"/>`,
    `<g id="pieces">${pieces.join('')}</g>`,
    `<line id="check" x1="2" y1="${foot}" x2="${CHECK_LINE + 2}" y2="${foot}"/>`,
    `<text x="2" y="${figure(depth + FOOT - 1)}" stroke="none" fill="black" font-size="4">${CHECK}</text>`,
    '</svg>',
  ].join('\n');
}

/** A layout at true size as DXF, mm: sheet, pieces and check line each on a layer of its own. */
export function blankDxf(plan: BlankPlan, layout: BlankLayout): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const [name, color] of [
    ['SHEET', 8],
    ['PIECES', 7],
    ['CHECK', 5],
  ] as const)
    dxf.addLayer(name, color, 'Continuous');
  const outline = (points: readonly (readonly [number, number])[], layerName: string) =>
    dxf.addLWPolyline(
      points.map(([x, y]) => ({ point: point2d(x, y) })),
      { flags: LWPolylineFlags.Closed, layerName },
    );
  const { width, depth } = plan.sheet;
  outline(
    [
      [0, 0],
      [width, 0],
      [width, depth],
      [0, depth],
    ],
    'SHEET',
  );
  for (const piece of layout.pieces) outline(blankOutline(piece, plan.blanks[piece.kind]?.corners), 'PIECES');
  dxf.addLine(point3d(0, -FOOT / 2), point3d(CHECK_LINE, -FOOT / 2), { layerName: 'CHECK' });
  dxf.addText(point3d(0, -FOOT + 1), 4, CHECK, { layerName: 'CHECK' });
  return dxf.stringify();
}

const figure = (mm: number) => String(Math.round(mm * 1e4) / 1e4);
