import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

const require = createRequire(__filename);
const FONT = '@expo-google-fonts/atkinson-hyperlegible-next';
const REGULAR = require.resolve(`${FONT}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`);
const BOLD = require.resolve(`${FONT}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`);

export const POINTS_PER_MM = 72 / 25.4;

/** A PDF with the shop's two fonts ("regular", "bold") and no page yet: `draw` adds them. */
export async function makePdf(title: string, draw: (pdf: PDFKit.PDFDocument) => void): Promise<Buffer> {
  const pdf = new PDFDocument({ margin: 0, autoFirstPage: false, info: { Title: title } });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  pdf.registerFont('regular', REGULAR);
  pdf.registerFont('bold', BOLD);
  draw(pdf);
  pdf.end();
  return done;
}
