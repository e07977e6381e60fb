import type { FaceBox } from './faceWorker';

interface Reply {
  readonly id: number;
  readonly boxes?: FaceBox[];
  readonly trouble?: string;
}

/** Loading the model on a slow device takes its time; beyond this something is wrong. */
const PATIENCE_MS = 20_000;

/** Asks the face worker; one worker as long as the camera is looked at. */
export class FaceFinder {
  private readonly worker = new Worker(new URL('./faceWorker.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<
    number,
    { found: (boxes: FaceBox[]) => void; failed: (e: Error) => void }
  >();
  private next = 1;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<Reply>) => {
      const call = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if (data.boxes) call?.found(data.boxes);
      else call?.failed(new Error(data.trouble));
    };
    this.worker.onerror = () => {
      for (const { failed } of this.waiting.values()) failed(new Error('the face check did not start'));
      this.waiting.clear();
    };
  }

  find(bitmap: ImageBitmap): Promise<FaceBox[]> {
    const id = this.next++;
    return new Promise((found, failed) => {
      this.waiting.set(id, { found, failed });
      setTimeout(() => failed(new Error('the face check does not answer')), PATIENCE_MS);
      this.worker.postMessage({ id, bitmap }, [bitmap]);
    });
  }

  end(): void {
    this.worker.terminate();
  }
}
