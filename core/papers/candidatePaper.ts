import { emptyDocument, type Document } from '../documents/document';
import type { KindName } from '../kinds/kindNames';
import { sumMarks, type Hundredths } from '../marks';
import type { Message } from '../messages/message';
import type { AidName } from '../kit/aids';
import type { Handout, Navigation, Source } from './paper';

export interface ShownPart {
  readonly key: string;
  readonly target: string;
  readonly kind: KindName;
  readonly marks: Hundredths;
  readonly prompt: Document;
  readonly shown: unknown;
  readonly rule: Message | null;
}

export interface Question {
  readonly number: number;
  readonly item: string;
  readonly section: string;
  readonly title: string;
  readonly marks: Hundredths;
  readonly minutes: number;
  /** Shown before the question; candidates can fold it away. Empty for none. */
  readonly introduction: Document;
  readonly source: Source | null;
  readonly parts: readonly ShownPart[];
  /** Neighbours with the same one are shown together, one below the other; null for a page of its own. */
  readonly page: string | null;
  /** Its section has a limit of its own and was not entered yet: title, source and parts are not here. */
  readonly sealed: boolean;
}

/** What a candidate's device gets: built by naming what may be seen, never by removing what may not. */
export interface CandidatePaper {
  readonly title: string;
  readonly minutes: number;
  readonly warningMinutes: readonly number[];
  readonly marks: Hundredths;
  readonly sections: readonly {
    readonly key: string;
    readonly title: string;
    readonly introduction: Document;
    readonly minutes: number | null;
    /** Of a section with a limit of its own: none until it is entered. */
    readonly handouts: readonly Handout[];
    readonly navigation: Navigation;
    /** Those that this candidate has here: no other is named. */
    readonly aids: readonly AidName[];
  }[];
  readonly questions: readonly Question[];
}

/** The questions and handouts of a section with a limit of its own, which is sealed separately. */
export interface SealedSection {
  readonly section: string;
  readonly questions: readonly Question[];
  readonly handouts: readonly Handout[];
}

/**
 * A copy as it is sealed: the paper with the questions of limited sections blanked (what the cover tells of them stays:
 * number and marks), and those sections one by one.
 */
export function splitForSealing(paper: CandidatePaper): {
  readonly open: CandidatePaper;
  readonly limited: readonly SealedSection[];
} {
  const limited = paper.sections.filter((s) => s.minutes !== null).map((s) => s.key);
  const blank = (question: Question): Question =>
    limited.includes(question.section)
      ? {
          number: question.number,
          item: question.item,
          section: question.section,
          title: '',
          marks: question.marks,
          minutes: question.minutes,
          introduction: emptyDocument,
          source: null,
          parts: [],
          page: null,
          sealed: true,
        }
      : question;
  const isLimited = ({ key }: { readonly key: string }) => limited.includes(key);
  const sections = paper.sections.map((one) => (isLimited(one) ? { ...one, handouts: [] } : one));
  return {
    open: { ...paper, sections, questions: paper.questions.map(blank) },
    limited: paper.sections.filter(isLimited).map(({ key, handouts }) => ({
      section: key,
      questions: paper.questions.filter((q) => q.section === key),
      handouts,
    })),
  };
}

/** A paper with the questions and handouts of a section that was entered. */
export function withSection(
  paper: CandidatePaper,
  { section, questions, handouts }: SealedSection,
): CandidatePaper {
  const own = new Map(questions.map((question) => [question.number, question]));
  return {
    ...paper,
    sections: paper.sections.map((one) => (one.key === section ? { ...one, handouts } : one)),
    questions: paper.questions.map((question) => own.get(question.number) ?? question),
  };
}

export interface CoverSection {
  readonly key: string;
  readonly title: string;
  readonly questions: number;
  readonly marks: Hundredths;
  readonly minutes: number;
  /** The section's own limit, in minutes for everybody; null for none. */
  readonly limit: number | null;
  readonly navigation: Navigation;
  readonly aids: readonly AidName[];
}

/** What the cover page tells of each section. */
export function outlineSections(paper: CandidatePaper): CoverSection[] {
  return paper.sections.map(({ key, title, minutes, navigation, aids }) => {
    const questions = paper.questions.filter((q) => q.section === key);
    return {
      key,
      title,
      questions: questions.length,
      marks: sumMarks(questions.map((q) => q.marks)),
      minutes: questions.reduce((sum, q) => sum + q.minutes, 0),
      limit: minutes,
      navigation,
      aids,
    };
  });
}

/** Introductions, sources, handouts and prompts of a copy. */
export const documentsIn = (copy: CandidatePaper): Document[] => [
  ...copy.sections.flatMap((section) => [
    section.introduction,
    ...section.handouts.map((handout) => handout.body),
  ]),
  ...copy.questions.flatMap(({ introduction, source, parts }) => [
    introduction,
    ...(source?.tabs.map((tab) => tab.body) ?? []),
    ...parts.map((part) => part.prompt),
  ]),
];
