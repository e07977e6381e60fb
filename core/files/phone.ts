import type { Page, PageState } from './pages';

/** What the page of a joined phone is told. */
export interface PhoneView {
  readonly now: number;
  /** When it is joined no longer. */
  readonly until: number;
  /** Which question the pages are for. */
  readonly question: number;
  readonly title: string;
  /** Null where the question has one part. */
  readonly part: string | null;
  /** All that phones have sent for this part, in the order of arrival. */
  readonly pages: readonly (Page & { readonly state: PageState | null })[];
}

/** Handed to the desk alone, for the QR code. */
export interface PhoneOpened {
  readonly secret: string;
  readonly until: number;
}
