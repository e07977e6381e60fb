/** What a row of a list is about. */
export const rowLink =
  'font-semibold text-ink underline decoration-line underline-offset-4 hover:decoration-ink';

/** A link that looks like the first button of a page. */
export const firstLink =
  'inline-flex min-h-10 items-center gap-2 rounded-control bg-kelp px-3.5 font-semibold text-white hover:bg-kelp-deep';
