import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import { say } from '../../messages/words';
import { gridChoice } from './candidate';
import { gridChoiceKey } from './key';
import type { SeveralRule } from '../shared/severalRight';
import { samples } from './samples';

const [one, several] = [samples[0]!.content, samples[1]!.content];
const by = (rule: SeveralRule) => ({ ...several, asked: { ...several.asked, rule } });
const credits = (content: typeof one, rows: Record<string, string[]>, marks = 300) =>
  creditsOf(gridChoiceKey, { content, response: { rows }, marks }).map((c) => [c.hundredths, c.verdict]);

describe('grid choice', () => {
  // Three statements of one mark each; the statement “book” takes no category in the second grid.
  it.each([
    ['all right', one, { lot: ['posted'], label: ['posted'], book: ['filed'] }, [100, 100, 100]],
    ['one wrong', one, { lot: ['filed'], label: ['posted'], book: ['filed'] }, [0, 100, 100]],
    ['one left open', one, { label: ['posted'], book: ['filed'] }, [0, 100, 100]],
    ['two where one is allowed', one, { lot: ['posted', 'filed'], book: ['filed'] }, [0, 0, 100]],
    ['the same twice', one, { lot: ['posted', 'posted'], book: ['filed'] }, [0, 0, 100]],
    ['each: one of two right, 1/2', several, { lot: ['posted'], label: ['filed'] }, [50, 100, 100]],
    ['each: 1/1 − 1/1 = 0', several, { lot: ['posted'], label: ['posted', 'filed'] }, [50, 0, 100]],
    [
      'where nothing applies, any choice is wrong',
      several,
      { lot: ['posted'], book: ['posted'] },
      [50, 0, 0],
    ],
    ['all or nothing', by('all-or-nothing'), { lot: ['posted'], label: ['filed'] }, [0, 100, 100]],
    ['decisions: one of two', by('decisions'), { lot: ['posted'], label: ['filed'] }, [50, 100, 100]],
    ['decisions: both wrong', by('decisions'), { label: ['posted'] }, [0, 0, 100]],
    ['an unknown statement earns nothing', several, { lid: ['posted'] }, [0, 0, 100]],
  ])('%s', (_, content, rows, expected) =>
    expect(credits(content, rows as Record<string, string[]>).map(([h]) => h)).toEqual(expected),
  );

  it('tells an open statement from a wrong one, and a share of one hundredth from none', () => {
    expect(credits(one, { lot: ['filed'], label: [] }).map(([, v]) => v)).toEqual([
      'wrong',
      'unanswered',
      'unanswered',
    ]);
    // 301 hundredths over three statements: 101, 100, 100; half of 101 is 50.5, away from zero
    expect(credits(several, { lot: ['posted'], label: ['filed'] }, 301)[0]).toEqual([51, 'partly']);
  });

  it.each([
    [one, {}, 'empty', 'Choose for each of the 3 statements'],
    [one, { lot: ['posted'] }, 'part', '2 statements are not answered; the first is “The label is written”'],
    [one, { lot: ['posted'], label: ['filed'] }, 'part', 'Choose for “The book is signed”'],
    [several, { lot: ['posted'] }, 'done', ''],
  ])('says what is open (%#)', (content, rows, state, words) => {
    const keys = content.asked.statements.map((s) => s.key);
    const shown = gridChoiceKey.show(content.asked, keys, placeFor(300));
    const found = gridChoice.progress(shown, { rows });
    expect([found.state, found.missing ? say(found.missing) : '']).toEqual([state, words]);
  });

  it.each([
    [{ lot: ['posted'], label: ['posted'] }, 'grid-choice.noRight'],
    [{ ...one.key.rows, lot: ['posted', 'filed'] }, 'grid-choice.oneRight'],
    [{ ...one.key.rows, lot: ['lost'] }, 'grid-choice.rightUnknown'],
    [{ ...one.key.rows, lid: ['posted'] }, 'grid-choice.noStatement'],
  ])('has an issue where its key does not fit (%#)', (rows, code) => {
    const found = gridChoiceKey.check({ ...one, key: { rows: rows } }, placeFor(300));
    expect(found.map((issue) => issue.message.code)).toContain(code);
  });
});
