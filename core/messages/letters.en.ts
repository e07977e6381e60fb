export const letter = {
  dear: 'Dear {{name}},',
  invitationSubject: 'Your test: {{title}}',
  invited: '{{organisation}} invites you to a remote test: {{title}}.',
  from: 'Opens: {{when}}',
  to: 'Closes: {{when}}',
  here: 'In {{zone}}: {{from}} to {{to}}',
  choose:
    'You can start at any time between these two times. The page behind your link shows them in your time zone.',
  time: 'Time: {{length}}. The clock starts only when you press Start.',
  timeExtra:
    'Time: {{length}}, including {{percent}} % extra time. The clock starts only when you press Start.',
  breaks: 'Breaks: {{minutes}} min in total, whenever you want.',
  reference: 'Your reference: {{reference}}',
  linkSubject: 'Your link: {{title}}',
  linkAsked: 'You asked for a link to your test “{{title}}”. It also shows your other tests.',
  linkOthers:
    'Your earlier links still work. If you did not ask for this link, you do not need to do anything: it was sent to you only.',
  codeSubject: 'Your code: {{title}}',
  codeAsked:
    'You asked to see where your test “{{title}}” stands. Enter this code on the page with your tests:',
  codeSent: '(your code, in the e-mail that was sent)',
  codeUse_one: 'You can use it once, within {{count}} minute.',
  codeUse_other:
    'You can use it once, within {{count}} minutes. If you did not ask for it, you do not need to do anything: it was sent to you only.',
  linkTitle: 'Your personal link – please do not pass it on:',
  linkSent: '(your personal link, in the e-mail that was sent)',
  prepareCamera:
    'What to prepare: a laptop or a phone with a current browser and a camera, a quiet place and a charged battery. The link first opens the readiness checks, which take nothing from your test time. If the window closes or the connection fails, open the same link again. Your answers are saved.',
  prepare:
    'What to prepare: a laptop or a phone with a current browser, a quiet place and a charged battery. The link first opens the readiness checks, which take nothing from your test time. If the window closes or the connection fails, open the same link again. Your answers are saved.',
  recorded: 'What is recorded:',
  calendarTitle: '{{title}}: the time in which you can take your test',
  calendarText: 'Open the personal link in your e-mail at any time in this period.',
  receiptSubject: 'Your receipt: {{title}}',
  handedIn: 'Your paper for “{{title}}” was handed in on {{when}} and is complete.',
  receipt: 'Your receipt: {{code}}',
  receiptUse:
    'Keep this code. On the page behind your personal link you can use it to check that the marked answers are exactly those that you handed in. If part of your answers arrived later, you may have seen an earlier code. The earlier code stays valid.',
  resultBy: 'Your result will be available by {{when}}.',
  'subject-result': 'Your result: {{title}}',
  'subject-resultChanged': 'Your result has changed: {{title}}',
  'subject-checkAnswered': 'Your request for a check is answered: {{title}}',
  'subject-question': 'A question about your test: {{title}}',
  'subject-verdict': 'A decision about your test: {{title}}',
  'notice-result': 'Your result for “{{title}}” is ready.',
  'notice-resultChanged':
    'A question of “{{title}}” was marked again after the results were released, and your marks have changed. The result sheet shows what changed and why.',
  'notice-checkAnswered': 'You asked for a check of your result for “{{title}}”. This is the answer:',
  'notice-question': 'We have a question about your test “{{title}}”. You can answer it on your page.',
  'notice-verdict': 'Your test “{{title}}” was reviewed. This is the decision:',
  noticeLink: 'Open your personal link from the invitation to read everything.',
};
