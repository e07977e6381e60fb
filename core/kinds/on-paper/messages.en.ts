export const messages = {
  empty: 'Do this on paper, then confirm it here',
  done: 'Done on paper',
  noSheet: 'Say what candidates do with the sheet.',
};
