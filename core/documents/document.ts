/**
 * The text of questions, sources and rules as a tree. Authors write Markdown; it is parsed on the server when a paper is
 * published. Trees are drawn by components, never through HTML, so that nothing in a text can run.
 */
export type Inline =
  | { readonly type: 'text'; readonly text: string }
  | { readonly type: 'break' }
  | { readonly type: 'strong' | 'emphasis' | 'deleted'; readonly children: readonly Inline[] }
  | { readonly type: 'code'; readonly text: string }
  | FormulaNode
  /** A phrase of a source that can be chosen or picked up, by its key. */
  | { readonly type: 'phrase'; readonly key: string; readonly children: readonly Inline[] }
  /** A word with its definition. */
  | { readonly type: 'meaning'; readonly says: string; readonly children: readonly Inline[] }
  | (Tongue & { readonly type: 'language'; readonly children: readonly Inline[] });

/** A formula in the notation of TeX; `says` is how it is read aloud, null where its own notation has to do. */
export interface FormulaNode {
  readonly type: 'formula';
  readonly tex: string;
  readonly says: string | null;
}

/** Words in another language: its BCP 47 tag, and the direction in which it is written. */
export interface Tongue {
  readonly lang: string;
  readonly dir: 'ltr' | 'rtl';
}

export interface TableNode {
  readonly type: 'table';
  readonly align: readonly ('left' | 'center' | 'right' | null)[];
  readonly head: readonly (readonly Inline[])[];
  readonly rows: readonly (readonly (readonly Inline[])[])[];
}

export interface PictureNode {
  readonly type: 'picture';
  /** SHA-256 of the bytes, in hexadecimal. */
  readonly file: string;
  /** For people who cannot see it; never empty. */
  readonly description: string;
  readonly caption: string | null;
}

/** A chart drawn from its table: the first column runs along the horizontal axis, each other one is a series. */
export interface ChartNode {
  readonly type: 'chart';
  readonly chart: 'line' | 'bar' | 'points';
  readonly title: string;
  /** What it shows, for people who cannot see it; never empty. */
  readonly description: string;
  /** Names of the horizontal and of the vertical axis, with their units. */
  readonly across: string;
  readonly up: string;
  readonly table: TableNode;
}

/** Media are files by the SHA-256 of their bytes, in hexadecimal; `seconds` is how long they last. */
export interface AudioNode {
  readonly type: 'audio';
  readonly file: string;
  readonly title: string;
  readonly seconds: number;
  /** How often it can be played; null for as often as wanted. Plays are counted by file. */
  readonly plays: number | null;
  /** Whether it can be paused and wound back; one with a limit of plays usually cannot. */
  readonly pausing: boolean;
  /** What is said, for candidates who read it instead of hearing it; null in every other copy. */
  readonly transcript: readonly Block[] | null;
}

/** What takes the place of a recording in the copy of a candidate with that arrangement. */
export interface TranscriptNode {
  readonly type: 'transcript';
  readonly title: string;
  readonly blocks: readonly Block[];
}

export interface VideoNode {
  readonly type: 'video';
  readonly file: string;
  readonly title: string;
  readonly seconds: number;
  /** WebVTT, a file of its own; null only where nothing is heard. */
  readonly captions: string | null;
  /** What is seen, for people who cannot see it; never empty. */
  readonly description: string;
}

export interface PdfNode {
  readonly type: 'pdf';
  readonly file: string;
  readonly title: string;
  readonly pages: number;
}

export interface LinesNode {
  readonly type: 'lines';
  /** The number of the first line. */
  readonly start: number;
  /** An empty one parts two groups of lines and has no number. */
  readonly lines: readonly (readonly Inline[])[];
}

export interface ListNode {
  readonly type: 'list';
  readonly ordered: boolean;
  readonly start: number;
  readonly items: readonly (readonly Block[])[];
}

export type Block =
  | { readonly type: 'paragraph'; readonly children: readonly Inline[] }
  | { readonly type: 'heading'; readonly level: 1 | 2 | 3; readonly children: readonly Inline[] }
  | ListNode
  | { readonly type: 'quote'; readonly blocks: readonly Block[] }
  | TableNode
  | { readonly type: 'code'; readonly text: string }
  | FormulaNode
  | { readonly type: 'divider' }
  | PictureNode
  | ChartNode
  | AudioNode
  | TranscriptNode
  | VideoNode
  | PdfNode
  | LinesNode
  | (Tongue & { readonly type: 'language'; readonly blocks: readonly Block[] });

export interface Document {
  /** Of the shape of stored trees. */
  readonly format: 1;
  readonly blocks: readonly Block[];
}

export const emptyDocument: Document = { format: 1, blocks: [] };

/** Plain words as a document: a paragraph, nothing of it read as Markdown. */
export const plainDocument = (text: string): Document =>
  text === ''
    ? emptyDocument
    : { format: 1, blocks: [{ type: 'paragraph', children: [{ type: 'text', text }] }] };
