/** Waits. An object, so that a test can stand in for it. */
export const waiting = {
  pause: (ms: number): Promise<void> => new Promise((go) => setTimeout(go, ms)),
};
