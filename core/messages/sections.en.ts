/** What is wrong with the sections of a paper. Candidates never read it. */
export const section = {
  noCount:
    'Some questions of this section belong to the draw “{{draw}}”. Give the number of questions to draw.',
  twice: 'A draw is named twice in this section.',
  tooFew: 'The draw “{{draw}}” has {{of}} questions; {{count}} cannot be drawn from them.',
  marks:
    'The questions of the draw “{{draw}}” are not worth the same. Every candidate must be able to earn the same marks.',
  page: 'In a section with forward-only navigation every question needs a page of its own.',
  notByMachine:
    'An adaptive section scores each answer at once. Use a kind of question that needs no assessor and runs no program.',
  wholeMarks: 'In an adaptive section the marks of a part are whole marks.',
  noMeasures: 'A question of an adaptive section needs “measures”: its topic and its difficulty.',
  noTopic: 'The section does not name the topic “{{topic}}”. Add it to its topics, or change the topic here.',
  thresholds: 'There are {{given}} thresholds for {{steps}} marks. Give one threshold for each mark.',
  shares: 'The shares of the topics add up to {{sum}} %. They must add up to 100 %.',
  topicTwice: 'A topic is named twice.',
  fewOfTopic:
    'The topic “{{topic}}” has {{has}} questions; a section of the greatest length should have {{wanted}} of them.',
  lengths: 'The least length is more than the greatest length.',
  poolShort: 'The pool has {{has}} questions; the greatest length is {{wanted}}.',
  exposure:
    'With this exposure limit and length the pool should have {{enough}} questions; it has {{has}}. The limit will often be given up.',
  levels: 'Levels must rise from the lowest to the highest.',
  adaptiveForward: 'An adaptive section has the navigation “forward only”.',
  adaptiveDraws:
    'An adaptive section chooses its questions itself. Remove its draws, its shuffling and the pages of its questions.',
  adaptiveMinutes: 'An adaptive section needs a time limit of its own.',
  twoCalculators: 'A section has one calculator: the basic one or the scientific one.',
};
