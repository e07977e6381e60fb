import type { Request, Response } from 'express';
import type { Channel } from '../events/hub';
import type { HasSessions } from '../http/sessions';
import type { HasLog } from '../machine/log';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasHub } from '../events/hub';

const BEAT_MS = 15_000;
/** Several changes of one moment go out as one. */
const GATHER_MS = 50;

export interface Line {
  readonly say: (message: unknown) => void;
  /** Called once when the line has ended, from either side. */
  readonly whenOver: (over: () => void) => void;
  /** Ends the line; whoever listened connects again, and sees the whole again. */
  readonly cut: (trouble: unknown) => void;
}

/**
 * A line of server-sent events (WHATWG HTML, “Server-sent events”). A beat keeps proxies from closing it; the line ends
 * with the session in which it was asked for.
 */
export function openLine(
  {
    request,
    response,
    of,
  }: { readonly request: Request; readonly response: Response; readonly of: 'staff' | 'candidate' },
  { log, sessions }: HasLog & HasSessions,
): Line {
  response.status(200).set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-store, no-transform',
    'X-Accel-Buffering': 'no',
  });
  response.flushHeaders();
  const tied = sessions.tie(request, of, () => response.end());
  const beat = setInterval(() => {
    if (tied.holds()) response.write(': beat\n\n');
    else response.end();
  }, BEAT_MS);
  request.on('close', () => {
    clearInterval(beat);
    tied.untie();
  });
  return {
    say: (message) => {
      if (!response.writableEnded) response.write(`data: ${JSON.stringify(message)}\n\n`);
    },
    whenOver: (over) => void request.on('close', over),
    cut: (trouble) => {
      log.error({ err: trouble }, 'a stream was cut');
      response.destroy();
    },
  };
}

/** A view that is small: the whole of it at once, and again whenever it has changed. */
export function streamView(
  { hub, scheduler }: HasHub & HasScheduler,
  line: Line,
  channel: Channel,
  view: () => unknown,
): void {
  let gathering: NodeJS.Timeout | null = null;
  const say = () => void scheduler.inBetween(view).then(line.say, line.cut);
  const stop = hub.listen(channel, () => {
    gathering ??= setTimeout(() => {
      gathering = null;
      say();
    }, GATHER_MS);
  });
  line.whenOver(() => {
    stop();
    if (gathering) clearTimeout(gathering);
  });
  say();
}
