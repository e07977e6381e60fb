import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import { responseOrEmpty, storeResponse } from '../stored';
import { match } from './candidate';
import { matchKey } from './key';
import { samples } from './samples';

const [once, many] = [samples[0]!.content, samples[1]!.content];
const credits = (content: typeof once, pairs: Record<string, string>, marks = 300) =>
  creditsOf(matchKey, { content, response: { pairs }, marks });

describe('match', () => {
  // Three pairs of a mark each, by their left sides: scale, dial, lamp. In the second the lamp has no partner.
  it.each([
    ['all', once, { scale: 'grams', dial: 'degrees', lamp: 'lux' }, [100, 100, 100]],
    ['two exchanged', once, { scale: 'degrees', dial: 'grams', lamp: 'lux' }, [0, 0, 100]],
    ['one left out', once, { scale: 'grams', lamp: 'lux' }, [100, 0, 100]],
    ['a distractor', once, { scale: 'grams', dial: 'litres' }, [100, 0, 0]],
    ['a partner used twice earns nothing', once, { scale: 'grams', dial: 'lux', lamp: 'lux' }, [100, 0, 0]],
    ['used thrice', once, { scale: 'grams', dial: 'grams', lamp: 'grams' }, [0, 0, 0]],
    ['an unknown partner', once, { scale: 'volts', dial: 'degrees' }, [0, 100, 0]],
    ['many to one', many, { scale: 'grams', dial: 'grams' }, [100, 100, 100]],
    ['a partner for what has none', many, { scale: 'grams', dial: 'grams', lamp: 'grams' }, [100, 100, 0]],
    ['one left over that has a partner', many, { scale: 'grams' }, [100, 0, 100]],
    ['an unknown left side', many, { sieve: 'grams', dial: 'grams' }, [0, 100, 100]],
  ])('%s', (_, content, pairs, expected) =>
    expect(credits(content, pairs as unknown as Record<string, string>).map((c) => c.hundredths)).toEqual(
      expected,
    ),
  );

  it('loses in a script the partners that were used twice, and nothing else', () => {
    const shown = matchKey.show(once.asked, ['grams', 'degrees', 'lux', 'litres'], placeFor(300));
    const pairs = { scale: 'grams', dial: 'lux', lamp: 'lux', sieve: 'grams' };
    const response = responseOrEmpty('match', shown, storeResponse('match', { pairs }));
    // What is not of this question does not take the partner of what is.
    expect(response).toEqual({ pairs: { scale: 'grams', dial: 'lux', lamp: 'lux' } });
    expect(
      credits(once, (response as { pairs: Record<string, string> }).pairs).map((c) => c.hundredths),
    ).toEqual([100, 0, 0]);
  });

  it('shares the marks out by largest remainder, and tells unanswered from wrong', () => {
    // 200 over three: 67, 67, 66
    const found = credits(once, { scale: 'grams', dial: 'litres' }, 200);
    expect(found.map((c) => [c.hundredths, c.of, c.verdict])).toEqual([
      [67, 67, 'right'],
      [0, 67, 'wrong'],
      [0, 66, 'unanswered'],
    ]);
  });

  it('says what is open, unless some may be left over', () => {
    const shown = (content: typeof once) =>
      matchKey.show(
        content.asked,
        content.asked.right.map((r) => r.key),
        placeFor(300),
      );
    const missing = (content: typeof once, pairs: Record<string, string>) => {
      const found = match.progress(shown(content), { pairs });
      return [found.state, found.missing ? say(found.missing) : ''];
    };
    expect(missing(once, {})).toEqual(['empty', 'Join the 3 entries on the left to their partners']);
    expect(missing(once, { scale: 'lux', lamp: 'grams' })).toEqual(['part', '“The dial” has no partner yet']);
    expect(missing(many, { scale: 'grams' })).toEqual(['done', '']);
  });

  it.each([
    [{ ...once, key: { pairs: { ...once.key.pairs, dial: 'lux' } } }, 'match.keyTwice'],
    [{ ...once, key: { pairs: { scale: 'grams' } } }, 'match.someLeft'],
    [{ ...once, key: { pairs: { ...once.key.pairs, sieve: 'grams' } } }, 'match.keyUnknown'],
    [{ ...many, key: { pairs: {} } }, 'match.nothingRight'],
  ])('has an issue where its halves do not fit (%#)', (content, code) => {
    const found = matchKey.check({ asked: content.asked, key: content.key }, placeFor(300));
    expect(found.map((issue) => issue.message.code)).toContain(code);
  });
});
