import type { ResultSheet } from '../../core/results/resultSheet';
import { Helper } from '../helpers/helper';
import type { Pictures } from './printSheet';

const LIMIT_MS = 60_000;
/** A document that takes longer to draw is printed without its pages, and drawn again for the next print. */
const DRAW_LIMIT_MS = 20_000;
const MOST_PDF_PAGES = 20;

/** Makes PDFs in a process of its own, one after the other. */
export class Printer {
  private readonly helper = new Helper({
    script: new URL('./printHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
  });

  /** Whatever a candidate sent is opened apart: it can end, or hold up, nothing but its own drawing. */
  private readonly drawing = new Helper({
    script: new URL('./drawPdfHelper.ts', import.meta.url),
    limitMs: DRAW_LIMIT_MS,
  });

  /** The pages of a PDF document as pictures: none where it is itself at fault, null where they could not be drawn now. */
  async pagesOfPdf(file: string): Promise<readonly Uint8Array[] | null> {
    try {
      return await this.drawing.ask<Uint8Array[]>('draw', { file, most: MOST_PDF_PAGES });
    } catch {
      return null;
    }
  }

  /** `pictures` are the pages of files that answers name, by their hash. */
  sheet(sheet: ResultSheet, organisation: string, pictures: Pictures = {}): Promise<Uint8Array> {
    return this.helper.ask('sheet', { sheet, organisation, pictures });
  }

  warmUp(): Promise<void> {
    return this.helper.warmUp();
  }

  close(): void {
    this.helper.close();
    this.drawing.close();
  }
}
