import { afterEach, expect, it, vi } from 'vitest';
import { fetchDesk } from './fetchBehind';

const needs = { kinds: [], aids: [] };

/** Fonts as the browser would bring them. */
function bringsFonts(load: () => Promise<unknown>): void {
  Object.defineProperty(document, 'fonts', { value: { load }, configurable: true });
}

afterEach(() => {
  vi.useRealTimers();
  Reflect.deleteProperty(document, 'fonts');
});

it('waits at the cover for what the desk is drawn by, and goes on where something does not come', async () => {
  const load = vi.fn(() => Promise.reject(new Error('no network')));
  bringsFonts(load);
  await fetchDesk(needs);
  expect(load).toHaveBeenCalled();
});

it('waits for eight seconds at most where a request hangs', async () => {
  vi.useFakeTimers();
  bringsFonts(() => new Promise(() => undefined));
  let goesOn = false;
  void fetchDesk(needs).then(() => (goesOn = true));
  await vi.advanceTimersByTimeAsync(7_999);
  expect(goesOn).toBe(false);
  await vi.advanceTimersByTimeAsync(1);
  expect(goesOn).toBe(true);
});
