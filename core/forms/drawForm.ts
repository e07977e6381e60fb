import type { Document } from '../documents/document';
import { showDocument } from '../documents/showDocument';
import { candidateKindOf } from '../kinds/candidateKindOf';
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
  {
    seed,
    locale,
    show,
  }: Pick<FormTerms, 'seed' | 'locale'> & { readonly show: (document: Document) => Document },
): Drawn {
  const kind = keyKindOf(part.kind);
  const target = targetOf(item.key, part.key);
  const arrangement = kind.arrange(part.content, seededRandom(`${seed}/${target}`));
  const shown = kind.show(part.content.asked, arrangement, placeOf(item, part, locale));
  const { key, marks } = part;
  const prompt = show(part.prompt);
  const rule = candidateKindOf(part.kind).rule(shown);
  return { arrangement, part: { key, target, kind: part.kind, marks, prompt, shown, rule } };
}

export interface FormTerms {
  readonly seed: string;
  readonly locale: string;
  /** By arrangement: transcripts take the place of recordings. */
  readonly transcripts: boolean;
}

/** Draws a form. The same seed gives the same form only as long as the code stays the same: that is why it is stored. */
export function drawForm(paper: FullPaper, { seed, locale, transcripts }: FormTerms): Form {
  const show = (document: Document) => showDocument(document, transcripts);
  const showTab = ({ title, body }: Source['tabs'][number]) => ({ title, body: show(body) });
  const showSource = (source: Source | null) => source && { key: source.key, tabs: source.tabs.map(showTab) };
  const arrangements: Record<string, unknown> = {};
  const draw = (item: Item, part: Part) => {
    const drawn = drawPart(item, part, { seed, locale, show });
    arrangements[drawn.part.target] = drawn.arrangement;
    return drawn.part;
  };
  const placed = paper.sections.flatMap((section) =>
    itemsOf(paper, section).map((item, i) => ({ section, item, page: section.items[i]!.page })),
  );
  const questions = placed.map(({ section, item, page }, index): Question => ({
    number: index + 1,
    item: item.key,
    section: section.key,
    title: item.title,
    marks: marksOfItem(item),
    minutes: minutesOfItem(item, paper),
    introduction: show(item.introduction),
    source: showSource(item.source),
    parts: item.parts.map((part) => draw(item, part)),
    page,
    sealed: false,
  }));
  const copy: CandidatePaper = {
    title: paper.title,
    minutes: paper.minutes,
    warningMinutes: [...paper.warningMinutes],
    marks: sumMarks(questions.map((q) => q.marks)),
    wrongCosts: questions.some((q) => q.parts.some((p) => candidateKindOf(p.kind).wrongCosts(p.shown))),
    sections: paper.sections.map(({ key, title, introduction, minutes, handouts }) => ({
      key,
      title,
      introduction: show(introduction),
      minutes,
      handouts: handouts.map((handout) => ({ key: handout.key, ...showTab(handout) })),
    })),
    questions,
  };
  return { kind: 'form', version: 1, paper: copy, arrangements };
}

const plain = new WeakMap<FullPaper, Form>();

/** A paper as it is looked at outside a sitting: by staff, on the cover, in a rehearsal. Drawn once a paper. */
export function plainForm(paper: FullPaper): Form {
  const form = plain.get(paper) ?? drawForm(paper, { seed: 'plain', locale: 'en', transcripts: false });
  plain.set(paper, form);
  return form;
}
