import { words } from '../messages/words';

words('attempts', {
  one: 'You have one attempt.',
  several_one: 'You have {{count}} attempt.',
  several_other: 'You have {{count}} attempts.',
  left_one: 'You have used {{used}} of {{all}} attempts; {{count}} is left.',
  left_other: 'You have used {{used}} of {{all}} attempts; {{count}} are left.',
  best: 'The best attempt counts.',
  latest: 'The latest attempt counts, even if an earlier one was better.',
  first: 'The first attempt counts.',
  mean: 'Your result is the mean of all your attempts.',
  empty: 'An attempt that you start and leave empty is an attempt like any other.',
  pause: 'Between two attempts you have to wait {{length}}.',
});
