import { compareExact, exactOf, withinDistance, type Exact } from '../../numbers/exact';
import type { Piece } from './response';

interface End {
  /** Null where it goes on for ever. */
  readonly at: Exact | null;
  readonly open: boolean;
}

interface Span {
  readonly from: End;
  readonly to: End;
}

const end = (text: string | null, open: boolean): End =>
  text === null ? { at: null, open: true } : { at: exactOf(text), open };

/** By where they begin; what goes on to the left comes first, and a closed end before an open one. */
function byBeginning({ from: a }: Span, { from: b }: Span): number {
  if (a.at === null || b.at === null) return Number(a.at !== null) - Number(b.at !== null);
  return compareExact(a.at, b.at) || Number(a.open) - Number(b.open);
}

/** Does a span that begins here touch or overlap one that ends there? Two open ends leave a hole between them. */
function touches(ends: End, begins: End): boolean {
  if (ends.at === null || begins.at === null) return true;
  const order = compareExact(begins.at, ends.at);
  return order < 0 || (order === 0 && !(ends.open && begins.open));
}

/** The end that lies farther to the right. */
function farther(a: End, b: End): End {
  if (a.at === null || b.at === null) return a.at === null ? a : b;
  const order = compareExact(a.at, b.at);
  return order > 0 || (order === 0 && !a.open) ? a : b;
}

/** Pieces as a set: what touches or overlaps is one. */
function joined(pieces: readonly Piece[]): Span[] {
  const spans = pieces
    .map((one): Span => ({ from: end(one.from, one.fromOpen), to: end(one.to, one.toOpen) }))
    .sort(byBeginning);
  const made: Span[] = [];
  for (const span of spans) {
    const last = made.at(-1);
    if (last && touches(last.to, span.from))
      made[made.length - 1] = { from: last.from, to: farther(last.to, span.to) };
    else made.push(span);
  }
  return made;
}

function sameEnd(a: End, b: End, within: Exact): boolean {
  if (a.at === null || b.at === null) return a.at === b.at;
  return a.open === b.open && withinDistance(a.at, b.at, within);
}

const isPoint = ({ from, to }: Span): boolean =>
  from.at !== null && to.at !== null && compareExact(from.at, to.at) === 0;

/** Are two lists of pieces the same set of figures, points and intervals each, every end within a distance? */
export function isSameSet(given: readonly Piece[], right: readonly Piece[], within: Exact): boolean {
  const [mine, theirs] = [joined(given), joined(right)];
  return (
    mine.length === theirs.length &&
    mine.every(
      (span, i) =>
        isPoint(span) === isPoint(theirs[i]!) &&
        sameEnd(span.from, theirs[i]!.from, within) &&
        sameEnd(span.to, theirs[i]!.to, within),
    )
  );
}
