/** What is wrong with the sections of a paper. Candidates never read it. */
export const section = {
  noCount:
    'Some questions of this section belong to the draw “{{draw}}”. Give the number of questions to draw.',
  twice: 'A draw is named twice in this section.',
  tooFew: 'The draw “{{draw}}” has {{of}} questions; {{count}} cannot be drawn from them.',
  marks:
    'The questions of the draw “{{draw}}” are not worth the same. Every candidate must be able to earn the same marks.',
  page: 'In a section with forward-only navigation every question needs a page of its own.',
  twoCalculators: 'A section has one calculator: the basic one or the scientific one.',
};
