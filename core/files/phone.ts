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

/** Handed to the desk alone, for the QR code and to be typed. */
export interface PhoneOpened {
  readonly secret: string;
  /** For a phone that cannot read a QR code: eight signs in two groups, typed once. */
  readonly code: string;
  readonly until: number;
}
