import type Joi from 'joi';
import type { Document } from '../documents/document';
import type { Page } from '../files/pages';
import type { Anchor } from '../marking/marginNote';
import type { Hundredths } from '../marks';
import type { Message, Say } from '../messages/message';
import type { Exact } from '../numbers/exact';
import type { Random } from '../random';
import type { EvidenceFound, EvidenceRequest } from './evidence';

/** How far an answer is: what is missing is said so that a candidate can act on it (“Choose 1 more”). */
export interface Progress {
  readonly state: 'empty' | 'part' | 'done';
  readonly missing: Message | null;
}

/**
 * What a wrong choice can cost: nothing (`free`); marks that a right one of the same question would have earned, but
 * never more (`within`); or marks of other questions (`costs`).
 */
export const guessings = ['free', 'within', 'costs'] as const;
export type Guessing = (typeof guessings)[number];

/** An answer as text, and how it is set: as running words, line by line in a fixed pitch, or as a list of pages that people look at. */
export interface PlainText {
  /** `list`: each line of the text is an entry of its own. */
  readonly form: 'words' | 'list' | 'program' | 'pages';
  readonly text: string;
}

/** A margin note as it is numbered on a sheet. */
export interface NumberedNote {
  readonly number: number;
  readonly anchor: Anchor;
}

/** How text is compared: as words, or as a program of a language. */
export type TextForm = 'words' | 'python' | 'javascript' | 'sql';

/** What of an answer is compared with other people's answers, and what everybody was given to begin with. */
export interface ComparedText {
  readonly form: TextForm;
  readonly text: string;
  readonly given: readonly string[];
}

/** A file that a response refers to by the SHA-256 of its bytes. */
export interface FileRef {
  readonly hash: string;
  readonly bytes: number;
}

export interface FileRules {
  readonly types: readonly string[];
  readonly most: number;
  readonly bytes: number;
}

/**
 * The candidate's half of a kind: all that the desk loads. `Shown` is the allow-listed copy that a candidate may see,
 * `Response` what the candidate answers. All functions are pure.
 */
export interface CandidateKind<Shown, Response> {
  readonly name: string;
  /** Raised when the stored shape of responses changes; `upgradeResponse` then reads the older ones. */
  readonly responseVersion: number;
  /** A stored response of an older version, one version newer or as new as can be. */
  upgradeResponse(stored: unknown, from: number): unknown;
  /** A copy that was made of older content, as one of today: forms are stored, and sealed copies wait on devices. */
  upgradeShown(stored: unknown): unknown;
  empty(shown: Shown): Response;
  /** Well-formed, but cannot belong to this content: an option that is not there, or a limit of the page that is broken. */
  misfit(shown: Shown, response: Response): Message | null;
  /**
   * A misfit without what this content does not have (an option that is not there). What breaks a limit stays: it is kept
   * as it was answered, and `score` gives nothing for it.
   */
  fitting(shown: Shown, response: Response): Response;
  progress(shown: Shown, response: Response): Progress;
  /** How the marks are given, in one sentence a candidate reads; null where it goes without saying. */
  rule(shown: Shown): Message | null;
  /** What a guess can cost. Said on the cover and at the last look; where it costs something, `rule` says how. */
  guessing(shown: Shown): Guessing;
  /** The answer for printouts, the PDF and screen readers; empty text where nothing is answered. */
  describe(shown: Shown, response: Response, say: Say): PlainText;
  /** The answer as it is compared with those of others; without it answers of this kind are not compared. */
  compared?(shown: Shown, response: Response): ComparedText | null;
  /** The answer with something written behind what notes on its text are about, for print. */
  withNotes?(response: Response, notes: readonly NumberedNote[], mark: (number: number) => string): Response;
  /** As `describe`, with what stood around the answer, as options that were not chosen; where that is more. */
  inFull?(shown: Shown, response: Response, say: Say): PlainText;
  /**
   * The answer with what joined phones have sent, in the order of arrival; where the kind takes pages. The same answer
   * where it has them all already.
   */
  takePages?(response: Response, joined: readonly Page[]): Response;
  files(response: Response): readonly FileRef[];
  /** What tells whether a response is still the one that was marked, where that is not its shape of today. */
  markedAs?(response: Response): unknown;
  /** By how many degrees a page is turned, clockwise, as the candidate saw it. */
  turnOf?(response: Response, file: string): number;
  fileRules(shown: Shown): FileRules | null;
  /** What is put down besides answers, by name: journal entries of which the last counts (options struck out …). */
  readonly events: readonly string[];
  /** An event as those who review a sitting read it; null for one that says nothing of how the answer came about. */
  tellEvent?(name: string, value: unknown): Message | null;
}

