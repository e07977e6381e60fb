import { and, asc, eq, isNotNull } from 'drizzle-orm';
import type { ListQuery, Page } from '../../core/lists/list';
import { showMarks, sumMarks } from '../../core/marks';
import type { MarkRole } from '../../core/marking/mark';
import { say } from '../../core/messages/words';
import { message } from '../../core/messages/message';
import { bandOf } from '../../core/results/bands';
import { markedComponents, type ComponentMark } from '../../core/results/componentMark';
import { isComplete } from '../../core/results/attempts';
import type { Component } from '../../core/kinds/contract';
import { invitations, people, rounds, sittings } from '../db/schema';
import { standingMarksOf, type Mark } from '../marking/marks';
import { roundMarked, type RoundMarked } from '../marking/roundMarked';
import { notFound } from '../http/errors';
import type { Cell, Column, Listing, Reading } from '../reading/read';
import { resultsOfAll, type AttemptMade, type Standing } from '../results/attempts';
import type { ResultsOf } from '../results/reads';
import { findRound } from '../schedule/queries';

type Round = typeof rounds.$inferSelect;

/** So many candidates are read at once. */
const PIECE = 500;

/** A question of a paper as a table names it: `5 C`, or `8` where it has one part. */
interface AskedPart {
  readonly target: string;
  readonly number: string;
  readonly title: string;
  readonly marks: number;
  readonly components: readonly Component[];
}

export function partsOf({ marked }: RoundMarked): AskedPart[] {
  return marked.copy.questions.flatMap((question) =>
    question.parts.map((part) => ({
      target: part.target,
      number: question.parts.length > 1 ? `${question.number} ${part.key}` : String(question.number),
      title: question.title,
      marks: part.marks,
      components: marked.components.get(part.target)!,
    })),
  );
}

export function findMarked({ db }: Pick<Reading, 'db'>, id: number): { round: Round; by: RoundMarked } {
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  return { round, by: roundMarked(db, round) };
}

interface Sat {
  readonly invitation: number;
  readonly name: string;
  readonly reference: string;
}

/** Everybody of a round who has handed in, by name. */
const whoSat = ({ db }: Pick<Reading, 'db'>, round: number): Sat[] =>
  db
    .selectDistinct({ invitation: invitations.id, name: people.name, reference: people.reference })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .innerJoin(sittings, eq(sittings.invitationId, invitations.id))
    .where(and(eq(invitations.roundId, round), isNotNull(sittings.closedAt)))
    .orderBy(asc(people.reference), asc(invitations.id))
    .all();

const pieces = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / PIECE) }, (_, i) => all.slice(i * PIECE, (i + 1) * PIECE));

/** One mark of one script. */
interface MarkRow {
  readonly who: Sat;
  readonly attempt: AttemptMade;
  readonly part: AskedPart;
  readonly component: Component;
  readonly mark: ComponentMark | undefined;
  readonly given: Mark | undefined;
}

const byWords: Record<MarkRole, string> = {
  machine: 'byMachine',
  first: 'byAssessor',
  second: 'byAssessor',
  mean: 'byMean',
  settlement: 'byLead',
  override: 'byAssessor',
  remark: 'byLead',
};
const inWords = (key: string) => say(message(`list.${key}`));

function givenByOf({ mark, given }: MarkRow): string | null {
  if (!mark) return null;
  if (mark.verdict === 'withdrawn' || mark.verdict === 'given') return inWords('byDecision');
  return given ? inWords(byWords[given.role]) : null;
}

/** A script, with the result that it is part of and all that was given of it. */
interface ScriptFound {
  readonly who: Sat;
  readonly attempt: AttemptMade;
  readonly result: Standing;
  readonly given: readonly Mark[];
}

interface Wanted extends ResultsOf {
  readonly by: RoundMarked;
  readonly search: string;
}

/** The scripts of a round, some candidates at a time; who may not be named is not found by their name either. */
function* scriptsFound(reading: Reading, { round: id, blind, by, search }: Wanted): Generator<ScriptFound> {
  const { round } = findMarked(reading, id);
  const wanted = search.toLowerCase();
  for (const some of pieces(whoSat(reading, id))) {
    const ids = some.map(({ invitation }) => invitation);
    const results = resultsOfAll(reading.db, round, by.marked, ids);
    const sat = [...results.values()].flatMap(({ attempts }) => attempts.map(({ sitting }) => sitting.id));
    const given = standingMarksOf(reading.db, sat);
    for (const who of some) {
      const result = results.get(who.invitation)!;
      for (const attempt of result.attempts) {
        const { id: sitting, script } = attempt.sitting;
        const told = blind ? script : `${script} ${who.name} ${who.reference}`;
        if (told.toLowerCase().includes(wanted))
          yield { who, attempt, result, given: given.get(sitting) ?? [] };
      }
    }
  }
}

