import type { PhoneView } from '../../core/files/phone';
import type { PagePartReply } from '../../core/files/pages';
import { get, post, putBytes } from '../api/client';
import { hashOf } from '../pages/hashOf';
import { PageBox, type PageLine } from '../pages/pageBox';

const PATIENCE_MS = 60_000;

/** The secret goes in a header, never in an address that a log could keep. */
const headersOf = (secret: string) => ({ 'X-Phone': secret });

export const phoneView = (secret: string): Promise<PhoneView> =>
  get('/phone', { headers: headersOf(secret) });

const lineOf = (secret: string): PageLine => ({
  announce: async (page) => void (await post('/phone/pages', page, { headers: headersOf(secret) })),
  put: (page, from, part) =>
    putBytes<PagePartReply>(`/phone/pages/${page.hash}/${page.bytes}/${from}`, part, {
      headers: headersOf(secret),
      signal: AbortSignal.timeout(PATIENCE_MS),
    }),
  // A phone shows its own pictures alone.
  get: () => Promise.resolve(null),
  // A stop of the clock goes over; a phone that has ended stays so.
  remedy: ({ code }) => Promise.resolve(code === 'phone-not-now'),
});

/** The pages of a joined phone: the server hears of each before its bytes come. */
export async function pagesOfPhone(secret: string): Promise<PageBox> {
  const owner = `phone ${await hashOf(new TextEncoder().encode(secret))}`;
  const box = new PageBox({ owner, link: '', line: lineOf(secret) });
  window.addEventListener('online', () => box.wake());
  await box.begin();
  return box;
}
