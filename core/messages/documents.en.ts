export const document = {
  picture: '[Picture: {{description}}]',
  link: 'A link would lead away from the test. Write the address as plain text.',
  noDescription: 'The picture {{file}} has no description for people who cannot see it.',
  noFile: 'There is no file {{file}}.',
  noMeaning: 'The word “{{word}}” has no meaning: write :meaning[{{word}}]{says="…"}.',
  noPhraseKey:
    'The phrase “{{phrase}}” has no key: write :phrase[{{phrase}}]{#key}, in small letters, digits and hyphens.',
  samePhraseKey: 'Two phrases have the key {{key}}.',
  noLanguage: 'The language “{{of}}” is not known. Write its short name, such as {of=ar}.',
  noFormula: 'A formula has no notation: write :formula{tex="…" says="…"}.',
  formulaUnread: 'The formula “{{tex}}” cannot be read: {{problem}}',
  dollar: 'This was read as an amount of money, not as a formula: {{text}}. Write $$…$$ for a formula.',
  notPossible: 'This cannot be shown in a test: {{text}}',
  tooLong: 'This text has more than {{most}} characters.',
  tooMuch: 'This text has more than {{most}} pieces of formatting.',
  tooDeep: 'This text is nested more than {{most}} levels deep.',
};
