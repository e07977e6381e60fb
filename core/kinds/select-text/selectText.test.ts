import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import { selectText } from './candidate';
import { selectTextKey } from './key';
import { pressed } from './response';
import { samples } from './samples';

const [one, open] = [samples[0]!.content, samples[1]!.content];
const two = {
  asked: { passages: [{ ...one.asked.passages[0]!, limit: 2 }] },
  key: { right: ['alarm', 'cooler'] },
};
const credits = (content: typeof one, chosen: string[], marks = 200) =>
  creditsOf(selectTextKey, { content, response: { chosen }, marks });

describe('select text', () => {
  // Two passages with a mark each; right are alarm of three, and bay of two. Without a limit cooler is right as well.
  it.each([
    ['both right', one, ['alarm', 'bay'], [100, 100]],
    ['one wrong', one, ['alarm', 'door'], [100, 0]],
    ['one open', one, ['bay'], [0, 100]],
    ['more than the passage takes', one, ['alarm', 'cooler', 'bay'], [0, 100]],
    ['an unknown phrase', one, ['tray', 'bay'], [0, 100]],
    ['without a limit: both of two', open, ['alarm', 'cooler', 'bay'], [100, 100]],
    ['one of two: 1/2', open, ['alarm'], [50, 0]],
    ['1/2 − 1/1, never below 0', open, ['alarm', 'lots'], [0, 0]],
    ['everything: 2/2 − 1/1 and 1/1 − 1/1', open, ['alarm', 'cooler', 'lots', 'bay', 'door'], [0, 0]],
    ['with a limit of two the share of the right ones', two, ['alarm', 'lots'], [100]],
    ['both of two', two, ['cooler', 'alarm'], [200]],
    ['both wrong where only one is: a wrong one costs nothing', two, ['lots'], [0]],
  ])('%s', (_, content, chosen, expected) =>
    expect(credits(content, chosen).map((c) => c.hundredths)).toEqual(expected),
  );

  it('with a limit below the number of right ones gives all for as many as it takes', () => {
    const content = { asked: one.asked, key: { right: ['alarm', 'cooler', 'bay'] } };
    expect(credits(content, ['cooler', 'bay']).map((c) => c.hundredths)).toEqual([100, 100]);
    expect(selectTextKey.rightResponse(content, null, placeFor(200))).toEqual({ chosen: ['alarm', 'bay'] });
  });

  it('is pressed on and off; in a passage for one another takes its place, in a full one it is refused', () => {
    const shown = selectTextKey.show(one.asked, null, placeFor(200));
    expect(pressed(shown, { chosen: ['alarm'] }, 'cooler')).toEqual({ chosen: ['cooler'] });
    expect(pressed(shown, { chosen: ['alarm', 'bay'] }, 'alarm')).toEqual({ chosen: ['bay'] });
    expect(pressed(shown, { chosen: [] }, 'tray')).toEqual({ chosen: [] });
    const wide = selectTextKey.show(two.asked, null, placeFor(200));
    expect(pressed(wide, { chosen: ['alarm'] }, 'lots')).toEqual({ chosen: ['alarm', 'lots'] });
    expect(pressed(wide, { chosen: ['alarm', 'lots'] }, 'cooler')).toBeNull();
  });

  it.each([
    [[], 'empty', 'Press what you want to choose in the text'],
    [['alarm'], 'part', 'Choose 1 more in “Effect”'],
    [['alarm', 'door'], 'done', ''],
  ])('says what is missing of %j', (chosen, state, words) => {
    const found = selectText.progress(selectTextKey.show(one.asked, null, placeFor(200)), { chosen });
    expect([found.state, found.missing ? say(found.missing) : '']).toEqual([state, words]);
  });

  it('has issues where a phrase is nowhere, or none is right', () => {
    const { passages } = one.asked;
    const codes = (asked: typeof one.asked, right = one.key.right) =>
      selectTextKey.check({ asked, key: { right } }, placeFor(200)).map((issue) => issue.message.code);
    expect(codes({ passages: [{ ...passages[0]!, body: null }, passages[1]!] })).toContain('author.noPhrase');
    const lost = { ...passages[1]!, phrases: [{ key: 'gate', text: 'The gate' }, passages[1]!.phrases[0]!] };
    expect(codes({ passages: [passages[0]!, lost] })).toEqual(['select-text.noPhrase']);
    expect(codes(one.asked, ['alarm'])).toEqual(['select-text.noneRight']);
  });
});
