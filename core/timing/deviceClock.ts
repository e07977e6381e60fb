/** One exchange with the server: device times are monotonic (`performance.now`), so a changed clock cannot matter. */
export interface TimeExchange {
  readonly sentAt: number;
  readonly receivedAt: number;
  readonly serverAt: number;
}

/**
 * Server time minus the device's monotonic time. Of several exchanges the one with the shortest round trip bounds the
 * error best (half of it). Source: Cristian, “Probabilistic clock synchronization”, 1989.
 */
export function estimateOffset(exchanges: readonly TimeExchange[]): { offsetMs: number; errorMs: number } {
  if (exchanges.length === 0) throw new RangeError('an offset needs at least one exchange');
  const trip = (e: TimeExchange) => e.receivedAt - e.sentAt;
  const best = exchanges.reduce((a, b) => (trip(b) < trip(a) ? b : a));
  return { offsetMs: best.serverAt - (best.sentAt + best.receivedAt) / 2, errorMs: trip(best) / 2 };
}
