export const LEAST_BAR = 28;
const PER_MARK = 13;
const TALLEST = 110;

/**
 * Heights (px) of the rail's bars: they grow with the marks, never below 28 px so that they can be hit. Where they
 * would overflow `room`, all shrink towards the least height alike; what then still overflows scrolls.
 */
export function railHeights(marks: readonly number[], room: number): number[] {
  const wanted = marks.map((hundredths) =>
    Math.min(TALLEST, Math.max(LEAST_BAR, (hundredths / 100) * PER_MARK)),
  );
  const all = wanted.reduce((a, b) => a + b, 0);
  const least = LEAST_BAR * marks.length;
  if (all <= room || all === least) return wanted;
  const share = Math.max(0, (room - least) / (all - least));
  return wanted.map((h) => LEAST_BAR + (h - LEAST_BAR) * share);
}
