import { describe, expect, it } from 'vitest';
import type { CandidatePaper } from '../papers/candidatePaper';
import { closedItems, isOutOfTurn, forwardSectionsOf, type TurnEntry } from './forwardOnly';

type Navigation = CandidatePaper['sections'][number]['navigation'];

const paperWith = (navigation: Navigation) => ({
  sections: [
    { key: 'A', navigation: 'free' as Navigation },
    { key: 'B', navigation },
  ] as unknown as CandidatePaper['sections'],
  questions: ['a', 'b', 'c', 'd'].map((item) => ({
    item,
    section: item === 'a' ? 'A' : 'B',
    parts: [{ target: `${item}/A` }],
  })) as unknown as CandidatePaper['questions'],
});
const forward = forwardSectionsOf(paperWith('forward only'))!;
const once = forwardSectionsOf(paperWith('forward only once answered'))!;

/** `1.3 b@20`: number 3 of hold 1, about b, arrived at 20. */
function entry(text: string, about: TurnEntry['about'] = 'place'): TurnEntry {
  const [, hold, number, item, at] = /^(\d)\.(\d+) (\w)@(\d+)$/.exec(text)!;
  const target = about === 'place' ? item! : `${item}/A`;
  return { hold: Number(hold), number: Number(number), about, target, arrivedAt: Number(at) };
}
const judged = (
  turns: typeof forward,
  answer: string,
  visits: readonly string[],
  done: readonly string[] = [],
) =>
  isOutOfTurn(turns, entry(answer, 'answer'), {
    visits: visits.map((visit) => entry(visit)),
    // Hold 1 from the start, hold 2 from 50 on.
    grantedAt: (hold) => (hold === 1 ? 0 : 50),
    doneBefore: (item) => done.includes(item),
  });

describe('the turn of a question', () => {
  it.each<[string, string, string[], boolean]>([
    ['in view', '1.2 b@2', ['1.1 b@1'], false],
    ['before it was gone to', '1.1 b@1', [], false],
    ['after a later one of its section', '1.3 b@3', ['1.1 b@1', '1.2 c@2'], true],
    ['the later one itself', '1.3 c@3', ['1.1 b@1', '1.2 c@2'], false],
    ['after its section was left', '1.3 b@3', ['1.1 b@1', '1.2 a@2'], true],
    ['a later question, after its section was left', '1.4 d@4', ['1.1 b@1', '1.2 a@2'], true],
    ['of a section that was not entered yet', '1.3 b@3', ['1.1 a@1'], false],
    ['of a free section', '1.3 a@3', ['1.1 a@1', '1.2 b@2'], false],
    // By running number: the answer was written before, and came later.
    ['written before it was passed, and late', '1.2 b@90', ['1.1 b@1', '1.3 c@3'], false],
    ['written after it was passed, and first', '1.3 b@1', ['1.1 b@1', '1.2 c@9'], true],
    // Another device knew of what had come before it was granted.
    ['passed by an earlier hold', '2.1 b@60', ['1.1 b@1', '1.2 c@40'], true],
    ['passed by an earlier hold whose word came late', '2.1 b@60', ['1.1 b@1', '1.2 c@70'], false],
    ['by an earlier hold, after a later one has passed it', '1.9 b@80', ['1.1 b@1', '2.1 c@70'], true],
    ['by an earlier hold, before a later one has passed it', '1.9 b@60', ['1.1 b@1', '2.1 c@70'], false],
  ])('%s', (_, answer, visits, out) => expect(judged(forward, answer, visits)).toBe(out));

  it('comes when all before it are done, where that is asked', () => {
    expect(judged(once, '1.2 b@2', ['1.1 b@1'])).toBe(false);
    expect(judged(once, '1.3 c@3', ['1.1 b@1', '1.2 c@2'])).toBe(true);
    expect(judged(once, '1.3 c@3', ['1.1 b@1', '1.2 c@2'], ['b'])).toBe(false);
    expect(judged(once, '1.3 d@3', ['1.2 d@2'], ['b'])).toBe(true);
  });

  it('is of no matter to flags, and where the whole paper is free', () => {
    const flag = { ...entry('1.3 b@3'), about: 'flag' as const };
    const visits = ['1.1 b@1', '1.2 c@2'].map((visit) => entry(visit));
    expect(isOutOfTurn(forward, flag, { visits, grantedAt: () => 0, doneBefore: () => true })).toBe(false);
    expect(forwardSectionsOf(paperWith('free'))).toBeNull();
  });
});

describe('the desk as it is', () => {
  const opened = (...items: string[]) => Object.fromEntries(items.map((item) => [item, true]));
  it.each<[Record<string, boolean>, string | null, string[]]>([
    [{}, null, []],
    [opened('a'), 'a', []],
    [opened('a', 'b'), 'b', []],
    [opened('a', 'b', 'c'), 'c', ['b']],
    [opened('a', 'b'), 'a', ['b', 'c', 'd']],
  ])('with %o and the place %s has %o closed', (of, place, closed) =>
    expect(closedItems(forward, { opened: of, place })).toEqual(closed),
  );
});
