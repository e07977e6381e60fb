import { piecesOf, textIn, textsInView, type Stretch } from './textScopes';

/** A selection that begins or ends within a word takes all of it. What stands in two places, as in two cells, is two words. */
export function wholeWords({ root, start, end }: Stretch): Stretch {
  const words = new Intl.Segmenter(document.documentElement.lang || 'en', { granularity: 'word' });
  const around = (place: number) => {
    let passed = 0;
    for (const { data } of piecesOf(root)) {
      if (place < passed + data.length) {
        const found = [...words.segment(data)].find(
          ({ index, segment, isWordLike }) =>
            isWordLike === true && index < place - passed && place - passed < index + segment.length,
        );
        return found && { from: passed + found.index, to: passed + found.index + found.segment.length };
      }
      passed += data.length;
    }
    return undefined;
  };
  return { root, start: around(start)?.from ?? start, end: around(end)?.to ?? end };
}

type Unit = 'sentence' | 'word';

interface Piece {
  readonly root: HTMLElement;
  readonly start: number;
  readonly end: number;
}

/** The sentences or words of all texts in view, one after the other. */
function unitsInView(unit: Unit): Piece[] {
  const segmenter = new Intl.Segmenter(document.documentElement.lang || 'en', { granularity: unit });
  return textsInView().flatMap((root) =>
    [...segmenter.segment(textIn(root))]
      .filter((one) => (unit === 'word' ? one.isWordLike === true : one.segment.trim() !== ''))
      .map(({ index, segment }) => ({
        root,
        start: index + (segment.length - segment.trimStart().length),
        end: index + segment.trimEnd().length,
      })),
  );
}

const follows = (a: Piece, b: Stretch, roots: readonly HTMLElement[]) =>
  a.root === b.root ? a.start >= b.end : roots.indexOf(a.root) > roots.indexOf(b.root);

/** The next sentence or word after what is chosen, or the one before it. */
export function stepTo(from: Stretch | null, unit: Unit, by: 1 | -1): Stretch | null {
  const units = unitsInView(unit);
  if (!from) return (by === 1 ? units[0] : units.at(-1)) ?? null;
  const roots = textsInView();
  if (by === 1) return units.find((one) => follows(one, from, roots)) ?? from;
  const start = { ...from, end: from.start };
  return units.findLast((one) => one.start !== from.start && !follows(one, start, roots)) ?? from;
}

/** One word more at the end, or one less. */
export function widened(from: Stretch | null, by: 1 | -1): Stretch | null {
  if (!from) return stepTo(null, 'word', 1);
  const own = unitsInView('word').filter((one) => one.root === from.root && one.start >= from.start);
  if (by === 1) {
    const next = own.find((one) => one.end > from.end);
    return next ? { ...from, end: next.end } : from;
  }
  const inside = own.filter((one) => one.end < from.end);
  return inside.length > 0 ? { ...from, end: inside.at(-1)!.end } : from;
}
