import type { Document } from '../../documents/document';

export interface OnPaperShown {
  /** What to do with the sheet: where it is, how it is marked, who collects it. */
  readonly sheet: Document;
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

/** The candidate says that the work on paper is done. */
export interface OnPaperResponse {
  readonly done: boolean;
}
