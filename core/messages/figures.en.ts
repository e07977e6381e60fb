/** Why what was typed is no figure here: the problems of `readNumber`, and a minus sign where none is possible. */
export const figure = {
  letters: 'Enter a number: digits, a minus sign, a decimal point or comma',
  'several-numbers': 'These are several numbers; enter only one',
  'two-separators': 'The commas and points do not fit together',
  ambiguous:
    'This can be read in two ways; remove the sign between the thousands, or write more decimal places',
  'incomplete-groups': 'The groups of digits are not complete; write the number without spaces',
  sign: 'Put the minus sign in front',
  unfinished: 'A digit is missing',
  'too-long': 'This is too long',
  'scientific-not-asked': 'Write the number in full, without a power of ten',
  'fraction-not-asked': 'Enter a decimal number, not a fraction',
  'exponent-too-large': 'This exponent is too large',
  'flat-power': 'Write the power of ten with ^, for example 5×10^3',
  'division-by-zero': 'A fraction cannot have 0 below the line',
  noMinus: 'A minus sign is not allowed here',
};
