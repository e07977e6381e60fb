/*
 * Calibrates the pool of the reading section on simulated candidates, and prints the figures of
 * `items/readingCalibration.ts`: node --import tsx demo/calibrateReading.ts
 */
import { calibrate, type RightOrWrong } from '../core/measures/calibrate';
import { scoreProbabilities, type ItemParameters } from '../core/measures/itemModel';
import { seededRandom, type Random } from '../core/random';
import { READING_PERSONS, readingPool } from './items/readingPool';

/** Normal by the sum of twelve uniform draws. */
const normal = (random: Random): number => Array.from({ length: 12 }, random).reduce((x, y) => x + y) - 6;

/** How the simulated candidates answer: near the author's estimate, and more or less sharply. */
const truth = (random: Random): ItemParameters[] =>
  readingPool.map(({ measures }) => ({
    a: 1.1 + 0.9 * random(),
    thresholds: [(measures!.difficulty - 3) * 0.95 + 0.25 * normal(random)],
  }));

/** Discrimination and difficulty of each item of the pool, to two decimals. */
export function calibratedReading(): Record<string, readonly [a: number, b: number]> {
  const random = seededRandom('reading pool');
  const items = truth(random);
  const people = Array.from({ length: READING_PERSONS }, (): RightOrWrong => {
    const ability = normal(random);
    return items.map((item) => (random() < scoreProbabilities(item, ability)[1]! ? 1 : 0));
  });
  const rounded = (value: number) => Math.round(value * 100) / 100;
  const found = calibrate(people, { mean: 0, sd: 1 });
  return Object.fromEntries(
    readingPool.map(({ key }, i) => [
      key,
      [rounded(found[i]!.a), rounded(found[i]!.thresholds[0]!)] as const,
    ]),
  );
}

if (process.argv[1]?.endsWith('calibrateReading.ts'))
  console.log(JSON.stringify(calibratedReading(), null, 2));
