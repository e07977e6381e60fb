import type { Page } from '../../files/pages';
import type { RichNode } from '../shared/richText';

/** The most that can be asked for. More can be given (a joined phone and the desk add pages at once): nothing is lost. */
export const MOST_PAGES = 20;
/** The desk adds none beyond this; with what phones may send besides (`MOST_PHONE_PAGES`) an answer can still be kept. */
export const MOST_DESK_PAGES = 2 * MOST_PAGES;

export interface UploadShown {
  readonly pagesFrom: number;
  readonly pagesTo: number;
  readonly text: boolean;
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export interface UploadResponse {
  readonly pages: readonly Page[];
  /** So many pages of joined phones, in the order of their arrival, were taken in; what came since follows the others. */
  readonly joined: number;
  readonly text: RichNode;
}
