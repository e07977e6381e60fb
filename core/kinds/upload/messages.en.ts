export const messages = {
  empty: 'Add a page',
  emptyOrType: 'Add a page, or type your answer',
  short_one: 'Add {{count}} more page: at least {{from}} are asked for',
  short_other: 'Add {{count}} more pages: at least {{from}} are asked for',
  over_one: 'Remove {{count}} page: at most {{to}} are taken',
  over_other: 'Remove {{count}} pages: at most {{to}} are taken',
  pages_one: '{{count}} page',
  pages_other: '{{count}} pages',
  misfit: 'The answer holds pages or text that this question does not take.',
  pagesCross: 'The fewest pages are more than the most.',
};
