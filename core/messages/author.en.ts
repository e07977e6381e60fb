/** What authors have written, and what is said to them of any kind of part. */
export const messages = {
  text: '{{text}}',
  misshapen: 'This value is not allowed: {{problem}}.',
  rubricSum: 'The highest levels of the rubric do not add up to the marks of the part.',
  criterionTwice: 'Two criteria of the rubric have the same key.',
  criteriaDiffer: 'The criteria shown to candidates differ from the rubric.',
  componentSum: 'The components do not add up to the marks of the part.',
  rightEarnsLess: 'The right answer to this part earns {{earned}} of its {{of}} marks.',
  sameKey: 'Two entries have the same key.',
  noPhrase: 'The source has no phrase with the key “{{key}}”.',
  sameComponent: 'Two components have the same key.',
};
