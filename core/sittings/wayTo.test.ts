import { describe, expect, it } from 'vitest';
import { emptyDesk } from '../journal/desk';
import { forwardSectionsOf } from '../journal/forwardOnly';
import type { CandidatePaper } from '../papers/candidatePaper';
import type { QuestionProgress } from './progress';
import { sectionLeft, wayTo, type Way } from './wayTo';

/** Question a is free; b, c and d are gone through forward only; e is free again. */
function at(place: string | null, opened: string, { done = '', navigation = 'forward only' } = {}) {
  const questions = [...'abcde'].map((item) => ({
    item,
    section: 'bcd'.includes(item) ? 'B' : 'A',
    parts: [],
  }));
  const paper = {
    sections: [
      { key: 'A', navigation: 'free' },
      { key: 'B', navigation },
    ],
    questions,
  } as unknown as CandidatePaper;
  const progress = questions.map((question) => ({
    question,
    state: done.includes(question.item) ? 'done' : 'looked at',
  })) as unknown as QuestionProgress[];
  const desk = { ...emptyDesk, place, opened: Object.fromEntries([...opened].map((item) => [item, true])) };
  return { paper, progress, desk, turns: forwardSectionsOf(paper) };
}
const to = (item: string) => 'abcde'.indexOf(item);

describe('the way to a question', () => {
  it.each<[string, ReturnType<typeof at>, string, Way]>([
    ['of a free section', at('a', 'a'), 'e', 'go'],
    ['of a forward-only section, its first', at('a', 'a'), 'b', 'enter'],
    ['in the middle of such a section', at('a', 'a'), 'c', 'not yet'],
    ['the first of all', at(null, ''), 'b', 'go'],
    ['the next, with the one in view done', at('b', 'ab', { done: 'b' }), 'c', 'go'],
    ['the next, with the one in view open', at('b', 'ab'), 'c', 'pass'],
    ['the one after the next', at('b', 'ab', { done: 'b' }), 'd', 'not yet'],
    ['the one before', at('c', 'abc'), 'b', 'closed'],
    ['out of the section', at('c', 'abc'), 'e', 'leave'],
    ['back into a section that was left', at('e', 'abce'), 'd', 'closed'],
    ['the one in view', at('c', 'abc'), 'c', 'go'],
    [
      'the next, where an answer is asked for',
      at('b', 'ab', { navigation: 'forward only once answered' }),
      'c',
      'answer first',
    ],
    ['the next, answered', at('b', 'ab', { navigation: 'forward only once answered', done: 'b' }), 'c', 'go'],
    ['that is not there', at('a', 'a'), 'x', 'not yet'],
  ])('%s', (_, desk, item, way) => expect(wayTo(desk, to(item))).toBe(way));

  it('tells what leaving a section leaves behind', () => {
    expect(sectionLeft(at('a', 'a'), to('a'), to('e'))).toBeNull();
    expect(sectionLeft(at('a', 'a', { done: 'a' }), to('a'), to('b'))).toEqual({
      section: 'A',
      open: 1,
      back: true,
    });
    expect(sectionLeft(at('c', 'bc', { done: 'bc' }), to('c'), to('e'))).toEqual({
      section: 'B',
      open: 1,
      back: false,
    });
  });
});
