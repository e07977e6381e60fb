export const messages = {
  empty: 'Put these in order, or keep them as they stand',
  misfit: 'Each item stands once in the order',
  ruleExact: 'Marks are given only when the whole order is right.',
  rulePairs: 'Each two neighbours in the right order earn a share.',
  ruleRank: 'The nearer to the right order, the more of the marks.',
  places: '{{places}} of {{all}} stand in their place.',
  notEachOnce: 'The right order does not hold each item once.',
  alreadyRight: 'The items already stand in the right order.',
};
