import type { Issue } from '../kinds/contract';
import { severe } from '../kinds/shared/issues';
import { message } from '../messages/message';
import { issuesOfAdaptive } from './adaptiveIssues';
import { isForward, itemsOf, marksOfItem, type FullPaper, type Paper } from './paper';

type Section = Paper['sections'][number];

/** Draws that cannot be filled, and questions of one draw that are not worth the same: every form has the same marks. */
function issuesOfDraws(paper: FullPaper, section: Section, at: number): Issue[] {
  const path = ['sections', at, 'draws'];
  const items = itemsOf(paper, section);
  const named = new Set(section.draws.map(({ draw }) => draw));
  const unnamed = section.items.filter(({ draw }) => draw !== null && !named.has(draw));
  return [
    ...unnamed.map(({ draw }) => severe(path, message('section.noCount', { draw: draw! }))),
    ...(named.size < section.draws.length ? [severe(path, message('section.twice'))] : []),
    ...section.draws.flatMap(({ draw, count }) => {
      const pool = items.filter((_, i) => section.items[i]!.draw === draw);
      const marks = new Set(pool.map(marksOfItem));
      return [
        ...(pool.length < count
          ? [severe(path, message('section.tooFew', { draw, count, of: pool.length }))]
          : []),
        ...(marks.size > 1 ? [severe(path, message('section.marks', { draw }))] : []),
      ];
    }),
  ];
}

/** A page shows several questions at once; where each is seen once and passed, it would hide which one is passed. */
const issuesOfNavigation = ({ navigation, items }: Section, at: number): Issue[] =>
  isForward(navigation) && items.some(({ page }) => page !== null)
    ? [severe(['sections', at, 'navigation'], message('section.page'))]
    : [];

/** Two calculators in one section: which one would it be? */
const issuesOfAids = ({ aids }: Section, at: number): Issue[] =>
  aids.includes('calculator') && aids.includes('scientific-calculator')
    ? [severe(['sections', at, 'aids'], message('section.twoCalculators'))]
    : [];

/** What is wrong with how sections choose and order their questions, and how one goes through them. */
export const issuesOfSections = (paper: FullPaper): Issue[] => [
  ...paper.sections.flatMap((section, at) => [
    ...issuesOfDraws(paper, section, at),
    ...issuesOfNavigation(section, at),
    ...issuesOfAids(section, at),
  ]),
  ...issuesOfAdaptive(paper),
];
