export const messages = {
  empty: 'Do this on paper, then confirm it here',
  done: 'Done on paper',
  noSheet: 'Nothing says what to do with the sheet.',
};
