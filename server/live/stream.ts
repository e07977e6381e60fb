import type { Request, Response } from 'express';
import type { Channel, Hub } from './hub';

const BEAT_MS = 15_000;
/** Several changes of one moment go out as one. */
const GATHER_MS = 50;

/**
 * Server-sent events (WHATWG HTML, “Server-sent events”): the whole view at once, and again whenever it has changed.
 * A beat keeps proxies from closing the line.
 */
export function streamView(
  { request, response }: { readonly request: Request; readonly response: Response },
  hub: Hub,
  channel: Channel,
  view: () => unknown,
  renewMs: number | null = null,
): void {
  response.status(200).set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-store, no-transform',
    'X-Accel-Buffering': 'no',
  });
  response.flushHeaders();
  const say = () => response.write(`data: ${JSON.stringify(view())}\n\n`);
  let gathering: NodeJS.Timeout | null = null;
  const changed = () => {
    gathering ??= setTimeout(() => {
      gathering = null;
      say();
    }, GATHER_MS);
  };
  const stop = hub.listen(channel, changed);
  // What changes by the mere passing of time is said again and again; else a beat is enough.
  const beat =
    renewMs === null
      ? setInterval(() => response.write(': beat\n\n'), BEAT_MS)
      : setInterval(changed, renewMs);
  say();
  request.on('close', () => {
    stop();
    clearInterval(beat);
    if (gathering) clearTimeout(gathering);
  });
}
