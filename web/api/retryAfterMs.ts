const FIRST_RETRY_MS = 1000;
const LAST_RETRY_MS = 15_000;

/** Double the wait at each failure, up to a limit, and spread by half, so that a hall does not come back at one moment. */
export const retryAfterMs = (failures: number, random: number, most = LAST_RETRY_MS): number =>
  Math.min(most, FIRST_RETRY_MS * 2 ** (Math.max(1, failures) - 1)) * (0.75 + random / 2);
