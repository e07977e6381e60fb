/** The questionnaire after a test, for candidates and for the staff who read the answers. */
export const experienceWords = {
  'experience instructions': 'The instructions were clear.',
  'experience time': 'I had enough time.',
  'experience program': 'The website worked well.',
  'experience questions': 'The questions fitted the job or course.',
  'level 1': 'No',
  'level 2': 'Mostly not',
  'level 3': 'Partly',
  'level 4': 'Mostly',
  'level 5': 'Yes',
} as const;
