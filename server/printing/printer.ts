import type { ResultSheet } from '../../core/results/resultSheet';
import { Helper } from '../helpers/helper';

const LIMIT_MS = 60_000;

/** Makes PDFs in a process of its own, one after the other. */
export class Printer {
  private readonly helper = new Helper({
    script: new URL('./printHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
  });

  /** `pictures` are files of pages that answers name, by their hash. */
  sheet(
    sheet: ResultSheet,
    organisation: string,
    pictures: Readonly<Record<string, string>> = {},
  ): Promise<Uint8Array> {
    return this.helper.ask('sheet', { sheet, organisation, pictures });
  }

  warmUp(): Promise<void> {
    return this.helper.warmUp();
  }

  close(): void {
    this.helper.close();
  }
}
