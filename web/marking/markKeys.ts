import type { Component } from '../../core/kinds/contract';
import { marksBetween } from '../../core/marking/marksGiven';
import { showMarks, type Hundredths } from '../../core/marks';
import { t } from './words';

/** A mark as it is typed: `2`, `2.5`; never `2½`. */
export const typedMarks = (marks: Hundredths): string => String(marks / 100);

/**
 * The key of each level: the mark that it gives, so that pressing 3 gives 3. Letters where marks are not whole numbers of
 * one digit, or two levels give the same.
 */
export function keysOfLevels(levels: readonly { readonly hundredths: Hundredths }[]): string[] {
  const marks = levels.map(({ hundredths }) => hundredths);
  const plain = marks.every((own) => own % 100 === 0) && new Set(marks).size === marks.length;
  return marks.map((own, i) => (plain ? typedMarks(own) : 'abcdefghi'[i]!));
}

/** Points are ticked by letters, in their order; beyond them by pointer or Tab. */
export const keysOfPoints = (points: readonly unknown[]): string[] => points.map((_, i) => 'abcdef'[i] ?? '');

/**
 * The key that takes the level that was given last half way up to the next one, or as near to it as the criterion's steps
 * come; null where it allows nothing between the two.
 */
export const HALF_KEY = '.';

export function halfUp({ criterion }: Component, given: number): number | null {
  const { levels = null, step } = criterion ?? {};
  const above = marksBetween({ levels, step }).filter(
    (one) => one.given > Math.floor(given) && one.given < Math.floor(given) + 1,
  );
  const [nearest] = above.toSorted(
    (a, b) => Math.abs((a.given % 1) - 0.5) - Math.abs((b.given % 1) - 0.5) || a.hundredths - b.hundredths,
  );
  return nearest?.given ?? null;
}

export interface Pressed {
  /** What was typed and is not a mark yet. */
  readonly typed: string;
  /** Given, where the key decides: the index of a level, ticked points, or hundredths. */
  readonly given?: number | readonly number[];
}

/** What typed text means as marks of a component: hundredths, or null for none that is possible. */
export function readTyped({ of, criterion }: Component, typed: string): Hundredths | null {
  if (!/^\d+([.,]\d*)?$|^[.,]\d+$/.test(typed)) return null;
  const hundredths = Math.round(Number(typed.replace(',', '.')) * 100);
  const step = criterion?.step ?? 1;
  return hundredths <= of && (hundredths % step === 0 || hundredths === of) ? hundredths : null;
}

/**
 * What a key does to a criterion, after what was typed before: digits and `.` type the mark, which Enter accepts, unless
 * only one level can be meant; letters choose levels and tick points. Null where the key means nothing here.
 */
export function pressKey(
  component: Component,
  key: string,
  { typed, ticked }: { readonly typed: string; readonly ticked: readonly number[] },
): Pressed | null {
  const { levels, points } = component.criterion ?? { levels: null };
  const letter = key.toLowerCase();
  if (points) {
    const at = keysOfPoints(points).indexOf(letter);
    if (at < 0) return null;
    const next = ticked.includes(at)
      ? ticked.filter((one) => one !== at)
      : [...ticked, at].sort((a, b) => a - b);
    return { typed: '', given: next };
  }
  if (levels) {
    const keys = keysOfLevels(levels);
    const between = marksBetween(component.criterion!).find(
      (one) => typedMarks(one.hundredths) === typed + key,
    );
    if (between) return { typed: '', given: between.given };
    if (key === 'Enter') {
      const at = typed === '' ? -1 : keys.indexOf(typed);
      return at < 0 ? null : { typed: '', given: at };
    }
    const next = typed + letter;
    const possible = keys.filter((one) => one.startsWith(next));
    if (possible.length === 0) {
      // A wrong digit starts again rather than being lost.
      const matching = typed === '' ? [] : keys.filter((one) => one.startsWith(letter));
      return matching.length === 0 ? null : pressKey(component, key, { typed: '', ticked });
    }
    return possible.length === 1 && possible[0] === next
      ? { typed: '', given: keys.indexOf(next) }
      : { typed: next };
  }
  if (key === 'Enter') {
    const marks = readTyped(component, typed);
    return marks === null ? null : { typed: '', given: marks };
  }
  return /^[\d.,]$/.test(key) && typed.length < 7 ? { typed: typed + key } : null;
}

/** Why what was typed is no mark of a criterion: what its marks are. */
export function marksPossible({ of, criterion }: Component, typed: string): string {
  const { levels = null, points, step } = criterion ?? {};
  if (points) return t('refusedPoints', { typed });
  if (levels) {
    const keys = keysOfLevels(levels).map(shownKey).join(', ');
    return t('refusedLevels', { typed, keys });
  }
  const all = showMarks(of);
  return t(step === 50 ? 'refusedHalves' : step === 100 ? 'refusedWhole' : 'refusedMarks', { typed, all });
}

/** All that a criterion's keys are, as shown beside it. */
export const shownKey = (key: string): string => key.toUpperCase();

export const marksOutOf = (given: Hundredths | null, of: Hundredths): string =>
  `${given === null ? '–' : showMarks(given)} / ${showMarks(of)}`;
