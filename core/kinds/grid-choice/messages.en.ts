export const messages = {
  empty_one: 'Choose for this statement',
  empty_other: 'Choose for each of the {{count}} statements',
  open_one: 'Choose for “{{text}}”',
  open_other: '{{count}} statements are open, the first is “{{text}}”',
  unknown: 'There is no such statement or category',
  twice: 'A category is chosen twice for one statement',
  onlyOne: 'Only one category can be chosen for a statement',
  ruleRow: 'Each statement is marked separately.',
  ruleAll: 'A statement earns its marks only if all its categories are right.',
  ruleEach:
    'In each statement a right choice earns a share; a wrong one takes a share away, but never below 0.',
  ruleDecisions:
    'In each statement you earn marks for each right category that you choose and each wrong category that you do not choose.',
  noRight: 'Nothing says what is right for this statement.',
  noStatement: 'The key names a statement that is not asked.',
  rightUnknown: 'A right category is not among the categories, or is named twice.',
  oneRight: 'A statement that takes one category has exactly one right one.',
  emptyRight: 'Nothing applies to this statement, but candidates may not leave it empty.',
  emptyOne: 'Where one category is chosen for each statement, none can stay empty.',
  nothingRight: 'No statement has a right category.',
};
