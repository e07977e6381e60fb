import { get } from '../api/client';

const POLL_MS = 5000;

/**
 * A view that the server keeps up to date: by server-sent events, and where those fail by asking again and again.
 * Gives every new view, and whether the line holds.
 */
export class LiveLine<View> {
  private readonly path: string;
  private readonly seen: (view: View) => void;
  private readonly source: EventSource;
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(path: string, seen: (view: View) => void) {
    this.path = path;
    this.seen = seen;
    this.source = new EventSource(`/api${path}/stream`);
    this.source.onmessage = ({ data }: MessageEvent<string>) => {
      this.stopAsking();
      seen(JSON.parse(data) as View);
    };
    this.source.onerror = () => {
      this.timer ??= setInterval(() => void this.ask(), POLL_MS);
    };
  }

  end(): void {
    this.source.close();
    this.stopAsking();
  }

  private stopAsking(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
  }

  private async ask(): Promise<void> {
    try {
      this.seen(await get<View>(this.path));
    } catch {
      // The next turn asks again; what is not reached is said elsewhere, by the saved line.
    }
  }
}
