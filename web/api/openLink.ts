import type { ArrivalOpened, ArrivalView, QueuePlace } from '../../core/arrival/api';
import { post } from './client';

/** How soon one asks again at the earliest and at the latest. */
const [SOONEST_MS, LATEST_MS] = [1500, 15_000];

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
    const waitMs = Math.min(LATEST_MS, Math.max(SOONEST_MS, opened.queue.seconds * 1000));
    await new Promise((go) => setTimeout(go, waitMs));
  }
}