/** The rows of one script, in the order of the paper; what its form did not have is left out. */
function rowsOf({ who, attempt, given }: ScriptFound, all: readonly AskedPart[]): MarkRow[] {
  const marksOn = new Map<string, ComponentMark[]>();
  for (const mark of attempt.marks) marksOn.set(mark.target, [...(marksOn.get(mark.target) ?? []), mark]);
  return all.flatMap((part) => {
    const own = marksOn.get(part.target) ?? [];
    return markedComponents(part.components, own).map((component) => ({
      who,
      attempt,
      part,
      component,
      mark: own.find((mark) => mark.component === component.key),
      given: given.find((mark) => mark.target === part.target && mark.component === component.key),
    }));
  });
}

const named = (blind: boolean, who: Sat, of: 'name' | 'reference') => (blind ? null : who[of]);
const full = (hundredths: number | undefined): Cell => (hundredths === undefined ? null : hundredths / 100);

/** Whose a row is; who may not be named is told by the code of the script alone. */
const whose = {
  script: ({ attempt }: Whose) => attempt.sitting.script,
  name: ({ blind, who }: Whose) => named(blind, who, 'name'),
  reference: ({ blind, who }: Whose) => named(blind, who, 'reference'),
  attempt: ({ attempt }: Whose) => attempt.attempt,
};
interface Whose {
  readonly blind: boolean;
  readonly who: Sat;
  readonly attempt: AttemptMade;
}

type Row = MarkRow & { readonly blind: boolean };

/** Every mark of a round, a row each: by script, question, part and criterion. A filter is the name of a part. */
export const marksList: Listing<ResultsOf, Row> = {
  name: 'marks',
  filters: (reading, { round }) => partsOf(findMarked(reading, round).by).map(({ target }) => target),
  list: (reading, { round: id, blind }, { filter, search, from, size }: ListQuery): Page<Row> => {
    const { by } = findMarked(reading, id);
    const parts = partsOf(by).filter(({ target }) => filter === '' || target === filter);
    const rows: Row[] = [];
    let count = 0;
    for (const found of scriptsFound(reading, { round: id, blind, by, search }))
      for (const row of rowsOf(found, parts)) {
        if (count >= from && rows.length < size) rows.push({ ...row, blind });
        count++;
      }
    return { rows, count };
  },
  cells: {
    ...whose,
    question: ({ part }) => part.number,
    item: ({ part }) => part.title,
    criterion: ({ component }) => (component.name ? say(component.name) : null),
    marks: ({ mark }) => full(mark?.hundredths),
    outOf: ({ component }) => component.of / 100,
    verdict: ({ mark }) => (mark?.verdict ? inWords(`verdict-${mark.verdict.replaceAll(' ', '-')}`) : null),
    level: ({ mark, component }) => component.criterion?.levels?.[mark?.level ?? -1]?.label ?? null,
    markedBy: givenByOf,
    markedAt: ({ given }) => (given ? new Date(given.at) : null),
  },
};

/** A script with all its marks. */
interface WideRow extends Whose {
  readonly counts: boolean;
  readonly total: number | null;
  readonly band: string | null;
  /** By part, and by part and component. */
  readonly marks: ReadonlyMap<string, number>;
}

function marksBy(attempt: AttemptMade): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  for (const { target, component, hundredths } of attempt.marks) {
    found.set(`${target} ${component}`, hundredths);
    found.set(target, sumMarks([found.get(target) ?? 0, hundredths]));
  }
  return found;
}

/** A row for each script, a column for each part, and one for each criterion of a part that has several. */
export const scriptMarksList: Listing<ResultsOf, WideRow> = {
  name: 'script-marks',
  list: (reading, { round: id, blind }, { search, from, size }) => {
    const { by } = findMarked(reading, id);
    const rows: WideRow[] = [];
    let count = 0;
    for (const { who, attempt, result } of scriptsFound(reading, { round: id, blind, by, search })) {
      const counts = result.counted.includes(attempt);
      const total = counts && isComplete(result.counted, by.marked) ? result.total : null;
      const band = total === null ? null : (bandOf(by.bands ?? [], total)?.title ?? null);
      if (count >= from && rows.length < size)
        rows.push({ blind, who, attempt, counts, total, band, marks: marksBy(attempt) });
      count++;
    }
    return { rows, count };
  },
  cells: {
    ...whose,
    handedInAt: ({ attempt }) => new Date(attempt.sitting.closedAt!),
    total: ({ total }) => full(total ?? undefined),
    band: ({ band }) => band,
  },
  more: (reading, { round }) =>
    partsOf(findMarked(reading, round).by).flatMap((part): Column<WideRow>[] => {
      const head = `${part.number} ${part.title} (${showMarks(part.marks)})`;
      const whole = { head, cell: ({ marks }: WideRow) => full(marks.get(part.target)) };
      if (part.components.length < 2) return [whole];
      const own = part.components.map(({ key, name, of }) => ({
        head: `${part.number} ${name ? say(name) : key} (${showMarks(of)})`,
        cell: ({ marks }: WideRow) => full(marks.get(`${part.target} ${key}`)),
      }));
      return [whole, ...own];
    }),
};
