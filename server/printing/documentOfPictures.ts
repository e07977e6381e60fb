import PDFDocument from 'pdfkit';
import type { DrawnPage } from './drawPdf';

/** A document of pictures, each as large as its page was. It tells neither who made it nor when. */
export async function documentOfPictures(pages: readonly DrawnPage[]): Promise<Uint8Array> {
  const pdf = new PDFDocument({ autoFirstPage: false, info: { CreationDate: new Date(0) } });
  const pieces: Buffer[] = [];
  pdf.on('data', (piece: Buffer) => pieces.push(piece));
  const ended = new Promise((done) => pdf.on('end', done));
  for (const { picture, width, height } of pages)
    pdf.addPage({ size: [width, height], margin: 0 }).image(Buffer.from(picture), 0, 0, { width, height });
  pdf.end();
  await ended;
  return Buffer.concat(pieces);
}
