import { documentAsText } from '../../core/documents/documentAsText';
import { dateOf, LOCALE } from '../../core/messages/dates';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { message } from '../../core/messages/message';
import { say } from '../../core/messages/words';
import { showMarks } from '../../core/marks';
import {
  answerOnSheet,
  type ResultComponent,
  type ResultPart,
  type ResultQuestion,
  type ResultSheet,
} from '../../core/results/resultSheet';

const SOFT = '#52606D';
const KELP = '#12564F';
const SLATE = '#33475B';
const LINE = '#DDD9CE';
const BAR_WIDTH = 220;

const day = (at: number) => dateOf(at, { locale: LOCALE, timeZone: 'UTC' });
const outOf = (hundredths: number, of: number) => `${showMarks(hundredths)} of ${showMarks(of)}`;

function bars(sheet: ResultSheet): Content {
  const most = Math.max(...sheet.sections.map((s) => s.of));
  const bar = (hundredths: number, of: number): Content => ({
    canvas: [
      { type: 'rect', x: 0, y: 2, w: (BAR_WIDTH * of) / most, h: 8, lineColor: SLATE, lineWidth: 0.6 },
      { type: 'rect', x: 0, y: 2, w: (BAR_WIDTH * Math.max(hundredths, 0)) / most, h: 8, color: SLATE },
    ],
  });
  const rows = sheet.sections.map((s) => [
    `${s.key}  ${s.title}`,
    bar(s.hundredths, s.of),
    outOf(s.hundredths, s.of),
  ]);
  return {
    table: { widths: [130, BAR_WIDTH + 10, '*'], body: rows },
    layout: 'noBorders',
    margin: [0, 4, 0, 10],
  };
}

const verdictWords = (verdict: ResultPart['verdict']) =>
  say(message(`verdict.${verdict === 'follow-through' ? 'followThrough' : verdict.replace(' ', '')}`));

/** A component with its name where a part has several, its level, and its reasons. */
function component(c: ResultComponent, several: boolean): Content[] {
  const words = c.reasons.map(say).join(' ');
  const level = c.level && `${c.level.label}, ${outOf(c.hundredths, c.of)} – ${c.level.says}`;
  if (!several || !c.name) return words ? [{ text: words, style: 'soft' }] : [];
  const found =
    level ?? `${c.verdict ? verdictWords(c.verdict) : ''} · ${outOf(c.hundredths, c.of)} ${words}`;
  return [{ text: `${say(c.name)}: ${found}`, margin: [10, 1, 0, 0] }];
}

function part(p: ResultPart, several: boolean): Content[] {
  const answer = answerOnSheet(p, p.response, say);
  const program = answer.form === 'program' ? 'program' : undefined;
  const lines: Content[] = [
    {
      text: `${several ? `${p.key}  ` : ''}${documentAsText(p.prompt, say)}`,
      bold: true,
      margin: [0, 6, 0, 2],
    },
    {
      ...{ text: answer.text || say(message('sheet.noAnswer')), preserveLeadingSpaces: true },
      ...{ color: answer.text ? undefined : SOFT, style: program },
    },
    {
      text: [`${verdictWords(p.verdict)} · ${outOf(p.hundredths, p.of)}`, ...p.remarks.map(say)].join(' · '),
      style: 'soft',
      margin: [0, 2, 0, 0],
    },
    ...p.components.flatMap((c) => component(c, p.components.length > 1)),
  ];
  if (p.right !== null) {
    const right = answerOnSheet(p, p.right, say).text;
    lines.push({ text: say(message('sheet.right', { answer: right })), color: KELP });
  }
  for (const comment of p.comments)
    lines.push({ text: `“${comment}”`, italics: true, margin: [10, 3, 0, 0] });
  return lines;
}

function question(q: ResultQuestion): Content {
  const head: Content = {
    columns: [
      { text: `Question ${q.number} · ${q.title}`, style: 'question' },
      { text: outOf(q.hundredths, q.of), alignment: 'right', width: 90 },
    ],
    margin: [0, 10, 0, 0],
  };
  const rule: Content = {
    canvas: [{ type: 'line', x1: 0, y1: 2, x2: 500, y2: 2, lineColor: LINE, lineWidth: 0.7 }],
  };
  return { stack: [head, rule, ...q.parts.flatMap((p) => part(p, q.parts.length > 1))] };
}

/** The result sheet as a document for pdfmake. */
export function sheetDocument(sheet: ResultSheet, organisation: string): TDocumentDefinitions {
  const band = sheet.band ? ` · ${sheet.band.title}` : '';
  return {
    info: { title: `Result of ${sheet.candidate.name}: ${sheet.title}`, author: organisation },
    pageSize: 'A4',
    pageMargins: [46, 46, 46, 46],
    defaultStyle: { font: 'Roboto', fontSize: 10, lineHeight: 1.2, color: '#1B2733' },
    styles: {
      name: { fontSize: 20, bold: true },
      total: { fontSize: 22, bold: true, color: KELP },
      question: { fontSize: 12, bold: true },
      soft: { color: SOFT },
      program: { fontSize: 8.5 },
    },
    footer: (page, pages) => ({
      text: `${sheet.candidate.reference} · ${page} of ${pages}`,
      alignment: 'center',
      style: 'soft',
    }),
    content: [
      { text: sheet.candidate.name, style: 'name' },
      {
        text: `${sheet.title} · ${organisation} · sat ${day(sheet.satAt)} · ${sheet.state} ${day(sheet.releasedAt)} · receipt ${sheet.receipt}`,
        style: 'soft',
        margin: [0, 2, 0, 10],
      },
      {
        text: [
          { text: showMarks(sheet.hundredths), style: 'total' },
          ` of ${showMarks(sheet.of)} marks${band}`,
        ],
      },
      bars(sheet),
      ...sheet.questions.map(question),
    ],
  };
}