/** What most kinds have nothing to say about. */
export const plainCandidate = {
  responseVersion: 1,
  upgradeResponse: (stored: unknown) => stored,
  upgradeShown: (stored: unknown) => stored,
  misfit: () => null,
  fitting: <Response>(_: unknown, response: Response) => response,
  rule: () => null,
  guessing: (): Guessing => 'free',
  files: () => [],
  fileRules: () => null,
  events: [],
} as const;

/** What is asked and what counts as right are kept apart: `show` sees the first alone. */
export interface Content<Asked, Key> {
  readonly asked: Asked;
  readonly key: Key;
}

/** Where a part stands: what its kind needs to know beyond its content. */
export interface Place {
  /** The round's locale (BCP 47), by which figures are read and shown. */
  readonly locale: string;
  readonly marks: Hundredths;
  /** The texts of the item's source, by tab, as they are stored. */
  readonly source: unknown;
}

export interface Level {
  readonly hundredths: Hundredths;
  readonly label: string;
  readonly says: string;
}

/** Something that earns its marks wherever it is found in an answer. */
export interface RubricPoint {
  readonly hundredths: Hundredths;
  readonly says: string;
}

/**
 * By what people judge: levels of which one is reached, or points to tick. Without either any mark from 0 to the
 * component's maximum can be given, in steps of `step`.
 */
export interface Criterion {
  readonly levels: readonly Level[] | null;
  readonly points?: readonly RubricPoint[];
  readonly step?: Hundredths;
}

/** A share of a part's marks that is decided on its own. */
export interface Component {
  /** Unique within the part. */
  readonly key: string;
  readonly by: 'machine' | 'people';
  readonly of: Hundredths;
  /** What it is called where a part has several. */
  readonly name: Message | null;
  /** Given exactly where people decide. */
  readonly criterion?: Criterion;
}

export const verdicts = ['right', 'partly', 'wrong', 'unanswered', 'follow-through'] as const;
export type Verdict = (typeof verdicts)[number];

/** The machine's finding for one component. */
export interface Credit {
  readonly component: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly verdict: Verdict;
  /** Why, for the result sheet; never a right answer (`rightResponse` gives that). */
  readonly reasons: readonly Message[];
}

/** A component that the machine cannot decide for certain: people do, for this component alone. */
export interface Undecided {
  readonly component: string;
  /** For the record: what could not be decided. */
  readonly undecided: string;
}

export type Found = Credit | Undecided;

export const isDecided = (found: Found): found is Credit => !('undecided' in found);

/** What was answered, for statistics and for the table that staff see. */
export interface Fact {
  readonly component: string;
  readonly type:
    | 'option'
    | 'text'
    | 'figure'
    | 'sequence'
    | 'drawing'
    | 'expression'
    | 'language'
    | 'words'
    /** What a program came to in a case: its value or its error, or the limit that it met. */
    | 'outcome';
  /** What within the component it is about: the title of a case. */
  readonly of?: string;
  /** As candidates answered it, freed of what makes no difference (spaces, capitals where they do not count). */
  readonly answer: string;
  /** Null where it is neither right nor wrong. */
  readonly right: boolean | null;
}

export interface Issue {
  readonly path: readonly (string | number)[];
  readonly severity: 'severe' | 'advice';
  readonly message: Message;
}

export type Published<Asked, Key> =
  | { readonly content: Content<Asked, Key> }
  | { readonly issues: readonly Issue[] };

/** A figure that other parts may build on, and whether it earned its marks. */
export interface NamedValue {
  readonly figure: Exact;
  readonly accepted: boolean;
}

export type NamedValues = Readonly<Record<string, NamedValue>>;

/** An answer in its place. */
export interface AnswerInput<Asked, Key, Response> {
  readonly content: Content<Asked, Key>;
  readonly response: Response;
  readonly place: Place;
  /** The named figures of the item's other parts that it builds on, by the part's letter. */
  readonly siblings: Readonly<Record<string, NamedValues>>;
}

export interface ScoringInput<Asked, Key, Response, Arrangement> extends AnswerInput<Asked, Key, Response> {
  readonly arrangement: Arrangement;
  /** What was found for the requests of `evidence`, by their keys. */
  readonly evidence: Readonly<Record<string, EvidenceFound>>;
}

/** What an answer is run with again: one of the question's cases by its key, or an input as a candidate would type it. */
export type RunAsked = { readonly case: string } | { readonly input: string };

/** An answer of the author: a right one earns everything of the machine, another is there to be found out. */
export interface SolutionTried<Response> {
  readonly response: Response;
  readonly right: boolean;
}

