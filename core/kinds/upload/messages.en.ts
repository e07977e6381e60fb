export const messages = {
  empty: 'Add a page',
  emptyOrType: 'Add a page, or type your answer',
  short_one: 'Add {{count}} more page (at least {{from}})',
  short_other: 'Add {{count}} more pages (at least {{from}})',
  over_one: 'Remove {{count}} page (at most {{to}})',
  over_other: 'Remove {{count}} pages (at most {{to}})',
  pages_one: '{{count}} page',
  pages_other: '{{count}} pages',
  misfit: 'This question does not accept these pages or this text.',
  pagesCross: 'The minimum number of pages is higher than the maximum.',
};
