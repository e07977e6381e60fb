/** The aids of a section, and how one goes through it, in lists and sentences. */
export const aid = {
  'reading-slot': 'reading slot',
  lens: 'lens',
  highlight: 'highlight',
  'strike-out': 'strike out',
  'rough-work': 'rough work',
  calculator: 'calculator',
  'scientific-calculator': 'scientific calculator',
  ruler: 'ruler',
  protractor: 'protractor',
  'read-aloud': 'read aloud',
  meanings: 'meanings of words',
};

export const navigation = {
  free: 'in any order',
  'free, all answered': 'in any order, every question answered before you hand in',
  'forward only': 'forward only',
  'forward only once answered': 'forward only, each question answered first',
};
