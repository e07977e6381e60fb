export const messages = {
  empty: 'Put each of the {{count}} entries where it belongs',
  emptySome: 'Put the entries where they belong; you may leave some over',
  open_one: '“{{text}}” is not placed yet',
  open_other: '{{count}} entries are not placed yet; the first is “{{text}}”',
  unknown: 'There is no such entry or bin',
  twice: 'An entry is in two bins',
  tooMany_one: '“{{text}}” takes only {{count}}',
  tooMany_other: '“{{text}}” takes only {{count}}',
  rule: 'Each entry is marked separately.',
  ruleLeftOver:
    'Each entry is marked separately. An entry that belongs nowhere is right if you leave it over.',
  noBin: 'The key names a bin that does not exist.',
  rightUnknown: 'The key names an entry that does not exist, or names one twice.',
  overLimit: 'More entries belong in this bin than it can take.',
  nothingRight: 'No entry belongs in any bin.',
  rightTwice: 'An entry belongs in two bins, but candidates can use it only once.',
  someLeft: 'The right answer leaves an entry over, but candidates must place every entry.',
};
