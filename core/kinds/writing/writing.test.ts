import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { placeFor } from '../../testing/scoreAlone';
import { say } from '../../messages/words';
import { isOf } from '../../validation/shapes';
import { writing } from './candidate';
import { writingKey } from './key';
import { countWords, richAsText, withoutFormat, wordsOf, type RichNode } from '../shared/richText';
import { samples } from './samples';

const { content, marks } = samples[0]!;
const shown = writingKey.show(content.asked, null, placeFor(marks));
const doc = (...content: RichNode[]): RichNode => ({ type: 'doc', content });
const paragraph = (text: string): RichNode => ({ type: 'paragraph', content: [{ type: 'text', text }] });

describe('writing', () => {
  it.each([
    ['', 'empty', 'Write your answer'],
    ['two words', 'part', 'Write 1 more word (at least 3)'],
    ['one two three', 'done', ''],
    ['one two three four five six seven eight', 'part', 'Delete 2 words (at most 6)'],
  ])('%j is %s', (text, state, missing) => {
    const progress = writing.progress(shown, { text: doc(paragraph(text)) });
    expect([progress.state, progress.missing ? say(progress.missing) : '']).toEqual([state, missing]);
  });

  it('counts words as people do', () => {
    expect(countWords('K-2 was re-sown; it’s 14 °C – warm.')).toBe(7);
  });

  it('reads lists as text', () => {
    const item = (text: string): RichNode => ({ type: 'listItem', content: [paragraph(text)] });
    const list: RichNode = { type: 'orderedList', content: [item('first'), item('second')] };
    expect(richAsText(doc(paragraph('Do'), list))).toBe('Do\n1. first\n2. second');
    // The numbers are not the writer's words.
    expect(wordsOf(doc(paragraph('Do'), list))).toBe(3);
    expect(richAsText(withoutFormat(doc(paragraph('Do'), list)))).toBe('Do\nfirst\nsecond');
    expect(withoutFormat(doc(paragraph('Do')))).toEqual(doc(paragraph('Do')));
  });

  it('refuses foreign nodes, marks and bottomless nesting', () => {
    const parse = (text: unknown) => isOf(writingKey.response, { text });
    expect(parse({ type: 'doc', content: [{ type: 'script', text: 'x' }] })).toBe(false);
    expect(parse({ type: 'doc', content: [{ type: 'text', text: 'x', marks: [{ type: 'link' }] }] })).toBe(
      false,
    );
    let deep: RichNode = paragraph('x');
    for (let i = 0; i < 30; i++) deep = { type: 'bulletList', content: [deep] };
    expect(parse(doc(deep))).toBe(false);
    const paragraphs = (count: number) => Array.from({ length: count }, () => paragraph('x'));
    // Two nodes each, and the document itself: 4,999 and 5,001.
    expect([2_499, 2_500].map((count) => parse(doc(...paragraphs(count))))).toEqual([true, false]);
    const nothing: RichNode = { type: 'paragraph' };
    expect(parse(doc(...Array.from({ length: 23_000 }, () => nothing)))).toBe(false);
  });

  it('has an issue where its rubric is not what candidates are told, or not worth the marks', () => {
    const codes = (c: typeof content, of: number) =>
      writingKey.check(c, placeFor(of)).map((issue) => issue.message.code);
    expect(codes(content, marks)).toEqual([]);
    expect(codes(content, marks + 1)).toEqual(['author.rubricSum']);
    const untold = { ...content, asked: { ...content.asked, criteria: content.asked.criteria.slice(1) } };
    expect(codes(untold, marks)).toEqual(['author.criteriaDiffer']);
  });
});
