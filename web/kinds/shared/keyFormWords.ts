import { words } from '../../words';

export const t = words('keyForm', {
  right: 'The right option',
  rightSeveral: 'The right options',
  figures: 'Numbers that earn marks',
  figure: 'Number',
  share: 'Share of the marks in per cent',
  addFigure: 'Add a number',
  removeFigure: 'Remove {{figure}}',
  within: 'Accepted within',
  gap: 'Gap {{number}}',
  gapWords: 'Gap {{number}}: accepted words, one on each line',
  groups: 'Shares of the groups of cases',
  groupHint: 'The marks are divided among the groups in these proportions.',
});
