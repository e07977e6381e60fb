import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { emptyDocument } from '../../documents/document';
import { say } from '../../messages/words';
import { placeFor } from '../../testing/scoreAlone';
import { onPaper } from './candidate';
import { onPaperKey } from './key';
import { samples } from './samples';

const { content } = samples[0]!;
const shown = onPaperKey.show(content.asked, null, placeFor(200));

describe('on paper', () => {
  it('is open until the candidate confirms it, and judged by people alone', () => {
    expect(say(onPaper.progress(shown, { done: false }).missing!)).toBe(
      'Do this on paper, then confirm it here',
    );
    expect(onPaper.progress(shown, { done: true })).toEqual({ state: 'done', missing: null });
    expect(onPaperKey.components(content, 200)).toMatchObject([{ key: 'd', by: 'people', of: 200 }]);
    expect(onPaper.describe(shown, { done: true }, say).text).toBe('Done on paper');
  });

  it.each([
    [{ ...content, asked: { ...content.asked, sheet: emptyDocument } }, 200, 'on-paper.noSheet'],
    [content, 300, 'author.rubricSum'],
    [
      { ...content, asked: { ...content.asked, criteria: [{ title: 'Other', hundredths: 200 }] } },
      200,
      'author.criteriaDiffer',
    ],
  ])('has an issue where its halves do not fit (%#)', (one, marks, code) => {
    expect(onPaperKey.check(one, placeFor(marks)).map((issue) => issue.message.code)).toEqual([code]);
  });
});
