import { Helper } from '../helpers/helper';

const LIMIT_MS = 10_000;

/** Makes what a browser sent as a picture into one: decoded and written anew, in a process of its own. */
export class Pictures {
  private readonly helper = new Helper({
    script: new URL('./pictureHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
  });

  /** Refuses what is no picture; what breaks the decoder counts as none too. */
  clean(bytes: Uint8Array): Promise<Uint8Array> {
    return this.helper.ask('clean', bytes);
  }

  warmUp(): Promise<void> {
    return this.helper.warmUp();
  }

  close(): void {
    this.helper.close();
  }
}
