export const letter = {
  dear: 'Dear {{name}},',
  invitationSubject: 'Your test: {{title}}',
  invited: '{{organisation}} invites you to a remote test: {{title}}.',
  from: 'Opens: {{when}}',
  to: 'Closes: {{when}}',
  here: 'In {{zone}}: {{from}} to {{to}}',
  choose:
    'You choose when to begin between these two times. The page behind your link shows them in your own time zone.',
  time: 'Time: {{length}}. The clock starts only when you press Start.',
  timeExtra:
    'Time: {{length}}, including {{percent}} % extra time. The clock starts only when you press Start.',
  breaks: 'Breaks: {{minutes}} min in all, whenever you want.',
  reference: 'Your reference: {{reference}}',
  linkTitle: 'Your personal link – please do not pass it on:',
  linkSent: '(your personal link, in the letter that was sent)',
  prepareCamera:
    'What to prepare: a laptop or a phone with a current browser and a camera, a quiet place, a charged battery. The link leads to readiness checks first; they cost no time. If the window or the connection closes, open the same link again: your answers are kept.',
  prepare:
    'What to prepare: a laptop or a phone with a current browser, a quiet place, a charged battery. The link leads to readiness checks first; they cost no time. If the window or the connection closes, open the same link again: your answers are kept.',
  recorded: 'What is recorded:',
  calendarTitle: '{{title}}: the window of your test',
  calendarText: 'Open the personal link in your letter at any time in this window.',
  receiptSubject: 'Your receipt: {{title}}',
  handedIn: 'Your paper for “{{title}}” was handed in on {{when}} and is complete.',
  receipt: 'Your receipt: {{code}}',
  receiptUse:
    'Keep this code. With it you can check on the page behind your personal link that what is marked is exactly what you handed in. If part of your answers came in later, you may have seen an earlier code; that one stays valid too.',
  resultBy: 'Your result will be available by {{when}}.',
  'subject-result': 'Your result: {{title}}',
  'subject-resultChanged': 'Your result has changed: {{title}}',
  'subject-checkAnswered': 'Your request for a check is answered: {{title}}',
  'subject-question': 'A question about your sitting: {{title}}',
  'subject-verdict': 'A decision on your sitting: {{title}}',
  'notice-result': 'Your result for “{{title}}” is ready.',
  'notice-resultChanged':
    'A question of “{{title}}” was marked again after the results were out, and your marks have changed. The result sheet shows what changed, and why.',
  'notice-checkAnswered': 'You asked for a check of your result for “{{title}}”. This is the answer:',
  'notice-question': 'We have a question about your sitting of “{{title}}”. You can answer it on your page.',
  'notice-verdict': 'Your sitting of “{{title}}” was reviewed. This is the decision:',
  noticeLink: 'Open your personal link from the invitation to read everything.',
};
