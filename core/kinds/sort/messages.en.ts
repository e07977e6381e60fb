export const messages = {
  empty: 'Put each of the {{count}} entries where it belongs',
  emptySome: 'Put the entries where they belong; some may be left over',
  open_one: '“{{text}}” is not placed yet',
  open_other: '{{count}} entries are not placed yet, the first is “{{text}}”',
  unknown: 'There is no such entry or place for it',
  twice: 'An entry stands in two places',
  tooMany_one: '“{{text}}” holds no more than {{count}}',
  tooMany_other: '“{{text}}” holds no more than {{count}}',
  rule: 'Each entry is marked separately.',
  ruleLeftOver:
    'Each entry is marked separately. An entry that belongs nowhere is right if you leave it over.',
  noBin: 'The key names a bin that is not there.',
  rightUnknown: 'The key names an entry that is not there, or one twice.',
  overLimit: 'More entries belong into this bin than it holds.',
  nothingRight: 'Nothing belongs into any bin.',
  rightTwice: 'An entry belongs into two bins, but can be used only once.',
  someLeft: 'An entry belongs nowhere, but candidates may leave none over.',
};
