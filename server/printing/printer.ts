import type { ResultSheet } from '../../core/results/resultSheet';
import { Helper } from '../helpers/helper';

const LIMIT_MS = 60_000;

/** Makes PDFs in a process of its own, one after the other. */
export class Printer {
  private readonly helper = new Helper({
    script: new URL('./printHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
  });

  sheet(sheet: ResultSheet, organisation: string): Promise<Uint8Array> {
    return this.helper.ask('sheet', { sheet, organisation });
  }

  warmUp(): Promise<void> {
    return this.helper.warmUp();
  }

  close(): void {
    this.helper.close();
  }
}
