import { documentAsText } from '../../core/documents/documentAsText';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { showMarks } from '../../core/marks';
import { dateOf, LOCALE } from '../../core/messages/dates';
import { message } from '../../core/messages/message';
import { say } from '../../core/messages/words';
import {
  answerOnSheet,
  type ResultComponent,
  type ResultPart,
  type ResultQuestion,
  type ResultSheet,
  type SheetNote,
} from '../../core/results/resultSheet';
import { isNextLevel } from '../../core/results/nextLevel';
import { SOFT, TaggedPdf } from './TaggedPdf';

const KELP = '#12564F';

const inWords = (key: string, values: Record<string, string | number> = {}): string =>
  say(message(`sheet.${key}`, values));
const outOf = (marks: number, of: number) =>
  inWords('marksOf', { marks: showMarks(marks), of: showMarks(of) });

const verdictWords = (verdict: ResultPart['verdict'], provisional = false) =>
  verdict === 'not marked' && provisional
    ? inWords('beingRead')
    : say(message(`verdict.${verdict === 'follow-through' ? 'followThrough' : verdict.replace(' ', '')}`));

/** A component with its name where a part has several, its level, and its reasons. */
function component(pdf: TaggedPdf, c: ResultComponent, several: boolean): void {
  const reasons = c.reasons.map(say).join(' ');
  if (!several && !c.level && !c.points) return pdf.write('P', reasons, { color: SOFT });
  const levelName =
    c.level && (c.upTo ? inWords('between', { from: c.level.label, to: c.upTo.label }) : c.level.label);
  const found = c.level
    ? `${levelName} – ${[c.level.says, c.upTo?.says].filter(Boolean).join(' ')}`
    : [c.verdict ? verdictWords(c.verdict) : '', reasons].filter(Boolean).join('. ');
  const name = c.name ? `${say(c.name)}: ` : '';
  pdf.write('P', `${name}${outOf(c.hundredths, c.of)}${found && ` · ${found}`}`, { indent: 10, before: 1 });
  const points = (c.points ?? []).map(({ says, found: has }) =>
    inWords(has ? 'pointFound' : 'pointMissing', { point: says }),
  );
  const others = c.otherLevels.map(({ label, says, hundredths }) =>
    inWords('otherLevel', { label, says, marks: showMarks(hundredths) }),
  );
  if (others.length > 0) {
    pdf.write('P', inWords(isNextLevel(c) ? 'nextLevel' : 'otherLevels'), { indent: 20, color: SOFT });
    pdf.list(others, { indent: 20, color: SOFT });
  }
  if (points.length > 0) pdf.list(points, { indent: 20, color: SOFT });
}

/** The answer with the numbers of the notes behind what they are about. */
function answerOf(p: ResultPart) {
  const kind = candidateKindOf(p.kind);
  const mark = (number: number) => ` [${number}]`;
  const noted = kind.withNotes?.(p.response, p.notes, mark) ?? p.response;
  return answerOnSheet(p, noted, say);
}

/** A margin note with its number; where its place is not in the text, the place in words. */
function noteWords({ number, text, about, anchor }: SheetNote, files: readonly string[]): string {
  const place =
    anchor.on === 'page'
      ? inWords('notePage', { page: files.indexOf(anchor.file) + 1 })
      : anchor.on === 'lines'
        ? inWords(anchor.from === anchor.to ? 'noteLine' : 'noteLines', { from: anchor.from, to: anchor.to })
        : '';
  const told = [place, about ? say(about) : ''].filter(Boolean).join(', ');
  return `[${number}] ${told && `${told}: `}${text}`;
}

/** The pages of the files that answers name, by their hash: each a file of a picture, or a picture. */
export type Pictures = Readonly<Record<string, readonly (string | Uint8Array)[]>>;

interface Whole {
  readonly pictures: Pictures;
  readonly provisional: boolean;
}

/** The pages of an answer with what notes mark on them, each with its number. */
function pages(pdf: TaggedPdf, p: ResultPart, pictures: Pictures): void {
  const all = candidateKindOf(p.kind)
    .files(p.response)
    .flatMap(({ hash }) => (pictures[hash] ?? []).map((picture, i) => ({ hash, picture, page: i + 1 })));
  all.forEach(({ hash, picture, page }, i) => {
    const notes = p.notes.flatMap(({ number, anchor }) =>
      anchor.on === 'page' && anchor.file === hash && anchor.page === page ? [{ number, ...anchor }] : [],
    );
    const turn = candidateKindOf(p.kind).turnOf?.(p.response, hash) ?? 0;
    pdf.picture(picture, { words: inWords('pagePicture', { page: i + 1 }), turn, notes });
  });
}

