import { and, asc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { documentAsText } from '../../core/documents/documentAsText';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import {
  agreementOfPeople,
  byPeople,
  type AgreementFigures,
  type PairByPeople,
} from '../../core/marking/agreementOfPeople';
import type { AssessorQuality, QualityData, StandardRow } from '../../core/marking/api';
import { driftOf, type Drift } from '../../core/marking/drift';
import { finishAt, marksAnHour } from '../../core/marking/pace';
import { severities, type Severity } from '../../core/marking/severity';
import { sharedPassages, similarResponses } from '../../core/marking/similar';
import type { SimilarData, SimilarSide } from '../../core/marking/similarApi';
import { hasDrifted, isWithin } from '../../core/marking/standardisation';
import { roundEstimate, unknown } from '../../core/measures/estimate';
import { say } from '../../core/messages/words';
import {
  clarifications,
  gaps,
  invitations,
  judgements,
  markingHolds,
  markingTasks,
  setAsides,
  sittings,
  staff,
  standards,
  roundStaff,
} from '../db/schema';
import { sha256 } from '../secrets';
import type { Read, Reading } from '../reading/read';
import { itemOf, markingOf, type ItemRef } from './items';
import { findJudgement, totalOfJudgement } from './judgements';
import { givenIn, markedTwice, type MarkedTwice } from './reads';
import { partOf } from './scripts';

/** Differences of marks are counted in hundredths of a mark: the second place. */
const ONE_HUNDREDTH = 1;

type Db = Reading['db'];
type Given = ReturnType<typeof givenIn>[number];

const roleIs = (role: string) => (one: Given) => one.task.role === role;
const totalOf = ({ given }: Given) => totalOfJudgement({ given });

function standardsOf(db: Db, ref: ItemRef, given: readonly Given[]): (StandardRow & { sitting: number })[] {
  return db
    .select({ standard: standards, script: sittings.script, judgement: judgements })
    .from(standards)
    .innerJoin(sittings, eq(sittings.id, standards.sittingId))
    .innerJoin(judgements, eq(judgements.id, standards.judgementId))
    .where(and(eq(standards.roundId, ref.round), eq(standards.target, ref.target)))
    .orderBy(asc(standards.id))
    .all()
    .map(({ standard, script, judgement }) => ({
      id: standard.id,
      script,
      use: standard.use,
      agreed: totalOfJudgement(judgement),
      reason: judgement.reason,
      marked: given.filter(
        ({ task }) =>
          task.sittingId === standard.sittingId && (task.role === 'standard' || task.role === 'practice'),
      ).length,
      sitting: standard.sittingId,
    }));
}

interface Known {
  readonly given: readonly Given[];
  readonly standards: ReturnType<typeof standardsOf>;
  readonly tolerance: number;
  readonly severity: readonly Severity[];
  /** By response: the marks of both who marked it. */
  readonly twice: ReadonlyMap<number, MarkedTwice>;
  /** Of the round: by it days are told. */
  readonly timeZone: string;
}

/** Severity over time: standardisation scripts against the agreed mark, others against who marked them too. */
function driftIn(marks: readonly Given[], { standards: agreed, severity, twice, timeZone }: Known): Drift {
  const severityOf = (assessor: number) =>
    severity.find((one) => one.assessor === assessor)?.severity.value ?? 0;
  const above = (one: Given): number | null => {
    if (roleIs('standard')(one)) {
      const to = agreed.find(({ sitting }) => sitting === one.task.sittingId);
      return to ? totalOf(one) - to.agreed : null;
    }
    const both = twice.get(one.task.sittingId);
    if (!both) return null;
    const other = both.assessors[0] === one.task.assessorId ? 1 : 0;
    return totalOf(one) - (both.pair[other] - severityOf(both.assessors[other]));
  };
  const day = new Intl.DateTimeFormat('sv-SE', { timeZone });
  const drift = driftOf(
    marks.map((one) => ({ at: one.at, above: above(one) })),
    (at) => day.format(at),
  );
  return {
    byTenth: drift.byTenth.map((one) => roundEstimate(one, ONE_HUNDREDTH)),
    byDay: drift.byDay.map((one) => ({ ...one, severity: roundEstimate(one.severity, ONE_HUNDREDTH) })),
  };
}

function qualityOf(
  db: Db,
  ref: ItemRef,
  { id, name }: { readonly id: number; readonly name: string },
  known: Known,
): AssessorQuality {
  const { given, standards: agreed, tolerance, severity } = known;
  const mine = given.filter(({ task }) => task.assessorId === id);
  const marked = mine.filter((one) => roleIs('first')(one) || roleIs('second')(one));
  const own = severity.find(({ assessor }) => assessor === id);
  const groups = new Set(severity.flatMap((one) => (one.severity.value === null ? [] : [one.group]))).size;
  const unseen = mine.filter(roleIs('standard')).flatMap((one) => {
    const to = agreed.find(({ sitting }) => sitting === one.task.sittingId);
    return to ? [{ given: totalOf(one), agreed: to.agreed, at: one.at }] : [];
  });
  const holds = db
    .select()
    .from(markingHolds)
    .where(
      and(
        eq(markingHolds.roundId, ref.round),
        eq(markingHolds.staffId, id),
        inArray(markingHolds.target, ['', ref.target]),
        isNull(markingHolds.endedAt),
      ),
    )
    .all();
  const left = db
    .select({ id: markingTasks.id })
    .from(markingTasks)
    .where(
      and(
        eq(markingTasks.roundId, ref.round),
        eq(markingTasks.target, ref.target),
        eq(markingTasks.assessorId, id),
        isNull(markingTasks.doneAt),
      ),
    )
    .all().length;
  return {
    id,
    name,
    marked: marked.length,
    left,
    anHour: marksAnHour(mine.map((one) => one.at)),
    severity: roundEstimate(own?.severity ?? unknown(0, 'too few'), ONE_HUNDREDTH),
    group: own && groups > 1 ? own.group + 1 : null,
    drift: driftIn([...marked, ...mine.filter(roleIs('standard'))], known),
    standards: {
      within: unseen.filter((one) => isWithin(one, tolerance)).length,
      of: unseen.length,
      drifted: hasDrifted(unseen, tolerance),
    },
    held: holds.find(({ target }) => target !== '')?.reason ?? null,
    absent: holds.some(({ target }) => target === ''),
  };
}

/** As it is shown: to two places, differences to a hundredth of a mark. */
function rounded({ pairs, ...figures }: AgreementFigures): AgreementFigures {
  return {
    people: figures.people,
    exact: roundEstimate(figures.exact),
    adjacent: roundEstimate(figures.adjacent),
    absolute: roundEstimate(figures.absolute, ONE_HUNDREDTH),
    intraclass: figures.intraclass.map(({ form, estimate }) => ({ form, estimate: roundEstimate(estimate) })),
    ordinal: roundEstimate(figures.ordinal),
    interval: roundEstimate(figures.interval),
    fleiss: roundEstimate(figures.fleiss),
    pairs: pairs.map(({ assessors, difference, spread, ...each }) => ({
      assessors,
      exact: roundEstimate(each.exact),
      kappa: roundEstimate(each.kappa),
      linear: roundEstimate(each.linear),
      plain: roundEstimate(each.plain),
      pearson: roundEstimate(each.pearson),
      spearman: roundEstimate(each.spearman),
      difference: roundEstimate(difference, ONE_HUNDREDTH),
      spread: roundEstimate(spread, ONE_HUNDREDTH),
    })),
  };
}

/** Items whose figures are kept: the intervals of alpha take a thousand draws. */
const MOST_KEPT = 200;
const kept = new Map<string, AgreementFigures>();

/** The figures of these very marks, computed once. */
function agreementOf(twice: readonly PairByPeople[]): AgreementFigures {
  const key = sha256(JSON.stringify(twice.map(({ assessors, pair }) => [...assessors, ...pair])));
  const known = kept.get(key);
  if (known) return known;
  const figures = rounded(agreementOfPeople(twice));
  kept.set(key, figures);
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
  return figures;
}

function assessorsIn(db: Db, ref: ItemRef, given: readonly Given[]) {
  const own = db
    .select({ id: staff.id, name: staff.name })
    .from(roundStaff)
    .innerJoin(staff, eq(staff.id, roundStaff.staffId))
    .where(and(eq(roundStaff.roundId, ref.round), eq(roundStaff.role, 'assessor')))
    .orderBy(asc(staff.name))
    .all();
  const others = [...new Set(given.map(({ task }) => task.assessorId))].filter(
    (id) => id !== null && own.every((one) => one.id !== id),
  ) as number[];
  const named = others.length
    ? db.select({ id: staff.id, name: staff.name }).from(staff).where(inArray(staff.id, others)).all()
    : [];
  return [...own, ...named];
}

function quality({ db, clock }: Reading, ref: ItemRef): Omit<QualityData, 'open' | 'newest'> {
  const { round, question, judged } = itemOf(db, ref);
  const { signedOffAt, signedOffBy: _, ...settings } = markingOf(db, ref, judged);
  const inItem = and(eq(markingTasks.roundId, ref.round), eq(markingTasks.target, ref.target));
  const given = givenIn(db, ref);
  const marked = given.filter((one) => roleIs('first')(one) || roleIs('second')(one));
  const tasks = db
    .select({
      sitting: markingTasks.sittingId,
      role: markingTasks.role,
      doneAt: markingTasks.doneAt,
      script: sittings.script,
    })
    .from(markingTasks)
    .innerJoin(sittings, eq(sittings.id, markingTasks.sittingId))
    .where(and(inItem, inArray(markingTasks.role, ['first', 'second'])))
    .all();
  const firsts = tasks.filter(({ role }) => role === 'first');
  const twice = markedTwice(db, ref);
  const severity = severities(
    twice.flatMap(({ response, assessors, pair }) =>
      assessors.map((assessor, i) => ({ response, assessor, mark: pair[i]! })),
    ),
  );
  const agreed = standardsOf(db, ref, given);
  const known = {
    given,
    standards: agreed,
    tolerance: settings.tolerance,
    severity,
    twice: new Map(twice.map((one) => [one.response, one])),
    timeZone: round.timeZone,
  };
  const open = db
    .select({ gap: gaps, script: sittings.script })
    .from(gaps)
    .innerJoin(sittings, eq(sittings.id, gaps.sittingId))
    .where(and(eq(gaps.roundId, ref.round), eq(gaps.target, ref.target), isNull(gaps.closedAt)))
    .orderBy(asc(gaps.id))
    .all();
  const asked = db
    .select({ aside: setAsides, script: sittings.script, assessor: staff.name })
    .from(setAsides)
    .innerJoin(markingTasks, eq(markingTasks.id, setAsides.taskId))
    .innerJoin(sittings, eq(sittings.id, markingTasks.sittingId))
    .innerJoin(staff, eq(staff.id, setAsides.staffId))
    .where(and(inItem, isNull(setAsides.answeredAt)))
    .orderBy(asc(setAsides.id))
    .all();
  const added = db
    .select()
    .from(clarifications)
    .where(and(eq(clarifications.roundId, ref.round), eq(clarifications.target, ref.target)))
    .orderBy(asc(clarifications.id))
    .all();
  return {
    round: round.id,
    roundTitle: round.title,
    target: ref.target,
    itemNumber: question.number,
    title: question.title,
    marks: judged,
    settings: {
      doublePercent: settings.doublePercent,
      tolerance: settings.tolerance,
      standardEvery: settings.standardEvery,
    },
    signedOffAt: round.signedOffAt ?? signedOffAt,
    given: marked.length,
    all: tasks.length,
    twice: tasks.length - firsts.length,
    scripts: firsts.length,
    finishAt: finishAt(
      marked.map((one) => one.at),
      tasks.length - marked.length,
      clock.now(),
    ),
    assessors: assessorsIn(db, ref, given).map((one) => qualityOf(db, ref, one, known)),
    agreement: agreementOf(twice),
    pairs: byPeople(twice).map(({ pair }) => pair),
    gaps: open.map(({ gap, script }) => ({
      id: gap.id,
      script,
      first: totalOfJudgement(findJudgement(db, gap.first)),
      second: totalOfJudgement(findJudgement(db, gap.second)),
    })),
    asides: asked.map(({ aside: { id, taskId, reason, note, answer }, script, assessor }) => ({
      id,
      task: taskId,
      reason,
      note,
      answer,
      script,
      assessor,
    })),
    standards: agreed.map(({ sitting: _sitting, ...row }) => row),
    clarifications: added.map(({ id, text, at }) => ({ id, text, at })),
    candidates: firsts.map(({ script, doneAt }) => ({ script, marked: doneAt !== null })),
  };
}

/** How an item is marked, for its lead. */
export const qualityRead: Read<ItemRef, Omit<QualityData, 'open' | 'newest'>> = {
  name: 'quality',
  run: quality,
};

/** All responses of an item as texts, and what everybody was given: the paper's own words and what answers begin with. */
function textsOf({ db }: Reading, ref: ItemRef) {
  const { part: asked, question } = itemOf(db, ref);
  const kind = candidateKindOf(asked.kind);
  const closed = db
    .select({ id: sittings.id, script: sittings.script })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(and(eq(invitations.roundId, ref.round), isNotNull(sittings.closedAt)))
    .all();
  const starters = new Set<string>();
  const texts = closed.flatMap(({ id, script }) => {
    const { part } = partOf({ db }, { sittingId: id, target: ref.target, failure: null, undecided: [] });
    const compared = part.empty ? null : (kind.compared?.(part.shown, part.response) ?? null);
    if (!compared) return [];
    compared.given.forEach((one) => starters.add(one));
    return [{ script: id, code: script, form: compared.form, text: compared.text }];
  });
  const documents = [asked.prompt, ...(question.source?.tabs.map((tab) => tab.body) ?? [])];
  return { texts, given: [...starters, ...documents.map((one) => documentAsText(one, say))] };
}

/** Pairs of an item's responses with unusual overlap. */
export const similarRead: Read<ItemRef, SimilarData> = {
  name: 'similar',
  run: (reading, ref) => {
    const { texts, given } = textsOf(reading, ref);
    const codes = new Map(texts.map((one) => [one.script, one.code]));
    const found = similarResponses(texts, given);
    return {
      ...found,
      pairs: found.pairs.map(({ scripts: [a, b], ...pair }) => ({
        ...pair,
        scripts: [codes.get(a)!, codes.get(b)!],
      })),
    };
  },
};

/** Two responses side by side, with what both have. */
export const similarPairRead: Read<ItemRef & { readonly scripts: readonly [string, string] }, SimilarSide[]> =
  {
    name: 'similar-pair',
    run: (reading, { scripts, ...ref }) => {
      const { texts, given } = textsOf(reading, ref);
      const own = scripts.map((code) => texts.find((one) => one.code === code));
      const [a, b] = own;
      if (!a || !b) return [];
      const passages = sharedPassages([a, b], given);
      return [a, b].map(({ code, form, text }, i) => ({ script: code, form, text, passages: passages[i]! }));
    },
  };

export const qualityReads = [qualityRead, similarRead, similarPairRead];
