import { describe, expect, it } from 'vitest';
import type { CheckName } from '../arrival/checks';
import { takesPicture } from '../arrival/picture';
import { say } from '../messages/words';
import { recordedOf } from './recorded';

describe('what is recorded', () => {
  it.each<[readonly CheckName[], boolean, RegExp]>([
    [
      ['browser', 'camera'],
      false,
      /^One picture of you is taken before you start\. .* deleted after 60 days\./,
    ],
    [['browser'], false, /^No picture of you is taken\./],
    [[], true, /^One picture of you and one of your identity document are taken/],
    [['camera'], true, /^One picture of you and one of your identity document are taken/],
  ])('of a round with the checks %j and a picture of a document %s', (checks, identityPicture, sentence) => {
    const settings = { checks, identityPicture, keptDays: 60 };
    const told = recordedOf(settings, false).map(say).join(' ');
    expect(told).toMatch(sentence);
    // The picture is announced exactly where the arrival takes one.
    expect(/No picture/.test(told)).toBe(!takesPicture(settings));
    expect(told).toMatch(/earlier versions .* times at which you opened each question/);
    expect(told).not.toMatch(/Programs that you run/);
  });

  it('names programs where there are some to write', () =>
    expect(recordedOf({ checks: [], identityPicture: false, keptDays: 1 }, true).map(say).join(' ')).toMatch(
      /Programs that you run during the test are not saved/,
    ));
});