function part(pdf: TaggedPdf, p: ResultPart, several: boolean, { pictures, provisional }: Whole): void {
  const prompt = documentAsText(p.prompt, say);
  pdf.write('P', several ? `${p.key}  ${prompt}` : prompt, { color: SOFT, before: 7 });
  const answer = answerOf(p);
  pdf.write('P', inWords('yours'), { size: 8.5, color: SOFT, before: 3 });
  if (answer.form === 'program' && answer.text)
    pdf.write('P', answer.text, { look: 'program', size: 8.5, indent: 10 });
  else if (answer.form === 'list' && answer.text) pdf.list(answer.text.split('\n'), { indent: 10 });
  else pdf.write('P', answer.text || inWords('noAnswer'), { indent: 10 });
  pages(pdf, p, pictures);
  const withdrawn = p.verdict === 'withdrawn';
  const found = verdictWords(p.verdict, provisional);
  const verdict = withdrawn ? found : `${found} · ${outOf(p.hundredths, p.of)}`;
  pdf.write('P', verdict, { look: 'bold', before: 3 });
  for (const remark of p.remarks) pdf.write('P', say(remark), { color: SOFT });
  if (!withdrawn) for (const c of p.components) component(pdf, c, p.components.length > 1);
  if (p.right !== null) {
    const right = candidateKindOf(p.kind).describe(p.shown, p.right, say).text;
    pdf.write('P', inWords('right', { answer: right }), { color: KELP, before: 2 });
  }
  if (p.modelAnswer !== null) {
    const answer = documentAsText(p.modelAnswer, say);
    pdf.write('P', inWords('modelAnswer', { answer }), { color: KELP, before: 2 });
  }
  if (p.explanation !== null) {
    const explanation = documentAsText(p.explanation, say);
    pdf.write('P', inWords('explanation', { explanation }), { color: KELP, before: 2 });
  }
  const files = candidateKindOf(p.kind)
    .files(p.response)
    .map(({ hash }) => hash);
  if (p.notes.length > 0)
    pdf.list(
      p.notes.map((one) => noteWords(one, files)),
      { indent: 10, before: 1 },
    );
  for (const comment of p.comments)
    pdf.write('P', inWords('comment', { comment }), { indent: 10, before: 3 });
}

function question(pdf: TaggedPdf, q: ResultQuestion, whole: Whole): void {
  const { number, title } = q;
  const marks = outOf(q.hundredths, q.of);
  pdf.write('H2', inWords('question', { number, title, marks }), { size: 12, look: 'bold', before: 12 });
  pdf.rule();
  for (const one of q.parts) part(pdf, one, q.parts.length > 1, whole);
}

/** The result sheet as a tagged PDF: the same that the page shows. */
export function printSheet(
  sheet: ResultSheet,
  organisation: string,
  pictures: Pictures = {},
): Promise<Uint8Array> {
  const day = (at: number) => dateOf(at, { locale: LOCALE, timeZone: sheet.timeZone });
  const title = inWords('resultOf', { name: sheet.candidate.name, title: sheet.title });
  const pdf = new TaggedPdf({ title, author: organisation, language: LOCALE });
  pdf.write('H1', sheet.candidate.name, { size: 20, look: 'bold' });
  const facts = { title: sheet.title, organisation, sat: day(sheet.satAt), released: day(sheet.releasedAt) };
  pdf.write('P', inWords(`facts-${sheet.state}`, facts), { color: SOFT, before: 2 });
  pdf.write('P', outOf(sheet.hundredths, sheet.of), { size: 20, look: 'bold', color: KELP, before: 8 });
  for (const one of sheet.remarks) pdf.write('P', say(one), { before: 2 });
  if (sheet.detail === 'sections') pdf.write('P', inWords('sectionsOnly'), { color: SOFT, before: 2 });
  const { band } = sheet;
  if (band) {
    const from = { title: band.title, from: showMarks(band.from), next: showMarks(band.next ?? 0) };
    pdf.write('P', inWords(band.next === null ? 'band' : 'bandNext', from), { before: 2 });
  }
  if (sheet.comment !== null) pdf.write('P', inWords('overall', { comment: sheet.comment }), { before: 4 });
  if (sheet.file !== null) pdf.write('P', inWords('overallFile'), { color: SOFT, before: 2 });
  if (sheet.rightLater) pdf.write('P', inWords('rightLater'), { color: SOFT, before: 2 });
  if (sheet.open > 0) pdf.write('P', inWords('open', { marks: showMarks(sheet.open) }), { before: 2 });
  const attempts = sheet.attempts.map((one) =>
    inWords(one.counts ? 'attemptCounts' : 'attempt', {
      number: one.attempt,
      day: day(one.satAt),
      marks: showMarks(one.hundredths),
    }),
  );
  if (attempts.length > 0) pdf.list(attempts, { before: 1 });
  const changes = sheet.changes.map(({ at, about, question: number, before, after, reason }) =>
    inWords(about === 'total' ? 'changeTotal' : 'change', {
      day: day(at),
      number,
      before: showMarks(before),
      after: showMarks(after),
      reason: say(reason),
    }),
  );
  if (changes.length > 0) pdf.list(changes, { before: 1 });
  const most = Math.max(1, ...sheet.sections.map((s) => s.of));
  if (sheet.sections.length > 0)
    pdf.bars(
      sheet.sections.map((s) => ({
        name: `${s.key}  ${s.title}`,
        figure: outOf(s.hundredths, s.of),
        of: s.of / most,
        share: s.of === 0 ? 0 : Math.max(s.hundredths, 0) / s.of,
      })),
    );
  const whole = { pictures, provisional: sheet.state === 'provisional' };
  for (const one of sheet.questions) question(pdf, one, whole);
  pdf.write('P', inWords('receipt', { code: sheet.receipt }), { color: SOFT, before: 12 });
  const { reference } = sheet.candidate;
  return pdf.end((page, pages) => inWords('page', { reference, page, pages }));
}
