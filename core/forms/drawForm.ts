import { candidateKindOf } from '../kinds/candidateKinds';
import type { Place } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import { sumMarks } from '../marks';
import type { CandidatePaper, Question, ShownPart } from '../papers/candidatePaper';
import {
  itemsOf,
  marksOfItem,
  minutesOfItem,
  targetOf,
  type FullPaper,
  type Item,
  type Part,
  type Source,
} from '../papers/paper';
import { seededRandom } from '../random';
import type { Form } from './form';

/** Where a part stands, in a round of this locale. */
export const placeOf = (item: Item, part: Part, locale: string): Place => ({
  locale,
  marks: part.marks,
  source: item.source,
});

interface Drawn {
  readonly arrangement: unknown;
  readonly part: ShownPart;
}

function drawPart(
  item: Item,
  part: Part,
  { seed, locale }: { readonly seed: string; readonly locale: string },
): Drawn {
  const kind = keyKindOf(part.kind);
  const target = targetOf(item.key, part.key);
  const arrangement = kind.arrange(part.content, seededRandom(`${seed}/${target}`));
  const shown = kind.show(part.content.asked, arrangement, placeOf(item, part, locale));
  const { key, marks, prompt } = part;
  const rule = candidateKindOf(part.kind).rule(shown);
  return { arrangement, part: { key, target, kind: part.kind, marks, prompt, shown, rule } };
}

function showSource(source: Source | null): Source | null {
  return source && { key: source.key, tabs: source.tabs.map(({ title, body }) => ({ title, body })) };
}

/** Draws a form. The same seed gives the same form only as long as the code stays the same: that is why it is stored. */
export function drawForm(paper: FullPaper, seed: string, locale: string): Form {
  const arrangements: Record<string, unknown> = {};
  const draw = (item: Item, part: Part) => {
    const drawn = drawPart(item, part, { seed, locale });
    arrangements[drawn.part.target] = drawn.arrangement;
    return drawn.part;
  };
  const placed = paper.sections.flatMap((section) =>
    itemsOf(paper, section).map((item) => ({ section, item })),
  );
  const questions = placed.map(({ section, item }, index): Question => ({
    number: index + 1,
    item: item.key,
    section: section.key,
    title: item.title,
    marks: marksOfItem(item),
    minutes: minutesOfItem(item, paper),
    source: showSource(item.source),
    parts: item.parts.map((part) => draw(item, part)),
    sealed: false,
  }));
  const copy: CandidatePaper = {
    title: paper.title,
    minutes: paper.minutes,
    warningMinutes: [...paper.warningMinutes],
    marks: sumMarks(questions.map((q) => q.marks)),
    wrongCosts: questions.some((q) => q.parts.some((p) => candidateKindOf(p.kind).wrongCosts(p.shown))),
    sections: paper.sections.map(({ key, title, introduction, minutes }) => ({
      key,
      title,
      introduction,
      minutes,
    })),
    questions,
  };
  return { kind: 'form', version: 1, paper: copy, arrangements };
}

const plain = new WeakMap<FullPaper, Form>();

/** A paper as it is looked at outside a sitting: by staff, on the cover, in a rehearsal. Drawn once a paper. */
export function plainForm(paper: FullPaper): Form {
  const form = plain.get(paper) ?? drawForm(paper, 'plain', 'en');
  plain.set(paper, form);
  return form;
}
