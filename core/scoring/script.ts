import { candidateKindOf } from '../kinds/candidateKindOf';
import { isDecided, type Component, type Credit, type Fact, type Place } from '../kinds/contract';
import type { EvidenceFound, EvidenceRequest } from '../kinds/evidence';
import { keyKindOf, keyKinds, type AnyKeyKind } from '../kinds/keyKinds';
import { unansweredCredit } from '../kinds/shared/credits';
import { checkedOrEmpty } from '../kinds/readResponse';
import type { Form } from '../forms/form';
import { placeOf } from '../forms/drawForm';
import { allParts, type FullPaper, type PartInPlace } from '../papers/paper';
import { byPeople, componentsOf } from './components';
import { scorePart, valuesFor, type Answered, type PartToScore } from './scorePart';

/** Stored answers by target. */
export type Answers = Readonly<Record<string, unknown>>;

/** One part of a script as it was sat: in its form, with what was answered. */
export interface ScriptPart extends PartInPlace {
  readonly kind: AnyKeyKind;
  readonly place: Place;
  readonly shown: unknown;
  readonly arrangement: unknown;
  readonly response: unknown;
  /** Nothing was answered: every component is 0 at once. */
  readonly empty: boolean;
  readonly components: readonly Component[];
}

/** A script: the stored form of a paper with its answers, in a round of this locale. */
export interface Script {
  readonly paper: FullPaper;
  readonly form: Form;
  readonly answers: Answers;
  readonly locale: string;
}

/** The parts of a script. A broken answer can cost its own part only: it counts as none. */
export function partsOfScript({ paper, form, answers, locale }: Script): ScriptPart[] {
  const components = componentsOf(paper);
  const shown = new Map(form.paper.questions.flatMap((q) => q.parts).map((p) => [p.target, p.shown]));
  // In the order of the paper; what was not drawn for this form is no part of the script.
  return allParts(paper).flatMap((at) => {
    const { part, item, target } = at;
    if (!shown.has(target)) return [];
    const kind = keyKindOf(part.kind);
    const response = checkedOrEmpty(part.kind, shown.get(target), answers[target]);
    const { state } = candidateKindOf(part.kind).progress(shown.get(target), response);
    return {
      ...at,
      kind,
      response,
      place: placeOf(item, part, locale),
      shown: shown.get(target),
      arrangement: form.arrangements[target],
      empty: state === 'empty',
      components: components.get(target)!,
    };
  });
}

/** What has to be run before a part can be scored. */
export const evidenceFor = (
  { empty, kind, part, response, arrangement, place }: ScriptPart,
  found: Readonly<Record<string, EvidenceFound>> = {},
): readonly EvidenceRequest[] =>
  empty ? [] : kind.evidence({ content: part.content, response, arrangement, place }, found);

const answered = ({ part, response, place }: ScriptPart): Answered => ({
  kind: part.kind,
  content: part.content,
  response,
  place,
});

/** A part as the scoring worker is given it, with the other parts of its item. */
export function toScore(
  own: ScriptPart,
  script: readonly ScriptPart[],
  evidence: Readonly<Record<string, EvidenceFound>>,
): PartToScore {
  const siblings = siblingsOf(own, script);
  return { ...answered(own), target: own.target, arrangement: own.arrangement, siblings, evidence };
}

/** The other parts of an item, by letter. */
function siblingsOf(own: ScriptPart, script: readonly ScriptPart[]): Record<string, Answered> {
  const others = script.filter((p) => p.item.key === own.item.key && p.target !== own.target);
  return Object.fromEntries(others.map((p) => [p.part.key, answered(p)]));
}

/** What was answered to a part, for statistics and for the table that staff see. */
export const factsOf = (
  own: ScriptPart,
  script: readonly ScriptPart[],
  evidence?: Readonly<Record<string, EvidenceFound>>,
): readonly Fact[] =>
  own.kind.facts({
    ...(evidence ? { evidence } : {}),
    content: own.part.content,
    response: own.response,
    place: own.place,
    siblings: valuesFor(keyKinds, answered(own), siblingsOf(own, script)),
  });

/** Does the paper ask for programs? */
export const runsPrograms = (paper: FullPaper): boolean =>
  allParts(paper).some(({ part }) => keyKindOf(part.kind).runsPrograms);

export const isForMachine = ({ components }: ScriptPart): boolean =>
  components.some((component) => component.by === 'machine');

/** Do people have to look at it? Not at what was left empty. */
export const isForPeople = ({ components, empty }: ScriptPart): boolean =>
  !empty && byPeople(components).length > 0;

/** What nothing earns: 0 in every component, those of people included. */
export const unansweredCredits = ({ components }: ScriptPart): Credit[] => components.map(unansweredCredit);

/**
 * Scores a whole script at once, without a bound and without what is left to people: for tests and measures. The server scores in a worker
 * (`server/scoring/`).
 */
export function scoreScript(
  script: Script,
  evidence: Readonly<Record<string, Readonly<Record<string, EvidenceFound>>>> = {},
): ReadonlyMap<string, readonly Credit[]> {
  const parts = partsOfScript(script);
  const score = (own: ScriptPart) => {
    if (own.empty) return unansweredCredits(own);
    return scorePart(keyKinds, toScore(own, parts, evidence[own.target] ?? {})).filter(isDecided);
  };
  return new Map(parts.map((own) => [own.target, score(own)]));
}
