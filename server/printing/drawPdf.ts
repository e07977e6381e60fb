import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { openPdf } from '../documents/openPdf';

const QUALITY = 80;
const OWN = path.dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** How large a drawn page may be, in pixels. */
export interface Largest {
  readonly widest: number;
  readonly highest: number;
}

export interface DrawnPage {
  /** How many pages the document has. */
  readonly pages: number;
  /** A JPEG. */
  readonly picture: Uint8Array;
  /** Of the page itself, in points. */
  readonly width: number;
  readonly height: number;
}

/** One page of a PDF document, counted from 1, as a picture. Throws where it cannot be drawn. */
export async function drawPdf(
  file: string,
  number: number,
  { widest, highest }: Largest,
): Promise<DrawnPage> {
  const task = await openPdf(readFileSync(file), {
    standardFontDataUrl: `${path.join(OWN, 'standard_fonts')}/`,
    cMapUrl: `${path.join(OWN, 'cmaps')}/`,
    wasmUrl: `${path.join(OWN, 'wasm')}/`,
  });
  try {
    const document = await task.promise;
    const page = await document.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: Math.min(widest / width, highest / height) });
    const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
    await page.render({ canvas: canvas as never, viewport }).promise;
    const picture = await canvas.encode('jpeg', QUALITY);
    return { pages: document.numPages, picture, width, height };
  } finally {
    await task.destroy();
  }
}
