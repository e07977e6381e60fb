import type { RichNode } from '../shared/richText';

export interface WritingShown {
  readonly format: 'plain' | 'rich';
  readonly wordsFrom: number | null;
  readonly wordsTo: number | null;
  readonly limit: 'soft' | 'hard';
  /** Candidates read by what their writing is judged, and what each is worth; not the levels or the scheme. */
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export interface WritingResponse {
  readonly text: RichNode;
}
