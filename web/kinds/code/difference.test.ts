import { describe, expect, it } from 'vitest';
import { markedLines } from './difference';

const shown = (own: string, other: string) =>
  markedLines(own, other).map((line) =>
    line.map(({ text, differs }) => (differs ? `[${text}]` : text)).join(''),
  );

describe('what differs between two texts', () => {
  it.each([
    ['K-2', 'K-2', ['K-2']],
    ['[1, 2, 3]', '[1, 5, 3]', ['[1, [2], 3]']],
    // Spaces at the end of a line are seen.
    ['a  ', 'a', ['a[··]']],
    ['a\nb', 'a', ['a', '[b]']],
    ['a\n', 'a', ['a', '[⏎]']],
    ['', 'x', ['']],
    ['aa', 'a', ['a[a]']],
    ['x\ty', 'x y', ['x[→]y']],
  ])('%j beside %j', (own, other, lines) => expect(shown(own, other)).toEqual(lines));
});
