import type { LabelsQuery } from '@even-bed/contract';
import { LABEL_SHEETS, labelPlaces } from '@even-bed/core';
import type { Knex } from 'knex';
import QRCode from 'qrcode';
import { makePdf, POINTS_PER_MM } from '../kernel/pdf';
import { atField, Problem } from '../kernel/problem';

/** Margin inside a label, mm. */
const INSET = 3;

interface Labelled {
  tag: string;
  name: string;
}

/** What stands on the labels of some tags, in the order asked for. @throws Problem a tag that nobody has */
async function named(db: Knex, tags: readonly string[]): Promise<Labelled[]> {
  const upper = tags.map((tag) => tag.toUpperCase());
  const surfaces = (await db('surfaces as s')
    .join('surface_kinds as k', 'k.id', 's.kind_id')
    .whereIn('s.tag', upper)
    .select('s.tag', 'k.name')) as Labelled[];
  const machines = (await db('machines').whereIn('tag', upper).select('tag', 'name')) as Labelled[];
  const byTag = new Map([...surfaces, ...machines].map((item) => [item.tag, item]));
  return upper.map((tag) => {
    const item = byTag.get(tag);
    if (!item) throw atField('tags', `Nobody has the tag ${tag}.`);
    return item;
  });
}

/** The dark cells of a QR code for a text (ISO/IEC 18004, error correction M), row by row. */
export function codeCells(text: string): { size: number; dark: (row: number, column: number) => boolean } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  return { size: modules.size, dark: (row, column) => modules.get(row, column) === 1 };
}

/** Address of a tag's page. */
export const tagAddress = (origin: string, tag: string) => `${origin.replace(/\/$/, '')}/t/${tag}`;

/** A PDF of labels: code, tag in large type, and what it is. */
export async function labelsPdf(db: Knex, query: LabelsQuery, origin: string): Promise<Buffer> {
  const sheet = LABEL_SHEETS.find(({ id }) => id === query.sheet)!;
  const items = await named(db, query.tags.split(','));
  if (items.length > 1000) throw new Problem(422, 'too-many', 'At most 1000 labels at once.');
  let places;
  try {
    places = labelPlaces(sheet, items.length, query.cells?.split(',').map(Number));
  } catch {
    throw atField('cells', `This sheet has cells 0 to ${sheet.columns * sheet.rows - 1}.`);
  }
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
