import { Helper } from '../helpers/helper';
import type { ImportAsked, Imported } from './importHelper';

/** Hostile texts take seconds to be read; nobody waits for them but whoever sent them. */
const LIMIT_MS = 60_000;

/** Reads papers that staff bring in, in a process of its own. */
export class PaperReader {
  private readonly helper = new Helper({
    script: new URL('./importHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
  });

  read(asked: ImportAsked): Promise<Imported> {
    return this.helper.ask('read', asked);
  }

  close(): void {
    this.helper.close();
  }
}

export interface HasPaperReader {
  readonly paperReader: PaperReader;
}
