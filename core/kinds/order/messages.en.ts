export const messages = {
  empty: 'Put these in order, or confirm the order shown',
  misfit: 'Each item must appear once in the order',
  ruleExact: 'You earn marks only if the whole order is right.',
  rulePairs: 'You earn marks for each pair of neighbours in the right order.',
  ruleRank: 'You earn more marks the closer you are to the right order.',
  places: '{{places}} of {{all}} are in the right place.',
  notEachOnce: 'The right order must contain each item once.',
  alreadyRight: 'The items are already shown in the right order.',
};
