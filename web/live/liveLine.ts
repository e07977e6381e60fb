import { get } from '../api/client';

const POLL_MS = 5000;

/** How what a stream says becomes a view; null where it says nothing without the view before it. */
export type Merge<View, News> = (before: View | null, news: News) => View | null;

/**
 * A view that the server keeps up to date: by server-sent events, and where those fail by asking again and again.
 * Gives every new view.
 */
export class LiveLine<View, News = View> {
  private readonly path: string;
  private readonly seen: (view: View) => void;
  private readonly merge: Merge<View, News>;
  private view: View | null = null;
  private readonly source: EventSource;
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(
    path: string,
    seen: (view: View) => void,
    merge: Merge<View, News> = (_, news) => news as unknown as View,
  ) {
    this.path = path;
    this.seen = seen;
    this.merge = merge;
    this.source = new EventSource(`/api${path}/stream`);
    this.source.onmessage = ({ data }: MessageEvent<string>) => {
      this.stopAsking();
      this.take(JSON.parse(data) as News);
    };
    this.source.onerror = () => {
      this.timer ??= setInterval(() => void this.ask(), POLL_MS);
    };
  }

  /** Takes news, also those that came another way, as the answer to an act. */
  take(news: News): void {
    this.show(this.merge(this.view, news));
  }

  end(): void {
    this.source.close();
    this.stopAsking();
  }

  private show(view: View | null): void {
    if (view === null) return;
    this.view = view;
    this.seen(view);
  }

  private stopAsking(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
  }

  private async ask(): Promise<void> {
    try {
      this.show(await get<View>(this.path));
    } catch {
      // The next turn asks again; what is not reached is said elsewhere, by the saved line.
    }
  }
}
