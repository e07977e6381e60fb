import { words } from '../words';

export const t = words('documents', {
  line: 'Line {{number}}',
  meaning: 'Meaning',
  picture: 'Picture',
  enlarge: 'Enlarge',
  enlargeName: 'Enlarge: {{name}}',
  close: 'Close',
  zoomIn: 'Zoom in',
  zoomOut: 'Zoom out',
  fit: 'Fit',
  moveKeys: 'Move with the arrow keys, zoom with + and −.',
  chart: 'Chart',
  showTable: 'Show as a table',
  showChart: 'Show as a chart',
  recording: 'Recording',
  seconds: '{{count}} s',
  minutesSeconds: '{{minutes}} min {{seconds}} s',
  playsLeft_one: 'You can play it {{left}} more time (limit: {{all}})',
  playsLeft_other: 'You can play it {{left}} more times (limit: {{all}})',
  noPlayText: 'Every play is used. If you could not hear it, the invigilator can let you play it once more.',
  playElsewhere:
    'Another device of yours has one play ready. If you did not use it there, it comes back as soon as that device has a connection. If that device is switched off, ask the invigilator for it.',
  noPlayAlone: 'Every play is used.',
  askForPlay: 'Ask for one more play',
  playAsked: 'You asked the invigilator. You are told here when you can play it again.',
  playsNone: 'You have played it {{all}} times, which is the limit',
  number1: 'one',
  number2: 'two',
  number3: 'three',
  number4: 'four',
  number5: 'five',
  number6: 'six',
  anyPlays: 'You can play it as often as you like',
  noPausing: 'You cannot pause it or play a part of it again.',
  play: 'Play',
  playCounted: 'Play – counts as one time',
  pause: 'Pause',
  goOn: 'Continue',
  starting: 'Starting …',
  playing: 'Playing',
  position: 'Position in {{title}}',
  positionText: '{{at}} of {{all}}',
  volume: 'Volume',
  soundCheck: 'First check that you hear sound. The test tone does not count.',
  testTone: 'Play a test tone',
  heardTone: 'I hear the tone',
  waitsPlay: 'You need a connection to play it again. We keep trying.',
  brokenOff:
    'The recording stopped early. It counts as played. If you could not hear it, raise a hand: the invigilator can let you play it again.',
  'trouble no-file': 'The recording is not on this device. Raise a hand.',
  'trouble not-played':
    'The recording cannot be played on this device. It did not count as played. Raise a hand.',
  'trouble not-ready': 'You need a connection to play it again. It did not count as played.',
  otherPlays: 'Another recording is playing.',
  transcript: 'Transcript of “{{title}}”',
  video: 'Video',
  videoSeen: 'Description of the video',
  captions: 'Captions',
  captionsOn: 'Captions on',
  captionsOff: 'Captions off',
  speed: 'Speed',
  fileMissing: 'This file is not on this device. Raise a hand.',
  pdf: 'Document',
  page: 'Page',
  pageOf: 'of {{all}}',
  previousPage: 'Previous page',
  nextPage: 'Next page',
  search: 'Search the document',
  searchNext: 'Next result',
  searchPrevious: 'Previous result',
  found_one: '{{at}} of {{count}} result',
  found_other: '{{at}} of {{count}} results',
  notFound: 'Not found',
  pdfTrouble: 'The document cannot be shown on this device. Raise a hand.',
  opening: 'Opening …',
  phraseChosen: 'chosen',
});

const NUMBERS = ['number1', 'number2', 'number3', 'number4', 'number5', 'number6'] as const;

/** A small number as a word. */
export const numberWord = (n: number): string => {
  const key = NUMBERS[n - 1];
  return key === undefined ? String(n) : t(key);
};

/** A length as it is said: `1 min 12 s`. */
export const lengthWords = (seconds: number): string => {
  const whole = Math.round(seconds);
  return whole < 60
    ? t('seconds', { count: whole })
    : t('minutesSeconds', { minutes: Math.floor(whole / 60), seconds: whole % 60 });
};
