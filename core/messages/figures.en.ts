/** Why what was typed is no figure here: the problems of `readNumber`, and a minus sign where none is possible. */
export const figure = {
  letters: 'Only a figure belongs here: digits, a minus sign, a decimal sign',
  'several-numbers': 'These are several numbers; enter one',
  'two-separators': 'The commas and points do not fit together',
  ambiguous: 'This can be read in two ways; leave out the sign between thousands, or write more decimals',
  'incomplete-groups': 'The groups of digits are not complete; write the figure without spaces',
  sign: 'The minus sign belongs in front',
  unfinished: 'A digit is missing',
  'too-long': 'This is longer than any figure asked for',
  'scientific-not-asked': 'Write the figure out, without a power of ten',
  'fraction-not-asked': 'Enter a decimal figure, not a fraction',
  'exponent-too-large': 'This exponent is too large',
  'flat-power': 'Write the power of ten with ^, for example 5×10^3',
  'division-by-zero': 'A fraction cannot have 0 below the line',
  noMinus: 'No minus sign is possible here',
};
