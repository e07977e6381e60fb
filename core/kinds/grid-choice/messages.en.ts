export const messages = {
  empty_one: 'Choose for this statement',
  empty_other: 'Choose for each of the {{count}} statements',
  open_one: 'Choose for “{{text}}”',
  open_other: '{{count}} statements are not answered; the first is “{{text}}”',
  unknown: 'There is no such statement or category',
  twice: 'A category is chosen twice for one statement',
  onlyOne: 'You can choose only one category for a statement',
  ruleRow: 'Each statement is marked separately.',
  ruleAll: 'A statement earns its marks only if all its categories are right.',
  ruleEach:
    'In each statement a right choice adds marks and a wrong choice takes marks away. You cannot get less than 0 for a statement.',
  ruleDecisions:
    'In each statement you earn marks for each right category that you choose and each wrong category that you do not choose.',
  noRight: 'This statement has no right answer.',
  noStatement: 'The key names a statement that is not asked.',
  rightUnknown: 'A right category is not among the categories, or is named twice.',
  oneRight: 'A statement that takes one category has exactly one right one.',
  emptyRight: 'The right answer leaves this statement empty, but candidates must answer every statement.',
  emptyOne: 'If candidates choose one category for each statement, no statement can stay empty.',
  nothingRight: 'No statement has a right category.',
};
