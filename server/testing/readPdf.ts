import { openPdf } from '../documents/openPdf';

/** All pages of a document, and what is written on them. */
export async function readPdf(bytes: Uint8Array) {
  const pdf = await (await openPdf(bytes)).promise;
  const pages = await Promise.all(Array.from({ length: pdf.numPages }, (_, i) => pdf.getPage(i + 1)));
  const texts = await Promise.all(
    pages.map(async (page) =>
      (await page.getTextContent()).items.map((item) => ('str' in item ? item.str : '')).join(' '),
    ),
  );
  return { pdf, pages, text: texts.join(' ') };
}
