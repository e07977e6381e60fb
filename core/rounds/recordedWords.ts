import { words } from '../messages/words';

words('recorded', {
  picture:
    'One picture of you is taken before you start. The staff of the test can see it. It is deleted after {{days}} days.',
  identity:
    'One picture of you and one of your identity document are taken before you start. The staff of the test can see them. They are deleted after {{days}} days.',
  noPicture: 'No picture of you is taken.',
  answers:
    'Your answers and their earlier versions are saved, with the times at which you opened each question and changed an answer.',
  connection:
    'The results of the readiness checks, breaks in the connection, and a reload or change of your device are saved too.',
  programs: 'Programs that you run during the test are not saved; the programs that you write are.',
  noFilm: 'No video and no sound are recorded.',
});