/** The key's half of a kind: for the server, and for authoring in chunks of their own. */
export interface KeyKind<Asked, Key, Shown, Response, Arrangement> {
  readonly name: string;
  readonly contentVersion: number;
  readonly asked: Joi.ObjectSchema<Asked>;
  readonly key: Joi.ObjectSchema<Key>;
  readonly arrangement: Joi.AnySchema<Arrangement>;
  readonly response: Joi.ObjectSchema<Response>;
  /** Of the candidate's half, by name. */
  readonly events: Readonly<Record<string, Joi.AnySchema>>;
  /** Stored content of an older version; parsed afterwards. */
  upgradeContent(stored: unknown, from: number): unknown;
  /** What an author begins with. */
  blank(): unknown;
  /** The fields that authors write in Markdown and that hold a tree once published, as `key.rubric.scheme`. */
  readonly documents: readonly string[];
  /** The fields that hold a formula once published, as `key.cells.*.formula`. */
  readonly formulas: readonly string[];
  /** Contradictions within well-formed content, and advice. Severe ones keep it from being published. */
  check(content: Content<Asked, Key>, place: Place): readonly Issue[];
  /** A fixed arrangement for one form; never the right answer where that would give it away. Stored in the form. */
  arrange(content: Content<Asked, Key>, random: Random): Arrangement;
  /** Builds the candidate's copy by naming what may be seen. It does not see the key. */
  show(asked: Asked, arrangement: Arrangement, place: Place): Shown;
  /** Their maxima add up to the part's marks exactly. */
  components(content: Content<Asked, Key>, marks: Hundredths): readonly Component[];
  /** What assessors are told; null where people decide nothing. */
  markScheme(content: Content<Asked, Key>): Document | null;
  /** An answer that would have all marks, in the author's words; null where none is told, or it follows from the key. */
  modelAnswer(content: Content<Asked, Key>): Document | null;
  /** Its responses are programs: papers that hold it need the sandbox. */
  readonly runsPrograms: boolean;
  /**
   * What has to be run before it can be scored. Asked again with what was `found`, until it asks for nothing new: one run
   * may follow from another.
   */
  evidence(
    input: Pick<
      ScoringInput<Asked, Key, Response, Arrangement>,
      'content' | 'response' | 'arrangement' | 'place'
    >,
    found: Readonly<Record<string, EvidenceFound>>,
  ): readonly EvidenceRequest[];
  /** Answers of the author that are tried by running them before the part is published. */
  solutions(content: Content<Asked, Key>): readonly SolutionTried<Response>[];
  /** What trying one of them showed. */
  issuesOfSolution(
    content: Content<Asked, Key>,
    solution: SolutionTried<Response>,
    evidence: Readonly<Record<string, EvidenceFound>>,
  ): readonly Issue[];
  /** What was found, as those who mark look at it (drawn by the kind); null where nothing has to be run. */
  inspect(
    input: Pick<ScoringInput<Asked, Key, Response, Arrangement>, 'content' | 'response' | 'evidence'>,
  ): unknown;
  /** Runs an answer again for those who mark, with an input of theirs; null where it cannot be run with that. */
  runAgain(content: Content<Asked, Key>, response: Response, asked: RunAsked): EvidenceRequest | null;
  /** The letters of the sibling parts whose figures it builds on. */
  buildsOn(content: Content<Asked, Key>): readonly string[];
  /** Named figures that sibling parts may build on; `accepted` is what `score` finds right of the same answer. */
  values(input: AnswerInput<Asked, Key, Response>): NamedValues;
  /** One finding for each component of the machine, in their order, for an answer that is not empty. */
  score(input: ScoringInput<Asked, Key, Response, Arrangement>): readonly Found[];
  rightResponse(content: Content<Asked, Key>, arrangement: Arrangement, place: Place): Response | null;
  /** With the evidence of a script, where there is any, what was found by running it is among them. */
  facts(
    input: AnswerInput<Asked, Key, Response> &
      Partial<Pick<ScoringInput<Asked, Key, Response, Arrangement>, 'evidence'>>,
  ): readonly Fact[];
  /** The key with one more accepted answer, as `facts` names it; null where that cannot be. */
  accept(content: Content<Asked, Key>, component: string, answer: string): Key | null;
}

/** What each kind's `samples.ts` exports, for the contract test and for authors. */
export interface Sample<Asked, Key, Response> {
  readonly title: string;
  readonly content: Content<Asked, Key>;
  readonly marks: Hundredths;
  /** Scores the maximum of what the machine decides, and is done. */
  readonly best: Response;
  /** Neither nothing nor everything; null only where the kind knows none (one right option). */
  readonly partly: Response | null;
  readonly wrong: Response | null;
  /** Well-formed, but not of this content; null where every well-formed response belongs. */
  readonly misfit: Response | null;
  randomResponse(random: Random): Response;
  /** Strings of the key that must never appear in the candidate's copy; never empty. */
  readonly secrets: readonly string[];
  /** What running would find for the best answer. */
  readonly evidence?: Readonly<Record<string, EvidenceFound>>;
  /** What running would find where the same answer earns nothing. */
  readonly failing?: Readonly<Record<string, EvidenceFound>>;
}
