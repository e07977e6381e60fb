import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { openPdf } from '../documents/openPdf';

/** Of a drawn page, in pixels: sharp enough in print at the width that it has on a sheet. */
const WIDEST = 1100;
const HIGHEST = 1600;
const QUALITY = 80;
const OWN = path.dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** The first pages of a PDF document as JPEG pictures. */
export async function drawPdf(file: string, most: number): Promise<Uint8Array[]> {
  const task = await openPdf(readFileSync(file), {
    standardFontDataUrl: `${path.join(OWN, 'standard_fonts')}/`,
    cMapUrl: `${path.join(OWN, 'cmaps')}/`,
    wasmUrl: `${path.join(OWN, 'wasm')}/`,
  });
  try {
    const document = await task.promise;
    const drawn: Uint8Array[] = [];
    for (let number = 1; number <= Math.min(document.numPages, most); number++) {
      const page = await document.getPage(number);
      const { width, height } = page.getViewport({ scale: 1 });
      const viewport = page.getViewport({ scale: Math.min(WIDEST / width, HIGHEST / height) });
      const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
      await page.render({ canvas: canvas as never, viewport }).promise;
      drawn.push(await canvas.encode('jpeg', QUALITY));
      page.cleanup();
    }
    return drawn;
  } finally {
    await task.destroy();
  }
}
