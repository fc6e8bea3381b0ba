/** Pages as PDF: vectors, with the fonts embedded as far as they are used. */
import PDFDocument from 'pdfkit';
import svgToPdf from 'svg-to-pdfkit';
import type { CopyPage } from '../core/copy/compose';
import { PAPER_FAMILIES } from '../core/copy/lettering';
import { FAMILIES, fontFile } from './fonts';

/** A point is 1/72 of an inch. */
const POINTS_PER_MM = 72 / 25.4;

export interface PdfMeta {
  readonly title: string;
  readonly date: Date;
}

export async function pdfOf(pages: readonly CopyPage[], { title, date }: PdfMeta): Promise<Uint8Array> {
  const pdf = new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    info: { Title: title, Producer: 'Oculon', Creator: 'Oculon', CreationDate: date, ModDate: date },
  });
  for (const family of FAMILIES) pdf.registerFont(family, fontFile(family));
  const chunks: Buffer[] = [];
  const done = new Promise<Uint8Array>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    pdf.on('error', reject);
  });
  for (const { widthMm, heightMm, svg } of pages) {
    const size: [number, number] = [widthMm * POINTS_PER_MM, heightMm * POINTS_PER_MM];
    pdf.addPage({ size, margin: 0 });
    // Its own size in mm would be taken for pixels; the page says how large it is.
    svgToPdf(pdf, svg.replace(/ width="[\d.]+mm" height="[\d.]+mm"/, ''), 0, 0, {
      width: size[0],
      height: size[1],
      assumePt: true,
      fontCallback: (family: string) => {
        const name = family.replace(/["']/g, '');
        return FAMILIES.includes(name) ? name : PAPER_FAMILIES.regular;
      },
    });
  }
  pdf.end();
  return done;
}
