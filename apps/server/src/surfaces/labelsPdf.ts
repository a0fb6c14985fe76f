import type { LabelPlace, LabelSheet } from '@even-bed/core';
import QRCode from 'qrcode';
import { makePdf, POINTS_PER_MM } from '../kernel/pdf';

/** Margin inside a label, mm. */
const INSET = 3;

/** What a label says. */
export interface Labelled {
  tag: string;
  name: string;
}

/** The dark cells of a QR code for a text (ISO/IEC 18004, error correction M), row by row. */
export function codeCells(text: string): { size: number; dark: (row: number, column: number) => boolean } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  return { size: modules.size, dark: (row, column) => modules.get(row, column) === 1 };
}

/** Address of a tag's page. */
export const tagAddress = (origin: string, tag: string) => `${origin.replace(/\/$/, '')}/t/${tag}`;

/** Draws labels at their places, as PDF. */
export function drawLabels({
  sheet,
  items,
  places,
  origin,
}: {
  sheet: LabelSheet;
  items: Labelled[];
  places: LabelPlace[];
  origin: string;
}): Promise<Buffer> {
  const size: [number, number] = [sheet.page.width * POINTS_PER_MM, sheet.page.height * POINTS_PER_MM];
  return makePdf('Even Bed labels', (pdf) => {
    let page = -1;
    for (const [i, item] of items.entries()) {
      const place = places[i]!;
      if (place.page !== page) {
        pdf.addPage({ size, margin: 0 });
        page = place.page;
      }
      drawLabel(pdf, item, { ...sheet.label, ...place }, tagAddress(origin, item.tag));
    }
  });
}

function drawLabel(
  pdf: PDFKit.PDFDocument,
  { tag, name }: Labelled,
  box: { x: number; y: number; width: number; height: number },
  address: string,
): void {
  const mm = (length: number) => length * POINTS_PER_MM;
  const side = Math.min(box.height - 2 * INSET, 30);
  const { size, dark } = codeCells(address);
  // A quiet zone of four cells belongs to the code; half of it is the label's own margin.
  const cell = side / (size + 4);
  const left = box.x + INSET + 2 * cell;
  const top = box.y + (box.height - side) / 2 + 2 * cell;
  pdf.fillColor('#000000');
  for (let row = 0; row < size; row++)
    for (let column = 0; column < size; column++)
      if (dark(row, column)) pdf.rect(mm(left + column * cell), mm(top + row * cell), mm(cell) + 0.05, mm(cell) + 0.05);
  pdf.fill();
  const textLeft = box.x + INSET + side + 2;
  const width = box.width - (textLeft - box.x) - INSET;
  const tagSize = Math.min(26, box.height * 0.75, (width * POINTS_PER_MM) / (tag.length * 0.62));
  pdf
    .font('bold')
    .fontSize(tagSize)
    .text(tag, mm(textLeft), mm(box.y + INSET + 1), { width: mm(width), lineBreak: false });
  const nameTop = mm(box.y + INSET + 1) + tagSize * 1.3;
  pdf
    .font('regular')
    .fontSize(Math.min(10, box.height * 0.3))
    .text(name, mm(textLeft), nameTop, {
      width: mm(width),
      height: mm(box.y + box.height - INSET) - nameTop,
      ellipsis: true,
    });
}
