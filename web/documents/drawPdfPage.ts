import * as pdfjs from 'pdfjs-dist';
import { pdfFolders, startWorker } from './openPdf';

/** Twice as fine as a page is wide on the table, so that it can be enlarged. */
const WIDTH = 1400;

/** Draws one page of a document into a canvas; gives how many pages there are. */
export async function drawPdfPage(
  canvas: HTMLCanvasElement,
  bytes: Uint8Array<ArrayBuffer>,
  number: number,
): Promise<number> {
  startWorker();
  const task = pdfjs.getDocument({ data: bytes, ...pdfFolders });
  const document = await task.promise;
  try {
    const page = await document.getPage(Math.min(number, document.numPages));
    const natural = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: WIDTH / natural.width });
    [canvas.width, canvas.height] = [viewport.width, viewport.height];
    await page.render({ canvas, viewport }).promise;
    return document.numPages;
  } finally {
    await task.destroy();
  }
}
