import { placeOf } from '../forms/drawForm';
import { candidateKindOf } from '../kinds/candidateKindOf';
import { isDecided, type Issue } from '../kinds/contract';
import type { EvidenceFound, EvidenceRequest } from '../kinds/evidence';
import { keyKindOf, keyKinds } from '../kinds/keyKinds';
import { severe } from '../kinds/shared/issues';
import { showMarks, sumMarks } from '../marks';
import { message, type Message } from '../messages/message';
import { seededRandom } from '../random';
import { scorePart, type Answered } from '../scoring/scorePart';
import type { Item, Part } from './paper';

/** Runs what scoring asks for; null where it cannot be run before an answer is there. */
export type RunEvidence = (request: EvidenceRequest) => EvidenceFound | null;

const ARRANGEMENTS = 20;
/** Numbers are written and read by the round's locale: every way of writing them has its turn. */
const LOCALES = ['en', 'de', 'fr', 'de-CH', 'en-IN'];

interface Right extends Answered {
  readonly part: Part;
  readonly arrangement: unknown;
}

/** The right answer of a part under one arrangement; null where its kind tells none. */
function rightOf(item: Item, part: Part, turn: number): Right | null {
  const kind = keyKindOf(part.kind);
  const place = placeOf(item, part, LOCALES[turn % LOCALES.length]!);
  const arrangement = kind.arrange(part.content, seededRandom(`right answer ${turn}`));
  const response = kind.rightResponse(part.content, arrangement, place);
  return response === null
    ? null
    : { kind: part.kind, content: part.content, part, arrangement, place, response };
}

/** Why a right answer would not earn all the marks of the machine; null where it does, or where it cannot be run. */
function problemOf(
  right: Right,
  siblings: Readonly<Record<string, Answered>>,
  run: RunEvidence,
): Message | null {
  const { part, content, arrangement, place, response } = right;
  const kind = keyKindOf(part.kind);
  const misfit = candidateKindOf(part.kind).misfit(kind.show(content.asked, arrangement, place), response);
  if (misfit) return misfit;
  const evidence: Record<string, EvidenceFound> = {};
  for (const request of kind.evidence(right, {})) {
    const found = run(request);
    if (found === null) return null;
    evidence[request.key] = found;
  }
  const found = scorePart(keyKinds, { ...right, target: part.key, siblings, evidence });
  const earned = sumMarks(found.filter(isDecided).map(({ hundredths }) => hundredths));
  const machine = kind.components(content, part.marks).filter(({ by }) => by === 'machine');
  const of = sumMarks(machine.map((component) => component.of));
  if (earned === of) return null;
  return message('author.rightEarnsLess', { earned: showMarks(earned), of: showMarks(of) });
}

function issuesOfItem(item: Item, at: number, run: RunEvidence): Issue[] {
  const found = new Map<number, Message>();
  for (let turn = 0; turn < ARRANGEMENTS; turn++) {
    const rights = item.parts.map((part) => rightOf(item, part, turn));
    const siblings = Object.fromEntries(rights.flatMap((right) => (right ? [[right.part.key, right]] : [])));
    rights.forEach((right, k) => {
      if (right === null || found.has(k)) return;
      const problem = problemOf(right, siblings, run);
      if (problem) found.set(k, problem);
    });
  }
  return [...found].map(([k, problem]) => severe(['bank', at, 'parts', k, 'content', 'key'], problem));
}

/**
 * Parts whose own right answer does not earn all of their marks, under any of 20 arrangements and the ways in which
 * locales write numbers. Components of people are exempt. Such a part is never published: nobody could do it right.
 */
export const issuesOfRightAnswers = (bank: readonly Item[], run: RunEvidence): Issue[] =>
  bank.flatMap((item, at) => issuesOfItem(item, at, run));
