import type { ServerTime } from '../../core/sittings/api';
import { estimateOffset, type TimeExchange } from '../../core/timing/deviceClock';

const KEPT = 8;
const LONGEST_GAP_MS = 12 * 3_600_000;

/**
 * The server's time on this device, from exchanges with the server and the monotonic clock: setting the device's clock
 * by hours changes nothing. Re-learnt with every answer of the server, since a sleeping device stops that clock too.
 */
export class ServerClock {
  private exchanges: TimeExchange[] = [];
  private offsetMs = 0;
  /** The server's time was at least this far ahead of the monotonic clock when a reply came. */
  private sureOffsetMs = -Infinity;

  /** Wraps a call that answers with the server's time. */
  async learn<T extends Pick<ServerTime, 'now'>>(call: () => Promise<T>): Promise<T> {
    const sentAt = performance.now();
    const answer = await call();
    this.add({ sentAt, receivedAt: performance.now(), serverAt: answer.now });
    return answer;
  }

  /**
   * Goes on from a stored moment, for a page that was loaded again without the network. Only here the device's own
   * clock has a say, and only if it says something that can be; the server puts it right with the next answer.
   */
  resume({ serverAt, deviceAt }: { readonly serverAt: number; readonly deviceAt: number }): void {
    const gone = Date.now() - deviceAt;
    const credible = gone >= 0 && gone < LONGEST_GAP_MS ? gone : 0;
    this.offsetMs = serverAt + credible - performance.now();
  }

  now(): number {
    return performance.now() + this.offsetMs;
  }

  /**
   * The server's time at the least: what it said when it sent a reply, and the time since that reply came. What a device
   * claims of its writing is this: a guess that is ahead could put the last words behind the deadline.
   */
  sure(): number {
    return Number.isFinite(this.sureOffsetMs) ? performance.now() + this.sureOffsetMs : this.now();
  }

  private add(exchange: TimeExchange): void {
    this.sureOffsetMs = Math.max(this.sureOffsetMs, exchange.serverAt - exchange.receivedAt);
    const offset = exchange.serverAt - (exchange.sentAt + exchange.receivedAt) / 2;
    // A jump beyond the trip's own error: the device slept, and what was learnt before no longer holds.
    const slept = Math.abs(offset - this.offsetMs) > 2000 + (exchange.receivedAt - exchange.sentAt);
    this.exchanges = [...(slept ? [] : this.exchanges), exchange].slice(-KEPT);
    this.offsetMs = estimateOffset(this.exchanges).offsetMs;
  }
}
