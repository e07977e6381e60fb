/** What is wrong with a formula of an author. Candidates never read it. */
export const formula = {
  unreadable: 'The formula “{{text}}” cannot be read.',
  tooLong: 'A formula is longer than {{most}} characters.',
  figure: 'A number in “{{text}}” is not a plain decimal of up to fifteen digits.',
  operator: 'A formula cannot use “{{operator}}”. It knows + − * / and comparisons.',
  function: 'A formula does not know “{{name}}”. It knows sum, min, max, abs, round and a ? b : c.',
  places: 'The places of round(…) are a whole number from 0 to 10.',
  noCondition: 'A condition compares two values: <, <=, >, >=, == or !=.',
  noPart: 'It uses part {{part}}, which this question does not have.',
  circle: 'They use each other in a circle: {{names}}.',
  noName: 'A formula uses “{{name}}”, which is not a cell with a number.',
};
