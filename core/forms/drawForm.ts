import type { Document } from '../documents/document';
import { showDocument } from '../documents/showDocument';
import { candidateKindOf } from '../kinds/candidateKindOf';
import type { Place } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import { sumMarks } from '../marks';
import type { CandidatePaper, Question, ShownPart } from '../papers/candidatePaper';
import { aidsFor, type AidName } from '../kit/aids';
import {
  marksOfItem,
  minutesOfItem,
  targetOf,
  type FullPaper,
  type Item,
  type Part,
  type Source,
} from '../papers/paper';
import { seededRandom } from '../random';
import { arrangeItems, wholeSection } from './arrangeItems';
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
  /** By arrangement: aids that are open for this candidate in every section. */
  readonly aids: readonly AidName[];
  /** For staff: every question that may be asked, in the author's order. */
  readonly whole?: boolean;
}

/** Draws a form. The same seed gives the same form only as long as the code stays the same: that is why it is stored. */
export function drawForm(paper: FullPaper, { seed, locale, transcripts, aids, whole }: FormTerms): Form {
  const arrangements: Record<string, unknown> = {};
  const sections = paper.sections.map((section) => {
    const allowed = aidsFor(section.aids, aids);
    const meanings = allowed.includes('meanings');
    const show = (document: Document) => showDocument(document, { transcripts, meanings });
    const showTab = ({ title, body }: Source['tabs'][number]) => ({ title, body: show(body) });
    const showSource = (source: Source | null) =>
      source && { key: source.key, tabs: source.tabs.map(showTab) };
    const draw = (item: Item, part: Part) => {
      const drawn = drawPart(item, part, { seed, locale, show });
      arrangements[drawn.part.target] = drawn.arrangement;
      return drawn.part;
    };
    const placed = whole
      ? wholeSection(paper, section)
      : arrangeItems(paper, section, seededRandom(`${seed}/${section.key}`));
    const { key, title, minutes, navigation } = section;
    return {
      shown: {
        key,
        title,
        introduction: show(section.introduction),
        minutes,
        navigation,
        aids: allowed,
        handouts: section.handouts.map((handout) => ({ key: handout.key, ...showTab(handout) })),
      },
      questions: placed.map(({ item, page }): Omit<Question, 'number'> => ({
        item: item.key,
        section: key,
        title: item.title,
        marks: marksOfItem(item),
        minutes: minutesOfItem(item, paper),
        introduction: show(item.introduction),
        source: showSource(item.source),
        parts: item.parts.map((part) => draw(item, part)),
        page,
        sealed: false,
      })),
    };
  });
  const questions = sections
    .flatMap((section) => section.questions)
    .map((question, i): Question => ({ number: i + 1, ...question }));
  // An adaptive section is reported apart, without marks.
  const apart = new Set(paper.sections.filter((one) => one.adaptive).map(({ key }) => key));
  const copy: CandidatePaper = {
    title: paper.title,
    minutes: paper.minutes,
    warningMinutes: [...paper.warningMinutes],
    marks: sumMarks(questions.filter((q) => !apart.has(q.section)).map((q) => q.marks)),
    sections: sections.map((section) => section.shown),
    questions,
  };
  return { kind: 'form', version: 1, paper: copy, arrangements };
}

const TERMS = { seed: 'plain', locale: 'en', transcripts: false, aids: [] } as const;

/** Draws a form once a paper. */
const oncePerPaper = (terms: FormTerms) => {
  const known = new WeakMap<FullPaper, Form>();
  return (paper: FullPaper): Form => {
    const form = known.get(paper) ?? drawForm(paper, terms);
    known.set(paper, form);
    return form;
  };
};

/** A paper as it is looked at outside a sitting: on the cover, in practice. Drawn once a paper. */
export const plainForm = oncePerPaper(TERMS);

/** The plain form as one candidate's arrangements show it; what is scored stays the same. */
export const plainFormFor = (
  paper: FullPaper,
  { transcripts, aids }: Pick<FormTerms, 'transcripts' | 'aids'>,
): Form => drawForm(paper, { ...TERMS, transcripts, aids });

/** Everything that a paper may ask, as staff see it. */
export const wholeForm = oncePerPaper({ ...TERMS, whole: true });
