import type { BlanksPdfAsk, Paper } from '@even-bed/contract';
import { planBlanks, type BlankLayout, type BlankPlan } from '@even-bed/core';
import { blankOutline } from '@even-bed/core/fit/blankOutline';
import { CHECK_LINE } from '@even-bed/core/fit/blankFiles';
import { blankCaution, type CutMethod } from '@even-bed/core/fit/blankCaution';
import { blanksOf } from '@even-bed/core/fit/toolInputs';
import { makePdf, POINTS_PER_MM } from '../kernel/pdf';
import { atField } from '../kernel/problem';

/** Margin that office printers leave white, mm. */
const MARGIN = 10;
/** Room under the drawing for the check line, mm. */
const FOOT = 22;
const PAGES: Record<Exclude<Paper, 'whole'>, { width: number; height: number }> = {
  a4: { width: 210, height: 297 },
  letter: { width: 215.9, height: 279.4 },
};
/** More pages than so many to one layout are no way to print it. */
const MOST_PAGES = 60;

/** Layouts of blanks at 1:1, each page with a line of 100 mm to check the print by. */
export async function blanksPdf({ input, paper }: BlanksPdfAsk): Promise<Buffer> {
  const plan = planned(input);
  const { width, depth } = plan.sheet;
  const page =
    paper === 'whole'
      ? { width: Math.max(width, CHECK_LINE) + 2 * MARGIN, height: depth + 2 * MARGIN + FOOT }
      : PAGES[paper];
  // What one page shows of the sheet: pages are cut at these edges and laid together.
  const tile = { width: page.width - 2 * MARGIN, height: page.height - 2 * MARGIN - FOOT };
  const across = Math.ceil(width / tile.width - 1e-9);
  const deep = Math.ceil(depth / tile.height - 1e-9);
  if (across * deep > MOST_PAGES)
    throw atField('paper', `That would be ${across * deep} pages. Print it on one large page.`);
  return makePdf('Even Bed blanks at 1:1', (pdf) => {
    plan.layouts.forEach((layout, l) => {
      for (let row = 0; row < deep; row++)
        for (let column = 0; column < across; column++) {
          pdf.addPage({ size: [page.width * POINTS_PER_MM, page.height * POINTS_PER_MM], margin: 0 });
          const name = `Layout ${l + 1} of ${plan.layouts.length}, ${layout.sheets} ×${across * deep > 1 ? `, row ${row + 1} from the front, column ${column + 1}` : ''}`;
          pdf.save();
          pdf.scale(POINTS_PER_MM).translate(MARGIN, MARGIN);
          pdf.rect(0, 0, tile.width, tile.height).clip();
          // Front at the bottom of the page: the first row of tiles is the front one.
          pdf.translate(-column * tile.width, tile.height + row * tile.height).scale(1, -1);
          drawLayout(pdf, plan, layout);
          pdf.restore();
          drawFoot(pdf, page, name, input.method);
        }
    });
  });
}

function planned(input: BlanksPdfAsk['input']): BlankPlan {
  try {
    return planBlanks(blanksOf(input));
  } catch (error) {
    if (error instanceof RangeError) throw atField('input', error.message);
    throw error;
  }
}

function drawLayout(pdf: PDFKit.PDFDocument, plan: BlankPlan, layout: BlankLayout): void {
  const { width, depth } = plan.sheet;
  pdf.lineWidth(0.3).strokeColor('#5A6A70').rect(0, 0, width, depth).stroke();
  pdf.lineWidth(0.2).strokeColor('#000000');
  for (const piece of layout.pieces) {
    pdf.polygon(...blankOutline(piece, plan.blanks[piece.kind]?.corners).map(([x, y]) => [x, y])).stroke();
    pdf.save();
    // Letters are upright again.
    pdf.translate(piece.x + piece.width / 2, piece.y + piece.depth / 2).scale(1, -1);
    pdf
      .fillColor('#000000')
      .font('regular')
      .fontSize(Math.min(7, piece.width / 9))
      .text(`${figure(piece.width)} × ${figure(piece.depth)}`, -piece.width / 2, -3, {
        width: piece.width,
        align: 'center',
        lineBreak: false,
      });
    pdf.restore();
  }
}

function drawFoot(
  pdf: PDFKit.PDFDocument,
  page: { width: number; height: number },
  name: string,
  method: CutMethod,
): void {
  const mm = (length: number) => length * POINTS_PER_MM;
  const y = page.height - MARGIN - FOOT + 8;
  pdf.lineWidth(0.7).strokeColor('#000000');
  pdf
    .moveTo(mm(MARGIN), mm(y))
    .lineTo(mm(MARGIN + CHECK_LINE), mm(y))
    .stroke();
  pdf
    .fillColor('#000000')
    .font('regular')
    .fontSize(9)
    .text(`This line is ${CHECK_LINE} mm. Print at 100 %, not "fit to page". ${name}`, mm(MARGIN), mm(y + 1.5), {
      lineBreak: false,
    });
  const { title, text } = blankCaution(method);
  pdf
    .font('bold')
    .fontSize(8)
    .text(`${title}. ${text}`, mm(MARGIN), mm(y + 6), {
      width: mm(page.width - 2 * MARGIN),
      height: mm(FOOT - 14),
    });
}

const figure = (mm: number) => String(Math.round(mm * 100) / 100);
