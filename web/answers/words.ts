import { words } from '../words';

export const t = words('answers', {
  title: 'What was answered',
  back: 'Sign-off',
  part: 'Question {{number}} · {{title}}',
  partOf: 'Question {{number}} {{part}} · {{title}}',
  choose: 'Question',
  facts: '{{answered}} of {{scripts}} scripts answered this',
  nothing: 'Nobody has answered this yet.',
  answer: 'Answer',
  where: 'In',
  count: 'Scripts',
  found: 'Counts as',
  right: 'right',
  wrong: 'wrong',
  accept: 'Accept',
  acceptOf: 'Accept “{{answer}}”',
  acceptTitle: 'Accept “{{answer}}” from now on?',
  acceptText:
    'It then counts as right in every script, also in those that are handed in later. The published question does not change. Your decision and reason are recorded with it.',
  looking: 'Finding the changes …',
  changes_one: '{{count}} of {{scripts}} scripts changes its marks:',
  changes_other: '{{count}} of {{scripts}} scripts change their marks:',
  change: '{{script}}: {{before}} → {{after}}',
  more: 'and {{count}} more',
  none: 'No script changes its marks.',
  toBand: ', {{band}}',
  acrossBands_one: '{{count}} script reaches another band.',
  acrossBands_other: '{{count}} scripts reach another band.',
  releasedScripts_one:
    '{{count}} of these results is released. The result sheet shows the change, and the candidate gets an e-mail.',
  releasedScripts_other:
    '{{count}} of these results are released. The result sheets show the change, and the candidates get an e-mail.',
  rescoring: 'Marked again: {{done}} of {{of}} scripts',
  reason: 'Reason (kept on record)',
  keep: 'Cancel',
  working: 'Scripts are being marked again. The counts change when this is finished.',
});
