import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { plainDocument, type Document } from '../../documents/document';
import { say } from '../../messages/words';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import { responseOrEmpty, storeResponse } from '../stored';
import { sort } from './candidate';
import { sortKey } from './key';
import { samples } from './samples';

const [once, often] = [samples[0]!.content, samples[1]!.content];
const credits = (content: typeof once, bins: Record<string, string[]>, marks = 400) =>
  creditsOf(sortKey, { content, response: { bins }, marks });
const shown = sortKey.show(once.asked, ['holly', 'kale', 'rush', 'hazel'], placeFor(400));

describe('sort', () => {
  // Four chips of a mark each, in the order rush, holly, kale, hazel; holly belongs nowhere.
  it.each([
    ['all where they belong', { dry: ['rush', 'kale'], damp: ['hazel'] }, [100, 100, 100, 100]],
    [
      'what belongs nowhere was placed',
      { dry: ['rush', 'kale', 'holly'], damp: ['hazel'] },
      [100, 0, 100, 100],
    ],
    ['one left over that belongs', { dry: ['rush'], damp: ['hazel'] }, [100, 100, 0, 100]],
    ['into the other bin', { dry: ['hazel', 'kale'], damp: ['rush'] }, [0, 100, 100, 0]],
    ['an overfull bin earns nothing', { damp: ['hazel', 'kale', 'rush'] }, [0, 100, 0, 0]],
    ['in two bins where once is allowed', { dry: ['rush', 'hazel'], damp: ['hazel'] }, [100, 100, 0, 0]],
    ['an unknown chip changes nothing', { dry: ['rush', 'oak'] }, [100, 100, 0, 0]],
    ['an unknown bin earns nothing', { lost: ['rush'], damp: ['hazel'] }, [0, 100, 0, 100]],
  ])('%s', (_, bins, expected) =>
    expect(credits(once, bins as unknown as Record<string, string[]>).map((c) => c.hundredths)).toEqual(
      expected,
    ),
  );

  // Two chips of 101 and 100 hundredths: rush belongs into dry, holly into both.
  it.each([
    [{ dry: ['rush', 'holly'], damp: ['holly'] }, [101, 100]],
    [{ dry: ['rush', 'holly'] }, [101, 0]],
    [{ dry: ['rush'], damp: ['holly', 'rush'] }, [0, 0]],
    [{ damp: ['holly'] }, [0, 0]],
  ])('chips used often are right in exactly their bins: %j', (bins, expected) =>
    expect(credits(often, bins as unknown as Record<string, string[]>, 201).map((c) => c.hundredths)).toEqual(
      expected,
    ),
  );

  it('loses in a script what breaks a limit, and nothing else', () => {
    const scored = (bins: Record<string, string[]>) => {
      const response = responseOrEmpty('sort', shown, storeResponse('sort', { bins }));
      return credits(once, (response as { bins: Record<string, string[]> }).bins).map((c) => c.hundredths);
    };
    // Three chips where two may be: those three. A chip in two bins: that one. What is not there: nothing.
    expect(scored({ dry: ['kale'], damp: ['hazel', 'holly', 'rush'] })).toEqual([0, 0, 100, 0]);
    expect(scored({ dry: ['rush', 'kale', 'hazel'], damp: ['hazel'] })).toEqual([100, 100, 100, 0]);
    expect(scored({ dry: ['rush', 'rush', 'oak'], damp: ['hazel'], loft: ['kale'] })).toEqual([
      100, 100, 0, 100,
    ]);
  });

  it('weighs chips as the author says', () => {
    const [first, ...rest] = once.asked.chips;
    const content = { ...once, asked: { ...once.asked, chips: [{ ...first!, weight: 3 }, ...rest] } };
    // Of 600 hundredths the first of four has three of six.
    expect(credits(content, { dry: ['rush'] }, 600).map((c) => c.of)).toEqual([300, 100, 100, 100]);
    expect(JSON.stringify(sortKey.show(content.asked, ['rush'], placeFor(600)))).not.toContain('weight');
  });

  it('calls what was left over and belongs somewhere unanswered', () => {
    expect(credits(once, { damp: ['rush'] }).map((c) => c.verdict)).toEqual([
      'wrong',
      'right',
      'unanswered',
      'unanswered',
    ]);
  });

  it.each([
    [{}, 'empty', 'Put the entries where they belong; you may leave some over'],
    [{ dry: ['rush'] }, 'done', ''],
  ])('says what is missing of %j', (bins, state, words) => {
    const found = sort.progress(shown, { bins });
    expect([found.state, found.missing ? say(found.missing) : '']).toEqual([state, words]);
    const all = sort.progress({ ...shown, leftOver: false }, { bins });
    expect(all.missing ? say(all.missing) : '').toMatch(state === 'empty' ? /each of the 4/ : /^3 entries/);
  });

  it('refuses what breaks a limit, and what is not there', () => {
    const codes = [
      { damp: ['rush', 'kale', 'holly'] },
      { dry: ['rush'], damp: ['rush'] },
      { dry: ['oak'] },
    ].map((bins) => sort.misfit(shown, { bins: bins as unknown as Record<string, string[]> })?.code);
    expect(codes).toEqual(['sort.tooMany', 'sort.twice', 'sort.unknown']);
  });

  it.each([
    [{ ...once, key: { bins: { damp: ['hazel', 'rush', 'kale'] } } }, 'sort.overLimit'],
    [{ ...once, key: { bins: { dry: ['rush'], damp: ['rush'] } } }, 'sort.rightTwice'],
    [{ ...once, asked: { ...once.asked, leftOver: false } }, 'sort.someLeft'],
    [{ ...once, asked: { ...once.asked, fromSource: true } }, 'author.noPhrase'],
  ])('has an issue where its halves do not fit (%#)', (content, code) => {
    expect(sortKey.check(content, placeFor(400)).map((issue) => issue.message.code)).toContain(code);
  });

  it('takes its chips from the phrases of the source', () => {
    const body: Document = {
      ...plainDocument(''),
      blocks: [
        {
          type: 'paragraph',
          children: once.asked.chips.map(({ key, text }) => ({
            type: 'phrase',
            key,
            children: [{ type: 'text', text }],
          })),
        },
      ],
    };
    const content = { ...once, asked: { ...once.asked, fromSource: true } };
    expect(sortKey.check(content, { ...placeFor(400), source: { tabs: [{ body }] } })).toEqual([]);
  });
});
