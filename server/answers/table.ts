import type { AnswerCount, AnsweredPart, AnswerTable } from '../../core/answers/api';
import { wholeForm } from '../../core/forms/drawForm';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { say } from '../../core/messages/words';
import { allParts, type FullPaper, type PartInPlace } from '../../core/papers/paper';
import { factsOf, type ScriptPart } from '../../core/scoring/script';
import type { rounds } from '../db/schema';
import { notFound } from '../http/errors';
import { paperOfVersion } from '../papers/papers';
import { findRound } from '../schedule/queries';
import type { Reading } from '../reading/read';
import { evidenceKept } from '../scoring/keptEvidence';
import { partsOfItem, scriptsOf } from '../sittings/scriptsOf';

type Round = typeof rounds.$inferSelect;

const roundOf = ({ db }: Reading, id: number): Round => {
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  return round;
};

export function answeredParts(services: Reading, roundId: number): AnsweredPart[] {
  const paper = paperOfVersion(services.db, roundOf(services, roundId).paperVersionId);
  return wholeForm(paper).paper.questions.flatMap((question) =>
    question.parts.map(({ target, key: part }) => ({
      target,
      itemNumber: question.number,
      title: question.title,
      part,
    })),
  );
}

interface Judged {
  readonly paper: FullPaper;
  readonly round: Round;
  readonly item: string;
}

function placeIn(services: Reading, roundId: number, target: string): { judged: Judged; place: PartInPlace } {
  const round = roundOf(services, roundId);
  const paper = paperOfVersion(services.db, round.paperVersionId);
  const place = allParts(paper).find((one) => one.target === target);
  if (!place) throw notFound('noQuestion');
  return { judged: { paper, round, item: place.item.key }, place };
}

/** Scripts are named where so few have an answer. */
const FEW = 5;
/** So much of a text is shown in a list. */
const BEGINNING = 140;

/** What somebody wrote, as far as a list has room for it. */
function beginningOf({ part, shown, response }: ScriptPart): string {
  const text = candidateKindOf(part.kind).describe(shown, response, say).text.replace(/\s+/g, ' ').trim();
  return text.length <= BEGINNING ? text : `${text.slice(0, BEGINNING).trimEnd()} …`;
}

/** Counts what was answered; of texts the beginning. */
export function answerTable(services: Reading, roundId: number, target: string): AnswerTable {
  const { judged, place } = placeIn(services, roundId, target);
  const kind = keyKindOf(place.part.kind);
  const { content, marks } = place.part;
  const scripts = scriptsOf(services.db, roundId);
  const counts = new Map<string, AnswerCount>();
  let answered = 0;
  const evidenceOf = (part: ScriptPart, id: number) =>
    (kind.runsPrograms && evidenceKept(services.db, id, part)) || undefined;
  for (const sitting of scripts) {
    const parts = partsOfItem(services.db, sitting, judged);
    const part = parts.find((one) => one.target === target);
    if (!part || part.empty) continue;
    answered++;
    for (const own of factsOf(part, parts, evidenceOf(part, sitting.id))) {
      const fact = own.type === 'words' ? { ...own, answer: beginningOf(part) } : own;
      const key = JSON.stringify(fact);
      const before = counts.get(key);
      const acceptable = () =>
        fact.right === false && kind.accept(content, fact.component, fact.answer) !== null;
      counts.set(key, {
        ...fact,
        count: (before?.count ?? 0) + 1,
        // Which programs differ from the rest: the few that came to something else.
        scripts:
          fact.type === 'outcome' ? [...(before?.scripts ?? []), sitting.script].slice(0, FEW + 1) : [],
        acceptable: before?.acceptable ?? acceptable(),
      });
    }
  }
  const own = answeredParts(services, roundId).find((one) => one.target === target)!;
  const components = kind.components(content, marks).map(({ key, name }) => ({ key, name }));
  const answers = [...counts.values()]
    .map((one) => ({ ...one, scripts: one.scripts.length <= FEW ? one.scripts : [] }))
    .sort((a, b) => b.count - a.count || (a.answer < b.answer ? -1 : 1));
  return { ...own, scripts: scripts.length, answered, components, answers };
}
