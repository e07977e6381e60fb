import type { Unit } from '../adaptive/rules';
import { calibratedOn, estimatedIn, poolOf } from './adaptivePool';
import type { AdaptiveSection, FullPaper } from './paper';

/** An adaptive section as those who prepare a paper look at it: `GET /papers/:id/adaptive`. */
export interface AdaptiveView {
  readonly key: string;
  readonly title: string;
  /** Its time limit. */
  readonly minutes: number;
  readonly questions: number;
  readonly pool: readonly Unit[];
  readonly rules: AdaptiveSection;
  /** The fewest people that any of its questions was calibrated on. */
  readonly calibratedOn: number;
  /** Questions that have the author's estimate only. */
  readonly estimated: number;
}

export const adaptiveViews = (paper: FullPaper): AdaptiveView[] =>
  paper.sections.flatMap((section) => {
    const { key, title, minutes, items, adaptive } = section;
    if (!adaptive) return [];
    return [
      {
        key,
        title,
        minutes: minutes ?? paper.minutes,
        questions: items.length,
        pool: poolOf(paper, section),
        rules: adaptive,
        calibratedOn: calibratedOn(paper, section),
        estimated: estimatedIn(paper, section),
      },
    ];
  });
