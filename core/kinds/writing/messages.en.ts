export const messages = {
  empty: 'Nothing is written yet',
  short_one: '{{count}} word short of {{from}}',
  short_other: '{{count}} words short of {{from}}',
  over_one: '{{count}} word over {{to}}',
  over_other: '{{count}} words over {{to}}',
  noLimit: 'A hard limit needs a maximum number of words.',
  wordsCross: 'The fewest words are more than the most.',
};
