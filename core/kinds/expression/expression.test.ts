import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, foundOf, hundredthsOf, placeFor } from '../../testing/scoreAlone';
import type { EvidenceFound } from '../evidence';
import { expression, isBlank } from './candidate';
import { expressionKey } from './key';
import { samples } from './samples';

const { content } = samples[0]!;
const shown = expressionKey.show(content.asked, null, placeFor(300));
const plain = { ...content, asked: { ...content.asked, form: null } };

type Is = 'equal' | 'different' | 'undecided' | 'unreadable';
const found = (is: Is, inForm: boolean | null = null): EvidenceFound => ({
  sort: 'expression',
  is,
  why: 'why',
  inForm,
});
const evidence = (first: EvidenceFound, second: EvidenceFound) => ({
  'accepted-0': first,
  'accepted-1': second,
});
const score = (one: typeof content, first: EvidenceFound, second: EvidenceFound) =>
  hundredthsOf(expressionKey, {
    content: one,
    response: { latex: 'x' },
    marks: 300,
    evidence: evidence(first, second),
  });

const foundFor = (one: typeof content, first: EvidenceFound, second: EvidenceFound) =>
  foundOf(expressionKey, {
    content: one,
    response: { latex: 'x' },
    marks: 300,
    evidence: evidence(first, second),
  });

describe('expression', () => {
  // Accepted are one with all the marks, and one with a slip and half of them; another form earns half.
  it.each([
    ['equal and in form', content, found('equal', true), found('different'), 300],
    ['equal in another form: half', content, found('equal', false), found('different'), 150],
    ['the slip, in form', content, found('different'), found('equal', true), 150],
    // half of half of 300
    ['the slip in another form', content, found('different'), found('equal', false), 75],
    ['neither', content, found('different'), found('different'), 0],
    ['both: the one with the most marks', content, found('equal', true), found('equal', true), 300],
    ['no form is asked', plain, found('equal'), found('different'), 300],
    ['no form is asked, the slip', plain, found('different'), found('equal'), 150],
    ['what is undecided earns less than what is equal', plain, found('equal'), found('undecided'), 300],
  ])('%s', (_, one, first, second, expected) => expect(score(one, first, second)).toBe(expected));

  it.each([
    [plain, found('undecided'), found('different')],
    [plain, found('unreadable'), found('unreadable')],
    [plain, found('undecided'), found('equal')],
    [content, found('equal', null), found('different')],
  ])('is left to people where it cannot be told (%#)', (one, first, second) => {
    const [undecided] = foundFor(one, first, second);
    expect(undecided).toHaveProperty('undecided');
    expect(undecided!.component).toBe('whole');
  });

  it('is not scored without its comparisons', () => {
    expect(() => creditsOf(expressionKey, { content, response: { latex: 'x' }, marks: 300 })).toThrow();
  });

  it.each([
    ['', 'empty', 'Enter your expression here'],
    ['\\placeholder{}\\:', 'empty', 'Enter your expression here'],
    ['\\frac{3}{}', 'part', 'This is not a complete expression: the fraction has no denominator'],
    ['x+', 'part', 'This is not a complete expression: nothing follows the plus sign'],
    ['sinx', 'part', 'Enter “sin” with its button; if you type the letters, they are read as a product'],
    ['x^2+1', 'done', ''],
  ])('%s is %s', (latex, state, words) => {
    const progress = expression.progress(shown, { latex });
    expect([progress.state, progress.missing ? say(progress.missing) : '']).toEqual([state, words]);
  });

  it('has a sentence for every reason that it refuses something', () => {
    for (const latex of [
      '1/2x',
      'x^10',
      "f'",
      '2--3',
      '|x||y|',
      '3\\frac43',
      'x_{a+b}',
      'i',
      '\\text{ten}',
      '\\int x',
    ]) {
      const { missing } = expression.progress(shown, { latex });
      expect(say(missing!)).not.toBe(missing!.code);
    }
    expect(isBlank('\\frac{}{}')).toBe(false);
  });

  it('asks for a comparison with each accepted one, in the signs of the round', () => {
    const decimal = {
      ...plain,
      key: { ...plain.key, accepted: [{ latex: '1.5x', percent: 100, note: '' }] },
    };
    const [request] = expressionKey.evidence(
      {
        content: decimal,
        response: { latex: '1{,}5x' },
        arrangement: null,
        place: placeFor(300, 'de'),
      },
      {},
    );
    expect(request).toMatchObject({ run: { key: '1{,}5x', given: '1{,}5x', options: { decimal: ',' } } });
    expect(expressionKey.rightResponse(decimal, null, placeFor(300, 'de'))).toEqual({ latex: '1{,}5x' });
  });

  it.each([
    [
      { ...content.key, accepted: [{ latex: '\\frac{1}{}', percent: 100, note: '' }] },
      'expression.keyUnreadable',
    ],
    [
      { ...content.key, accepted: [{ latex: 'x^2+3x+2', percent: 100, note: '' }] },
      'expression.keyOtherForm',
    ],
    [
      { ...content.key, accepted: [{ latex: '(x+1)(x+2)', percent: 50, note: '' }] },
      'expression.noFullMarks',
    ],
    [{ ...content.key, domain: { x: { from: 2, to: 1 } } }, 'expression.domain'],
  ])('has an issue where its halves do not fit (%#)', (key, code) => {
    expect(
      expressionKey.check({ ...content, key }, placeFor(300)).map((issue) => issue.message.code),
    ).toContain(code);
  });
});
