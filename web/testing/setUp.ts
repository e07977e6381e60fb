import '@testing-library/jest-dom/vitest';
import { cleanup, configure } from '@testing-library/react';
import { afterEach } from 'vitest';

afterEach(cleanup);
// Components that are fetched when they are first wanted take their time on a busy machine.
configure({ asyncUtilTimeout: 10_000 });

/* What jsdom does not have and the components only need to exist. */
class Observer {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
globalThis.ResizeObserver ??= Observer as unknown as typeof ResizeObserver;
globalThis.IntersectionObserver ??= Observer as unknown as typeof IntersectionObserver;
Object.assign(Element.prototype, { scrollIntoView: () => undefined });
window.scrollTo = () => undefined;
globalThis.matchMedia ??= (query: string) =>
  ({
    matches: false,
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }) as unknown as MediaQueryList;
Object.defineProperty(navigator, 'languages', { configurable: true, value: ['en-GB'] });
