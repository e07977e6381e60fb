export const messages = {
  empty_one: 'Join this entry to its partner',
  empty_other: 'Join the {{count}} entries on the left to their partners',
  open_one: '“{{text}}” has no partner yet',
  open_other: '{{count}} entries have no partner yet; the first is “{{text}}”',
  unknown: 'There is no such entry',
  twice: 'You can use an entry on the right only once',
  rule: 'Each pair is marked separately.',
  ruleLeftOver:
    'Each entry is marked separately. An entry without a partner is right if you leave it without one.',
  keyUnknown: 'The key joins an entry that does not exist.',
  keyTwice: 'The key uses an entry on the right twice, but it can be used only once.',
  nothingRight: 'The key has no pair.',
  someLeft: 'The right answer leaves an entry without a partner, but candidates must join every entry.',
};
