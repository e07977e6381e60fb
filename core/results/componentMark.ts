import type { Component, Verdict } from '../kinds/contract';
import { sumMarks, type Hundredths } from '../marks';
import type { Message } from '../messages/message';
import { BY_HAND, withoutMachine } from '../scoring/components';

/** The mark of one component of a part: by the machine with its reasons, or by people with what they reached. */
export interface ComponentMark {
  readonly target: string;
  readonly component: string;
  readonly hundredths: Hundredths;
  /**
   * Null where people gave it. `not marked`: in a rehearsal, where people would mark. `withdrawn` and `given`: as was
   * decided of the part, whatever was answered.
   */
  readonly verdict: Verdict | 'not marked' | 'withdrawn' | 'given' | null;
  readonly reasons: readonly Message[];
  readonly level: number | null;
}

/**
 * Does every component have its mark, by whichever way its part was marked? Every form of a paper is worth `of`, whatever
 * was drawn for it.
 */
export const isFullyMarked = (
  parts: ReadonlyMap<string, readonly Component[]>,
  marks: readonly Pick<ComponentMark, 'target' | 'component'>[],
  of: Hundredths,
): boolean => {
  const marked = [...parts].flatMap(([target, components]) => {
    const own = marks.filter((mark) => mark.target === target);
    const isMarked = ({ key }: Component) => own.some((mark) => mark.component === key);
    return markedComponents(components, own).filter(isMarked);
  });
  return sumMarks(marked.map((component) => component.of)) === of;
};

/** The components by which a part was marked: with the one decided by hand where the machine could not score. */
export const markedComponents = (
  components: readonly Component[],
  marks: readonly Pick<ComponentMark, 'component'>[],
): readonly Component[] =>
  marks.some((mark) => mark.component === BY_HAND) ? withoutMachine(components) : components;
