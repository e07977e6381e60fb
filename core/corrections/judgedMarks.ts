import type { Hundredths } from '../marks';
import { message } from '../messages/message';
import type { Component } from '../kinds/contract';
import type { Ruling } from '../papers/ruling';
import { markedComponents, type ComponentMark } from '../results/componentMark';

export interface Ruled {
  /** By target. */
  readonly rulings: ReadonlyMap<string, Ruling>;
  readonly components: ReadonlyMap<string, readonly Component[]>;
}

/** A script, as far as rulings ask. */
export interface RuledScript {
  /** Whether the machine has scored it: before, nothing is known of what was answered. */
  readonly scored: boolean;
  /** Which parts were asked, by target; null for all. */
  readonly asked: ReadonlySet<string> | null;
}

const wasAnswered = (own: readonly ComponentMark[]): boolean =>
  own.length === 0 || own.some(({ verdict }) => verdict !== 'unanswered');

/**
 * The marks of a script with what was decided of its parts: the marks that were given are kept beside, and count again
 * when the decision is taken back. A part that is withdrawn has 0 in every component, marked or not.
 */
export function judgedMarks(
  marks: readonly ComponentMark[],
  { rulings: decided, components }: Ruled,
  { scored, asked }: RuledScript,
): readonly ComponentMark[] {
  if (decided.size === 0 || !scored) return marks;
  const ruled = [...decided].flatMap(([target, ruling]) => {
    if (asked !== null && !asked.has(target)) return [];
    const own = marks.filter((mark) => mark.target === target);
    if (ruling === 'marks for who answered' && !wasAnswered(own)) return [];
    const made = markedComponents(components.get(target) ?? [], own).map(({ key, of }): ComponentMark => {
      const place = { target, component: key, level: null };
      return ruling === 'withdrawn'
        ? { ...place, hundredths: 0, verdict: 'withdrawn', reasons: [] }
        : { ...place, hundredths: of, verdict: 'given', reasons: [message('sheet.given')] };
    });
    return [{ target, made }];
  });
  const replaced = new Set(ruled.map(({ target }) => target));
  return [...marks.filter(({ target }) => !replaced.has(target)), ...ruled.flatMap(({ made }) => made)];
}

/** A total of what was left of a paper, scaled to all of it, rounded half up to a hundredth; 0 where nothing was left. */
export const scaledTotal = (total: Hundredths, left: Hundredths, of: Hundredths): Hundredths =>
  left <= 0 ? 0 : Math.floor((total * of) / left + 0.5);
