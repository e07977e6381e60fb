import type { ArrivalOpened, ArrivalView, QueuePlace } from '../../core/arrival/api';
import { post } from './client';

/** How soon one asks again at the earliest and at the latest: thousands who ask all the time would be the load themselves. */
const [SOONEST_MS, LATEST_MS] = [2000, 60_000];
/** After so much of the time that it is said to take, which may have become shorter. */
const PART = 0.6;

/** How long to wait before asking again; `random` from 0 to 1 spreads those who came together. */
export const askAgainMs = ({ seconds }: QueuePlace, random: number): number =>
  Math.min(LATEST_MS, Math.max(SOONEST_MS, seconds * 1000 * PART)) * (0.9 + random / 5);

/**
 * Opens a personal link; where many come at once it waits for its turn, and says where it stands. Whoever sits a test is
 * never asked to wait.
 */
export async function openLink(
  link: string,
  onQueue: (place: QueuePlace) => void = () => undefined,
): Promise<ArrivalView> {
  for (;;) {
    const opened = await post<ArrivalOpened>('/arrival/open', { link });
    if (!('queue' in opened)) return opened;
    onQueue(opened.queue);
    await new Promise((go) => setTimeout(go, askAgainMs(opened.queue, Math.random())));
  }
}
