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
  wrong: 'not accepted',
  accept: 'Accept',
  acceptOf: 'Accept “{{answer}}”',
  acceptTitle: 'Accept “{{answer}}” from now on?',
  acceptText:
    'It then counts as right in every script, also in those that are handed in later. The published question does not change. Your decision and reason are recorded with it.',
  looking: 'Looking at what would change …',
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
    'The results of {{count}} of them are out: the sheets say what changed, and the candidates are told by letter.',
  rescoring: 'Scored anew: {{done}} of {{of}} scripts',
  reason: 'Reason, kept on record',
  keep: 'Leave it as it is',
  working: 'Scripts are being scored anew. Load the page again to see the new counts.',
});
