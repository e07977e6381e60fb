import { chartProblem } from '../../core/documents/chartValues';
import type { AudioNode, Block, ChartNode, PdfNode, VideoNode } from '../../core/documents/document';
import type { FileFacts, FileOf } from './fileFacts';

export type Given = Readonly<Record<string, string | null | undefined>>;

/** What a directive of media is made from; `refuse` tells the author what is wrong with it. */
export interface MediaAsked {
  readonly given: Given;
  /** What stands inside the directive. */
  readonly blocks: readonly Block[];
  readonly fileOf: FileOf;
  readonly refuse: (code: string, values?: Readonly<Record<string, string | number>>) => void;
}

const said = (given: Given, name: string): string => given[name]?.trim() ?? '';

function fileFor<Is extends FileFacts['is']>(
  { given, fileOf, refuse }: MediaAsked,
  is: Is,
  attribute = 'file',
): Extract<FileFacts, { is: Is }> | null {
  const name = said(given, attribute);
  const found = fileOf(name);
  if (found?.is === is) return found as Extract<FileFacts, { is: Is }>;
  refuse(found === null ? 'noFile' : `not-${is}`, { file: name });
  return null;
}

/** The attributes that must be there; tells which one is not. */
function needed<Name extends string>(
  { given, refuse }: MediaAsked,
  directive: string,
  names: readonly Name[],
): Record<Name, string> | null {
  const missing = names.filter((name) => said(given, name) === '');
  for (const name of missing) refuse('noAttribute', { directive, name });
  if (missing.length > 0) return null;
  return Object.fromEntries(names.map((name) => [name, said(given, name)])) as Record<Name, string>;
}

/** A whole number from 1 to 20, null where it is left out; anything else is told. */
function playsOf({ given, refuse }: MediaAsked): number | null {
  const plays = said(given, 'plays');
  if (plays === '') return null;
  if (/^(1?[1-9]|10|20)$/.test(plays)) return Number(plays);
  refuse('plays', { plays });
  return null;
}

function audio(asked: MediaAsked): AudioNode | null {
  const attributes = needed(asked, 'audio', ['title']);
  const file = fileFor(asked, 'audio');
  const plays = playsOf(asked);
  if (asked.blocks.length === 0) asked.refuse('noTranscript', { file: said(asked.given, 'file') });
  if (!attributes || !file) return null;
  // A recording that can be heard as often as wanted can be paused, unless the author says otherwise.
  const pausing = said(asked.given, 'pausing') || (plays === null ? 'yes' : 'no');
  return {
    type: 'audio',
    file: file.hash,
    title: attributes.title,
    seconds: file.seconds,
    plays,
    pausing: pausing === 'yes',
    transcript: asked.blocks,
  };
}

function video(asked: MediaAsked): VideoNode | null {
  const attributes = needed(asked, 'video', ['title', 'description']);
  const file = fileFor(asked, 'video');
  const silent = said(asked.given, 'captions') === '' && said(asked.given, 'silent') === 'yes';
  const captions = silent ? null : fileFor(asked, 'captions', 'captions');
  if (!attributes || !file || (!silent && !captions)) return null;
  const { title, description } = attributes;
  return {
    type: 'video',
    file: file.hash,
    title,
    description,
    seconds: file.seconds,
    captions: captions?.hash ?? null,
  };
}

function pdf(asked: MediaAsked): PdfNode | null {
  const attributes = needed(asked, 'pdf', ['title']);
  const file = fileFor(asked, 'pdf');
  return attributes && file
    ? { type: 'pdf', file: file.hash, title: attributes.title, pages: file.pages }
    : null;
}

const CHARTS: readonly string[] = ['line', 'bar', 'points'];

function chart(asked: MediaAsked): ChartNode | null {
  const { blocks, given, refuse } = asked;
  const attributes = needed(asked, 'chart', ['title', 'description', 'across', 'up']);
  const [table, more] = blocks;
  const kind = said(given, 'kind') || 'line';
  if (!CHARTS.includes(kind)) refuse('chartKind', { kind });
  if (table?.type !== 'table' || more) {
    refuse('chartTable');
    return null;
  }
  const problem = chartProblem(kind as ChartNode['chart'], table);
  if (problem) refuse(problem.code, problem.values);
  if (!attributes || !CHARTS.includes(kind)) return null;
  return { type: 'chart', chart: kind as ChartNode['chart'], ...attributes, table };
}

/** The directives that bring media and charts, by name. */
export const mediaNodes: Readonly<Record<string, (asked: MediaAsked) => Block | null>> = {
  audio,
  video,
  pdf,
  chart,
};
