export const verdict = {
  right: 'right',
  partly: 'partly right',
  wrong: 'wrong',
  unanswered: 'not answered',
  followThrough: 'follows from your own number',
  notmarked: 'marked by assessors in the test',
  withdrawn: 'withdrawn: does not count',
  given: 'full marks',
};

export const sheet = {
  meanOf_one: 'The mark of {{count}} attempt: {{marks}}.',
  meanOf_other:
    'The mean of your {{count}} attempts, which were marked {{marks}}. The answer shown is the latest.',
  meanOfTotals_one: 'The total of {{count}} attempt: {{marks}}.',
  meanOfTotals_other: 'The mean of the totals of your {{count}} attempts: {{marks}}.',
  sectionsOnly:
    'While you have attempts left, you see totals only. You see the questions after your last attempt, or when the test closes.',
  rescored: 'A lead assessor corrected the right answer: {{reason}}',
  remarked: 'This question was marked again.',
  given: 'Full marks were given for this question.',
  scaled: '{{marks}} of {{left}} marks, scaled to {{of}} marks, because part of the test was withdrawn.',
  kept: 'By the questions alone your total would now be {{marks}}. It was higher when your result was released, and it stays.',
  withdrawn: 'A lead assessor withdrew this question: {{reason}}',
  givenFor: 'A lead assessor gave full marks for this question: {{reason}}',
  takenBack: 'A lead assessor took back a correction of this question: {{reason}}',
  override: 'Set by an assessor: {{reason}}',
  byLead: 'A lead assessor changed this mark: {{reason}}',
  beingRead: 'being marked by assessors',
  open: '{{marks}} of these marks are not decided yet. Your total can only go up.',
  attempt: 'Attempt {{number}} · {{day}}: {{marks}}',
  attemptCounts: 'Attempt {{number}} · {{day}}: {{marks}} – counts',
  change: '{{day}} · question {{number}}: {{before}} became {{after}}. {{reason}}',
  changeTotal: '{{day}} · question {{number}}: the total {{before}} became {{after}}. {{reason}}',
  pointFound: '✓ {{point}}',
  pointMissing: '– not found: {{point}}',
  pagePicture: 'Page {{page}} of the answer',
  notePage: 'page {{page}}',
  noteLine: 'line {{from}}',
  noteLines: 'lines {{from}} to {{to}}',
  noAnswer: 'No answer',
  rightLater: 'Right answers are shown when these questions are no longer in use.',
  right: 'The right answer: {{answer}}',
  modelAnswer: 'A model answer: {{answer}}',
  explanation: 'Explanation: {{explanation}}',
  nextLevel: 'Next level:',
  otherLevels: 'Other levels:',
  otherLevel: '{{label}} ({{marks}}): {{says}}',
  between: 'between “{{from}}” and “{{to}}”',
  overall: 'On your whole paper: “{{comment}}”',
  overallFile: 'A file goes with this comment. You find it behind your personal link.',
  yours: 'Your answer',
  marksOf: '{{marks}} of {{of}} marks',
  question: 'Question {{number}} · {{title}} · {{marks}}',
  comment: 'The assessor writes: “{{comment}}”',
  resultOf: 'Result of {{name}}: {{title}}',
  'facts-confirmed': '{{title}} · {{organisation}} · taken on {{sat}} · confirmed {{released}}',
  'facts-provisional': '{{title}} · {{organisation}} · taken on {{sat}} · provisional {{released}}',
  band: 'Band {{title}}, from {{from}}',
  bandNext: 'Band {{title}}, from {{from}}; next from {{next}}',
  receipt: 'Receipt {{code}}',
  page: '{{reference}} · page {{page}} of {{pages}}',
};

export const component = {
  byHand: 'Marked by assessors',
};

export const progress = {
  open: 'Not answered',
};

export const stored = {
  noResponse: 'This answer cannot be read.',
  newerResponse: 'This answer was written by a newer version of the program ({{version}}).',
};
