/** How long work waits for a moment without anything else to do. */
const MOST_MS = 1000;

/** Does something once the browser rests, so that it never holds up what was just pressed. */
export function atRest(work: () => void): void {
  if (typeof requestIdleCallback === 'undefined') setTimeout(work);
  else requestIdleCallback(work, { timeout: MOST_MS });
}
