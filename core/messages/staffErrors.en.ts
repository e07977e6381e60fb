/** What the API refuses staff; candidates never read it. */
export const staffErrors = {
  notAcceptable: 'This answer cannot be accepted for this question.',
  signedOff: 'The marks of this round are signed off; nothing was changed.',
  signedOffReadmit: 'The marks of this round are signed off; nobody can be readmitted.',
  notYours: 'This script is with another assessor now. Take the next one.',
  notFinished: 'This round cannot be signed off yet.',
  openRunning_one: 'One candidate is still writing.',
  openRunning_other: '{{count}} candidates are still writing.',
  openDecisions_one: 'A coordinator has one decision to make.',
  openDecisions_other: 'A coordinator has {{count}} decisions to make.',
  openScoring_one: 'One script is still being scored.',
  openScoring_other: '{{count}} scripts are still being scored.',
  openMarking_one: 'One answer is unmarked.',
  openMarking_other: '{{count}} answers are unmarked.',
  openNothing: 'Nothing has been handed in.',
  openRescore: 'An accepted answer is still being scored.',
  notFailed: 'This job has not failed, or somebody has already run it again.',
  notStarted: 'This candidate has not started yet.',
  notWaiting: 'This candidate is not waiting to be admitted now.',
  decided: 'Somebody has decided this already; the page shows what is still open.',
  roundOver: 'The window of this round is over; nobody can be invited to it any more.',
  alreadyInvited: '{{email}} is already invited to this round. The letter is in the outbox.',
  referenceTaken:
    'The reference {{reference}} belongs to somebody with another address. Check both, or leave the reference empty.',
  addressKnown:
    '{{email}} belongs to the candidate with the reference {{reference}}. Use that reference, or another address.',
  notOver: 'The results of this round are not out yet; its questions cannot be released for practice before.',
  askedElsewhere:
    'Some questions of this paper are in another round that is scheduled or open. They can be practised when that round is over.',
  notSignedOff: 'The lead assessor has not signed off the marks yet; results cannot go out before.',
  noSecondWall:
    'This paper has programming questions. This server is set to run programs only in isolation, and isolation is not available on it. Ask the administrator of the server to install bubblewrap.',
  paperIssues: 'This paper has questions that cannot be published yet.',
};
