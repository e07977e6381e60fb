export const messages = {
  empty: 'Put these in order, or keep them as they stand',
  misfit: 'Each item stands once in the order',
  ruleExact: 'Marks are given only when the whole order is right.',
  rulePairs: 'Each pair of neighbours in the right order earns a share.',
  ruleRank: 'The closer to the right order, the more marks.',
  places: '{{places}} of {{all}} are in the right place.',
  notEachOnce: 'The right order does not hold each item once.',
  alreadyRight: 'The items already stand in the right order.',
};
