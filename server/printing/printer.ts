import type { DrawAsked } from './drawPdfHelper';
import type { DrawnPage, Largest } from './drawPdf';
import type { ResultSheet } from '../../core/results/resultSheet';
import { Helper, TookTooLong } from '../helpers/helper';
import type { Pictures } from './printSheet';

const LIMIT_MS = 60_000;
/** What one page may cost to draw. */
const DRAW_PROCESSOR_MS = 10_000;
const MOST_PDF_PAGES = 20;
/** Sharp enough in print at the width that a page has on a sheet, and to be read closely on a screen. */
const IN_PRINT: Largest = { widest: 1100, highest: 1600 };
const ON_SCREEN: Largest = { widest: 1700, highest: 2400 };

/** Makes PDFs in a process of its own, one after the other. */
export class Printer {
  private readonly helper = new Helper({
    script: new URL('./printHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
  });

  /** Whatever a candidate sent is opened apart: it can end, or hold up, nothing but its own drawing. */
  private readonly drawing = new Helper({
    script: new URL('./drawPdfHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
    limitProcessorMs: DRAW_PROCESSOR_MS,
  });

  /** Page by page, so that several documents are drawn in turns. What follows a page that cannot be drawn is left out. */
  private async draw(file: string, largest: Largest): Promise<DrawnPage[]> {
    const drawn: DrawnPage[] = [];
    try {
      for (let number = 1; number <= Math.min(drawn[0]?.pages ?? 1, MOST_PDF_PAGES); number++) {
        const asked: DrawAsked = { file, number, largest };
        const page = await this.drawing.ask<DrawnPage | null>('page', asked, file);
        if (page === null) break;
        drawn.push(page);
      }
    } catch (error) {
      if (!(error instanceof TookTooLong)) throw error;
    }
    return drawn;
  }

  /** The pages of a PDF document as pictures: none where it is itself at fault, null where they could not be drawn now. */
  async pagesOfPdf(file: string): Promise<readonly Uint8Array[] | null> {
    try {
      return (await this.draw(file, IN_PRINT)).map(({ picture }) => picture);
    } catch {
      return null;
    }
  }

  /** A PDF document again, as one of pictures: nothing else of the file is in it. Null where no page of it can be drawn. */
  async documentOfPictures(file: string): Promise<Uint8Array | null> {
    const drawn = await this.draw(file, ON_SCREEN);
    return drawn.length === 0 ? null : this.helper.ask('pictures', drawn);
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

export interface HasPrinter {
  readonly printer: Printer;
}
