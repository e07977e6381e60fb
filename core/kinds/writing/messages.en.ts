export const messages = {
  empty: 'Write your answer',
  short_one: 'Write {{count}} more word (at least {{from}})',
  short_other: 'Write {{count}} more words (at least {{from}})',
  over_one: 'Delete {{count}} word (at most {{to}})',
  over_other: 'Delete {{count}} words (at most {{to}})',
  noLimit: 'A hard limit needs a maximum number of words.',
  wordsCross: 'The minimum is higher than the maximum.',
};
