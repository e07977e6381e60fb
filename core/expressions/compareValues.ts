import { sameExact } from '../numbers/exact';
import { isBall, valueAt, type Ball, type Environment, type Found } from './ball';
import { different, equal, randomFor, undecided, type Judgement, type Judging } from './judgement';
import { isRational, isSameRational } from './modular';
import { drawFrom, isInside, rangeOf, samplePoints, type Numbers } from './sampling';
import { exactValue, lettersOf, type Term } from './term';

const DIGITS = [40, 110] as const;

/** How two values, or sets of values, at one place compare; `both-undefined` says nothing. */
type AtPlace = 'same' | 'other' | 'unclear' | 'both-undefined';

/** Are both known to so many digits that they can be called the same? */
function isTight(a: Ball, b: Ball): boolean {
  const size = Math.max(Math.abs(a.value.toNumber()), Math.abs(b.value.toNumber()));
  return a.radius + b.radius <= Math.max(1e-24 * size, 1e-24);
}

export function compareBalls(a: Ball, b: Ball): 'same' | 'other' | 'unclear' {
  const distance = a.value.minus(b.value).abs().toNumber();
  if (distance > a.radius + b.radius) return 'other';
  return isTight(a, b) ? 'same' : 'unclear';
}

/** Is a value among others? */
function among(value: Ball, others: readonly Ball[]): 'same' | 'other' | 'unclear' {
  const found = others.map((other) => compareBalls(value, other));
  if (found.includes('same')) return 'same';
  return found.includes('unclear') ? 'unclear' : 'other';
}

function compareSets(a: readonly Found[], b: readonly Found[]): AtPlace {
  if ([...a, ...b].includes('unknown')) return 'unclear';
  const [mine, theirs] = [a.filter(isBall), b.filter(isBall)];
  if (mine.length === 0 && theirs.length === 0) return 'both-undefined';
  // A missing stretch: random places never hit a single hole.
  if (mine.length === 0 || theirs.length === 0) return 'other';
  const found = [...mine.map((one) => among(one, theirs)), ...theirs.map((one) => among(one, mine))];
  if (found.includes('other')) return 'other';
  return found.includes('unclear') ? 'unclear' : 'same';
}

function compareAt(
  a: readonly Term[],
  b: readonly Term[],
  place: Environment,
  digits: readonly number[] = DIGITS,
): AtPlace {
  let found: AtPlace = 'unclear';
  for (const some of digits) {
    const at = (terms: readonly Term[]) => terms.map((term) => valueAt(term, place, some));
    found = compareSets(at(a), at(b));
    if (found !== 'unclear') return found;
  }
  return found;
}

function compareExactly(a: Term, b: Term, letters: ReadonlySet<string>, judging: Judging): Judgement | null {
  const [x, y] = [exactValue(a), exactValue(b)];
  if (x && y) return sameExact(x, y) ? equal('fractions') : different('fractions');
  if (!isRational(a) || !isRational(b)) return null;
  const same = isSameRational(a, b, letters, randomFor(judging, 'modular'));
  if (same) return equal('rational functions');
  // Over whole numbers two functions may be the same at all of them and yet be others.
  const anyWhole = [...letters].some((name) => rangeOf(judging.domain, name).whole);
  return same === false && !anyWhole ? different('rational functions') : null;
}

const ENOUGH = 6;
const WANTED = 8;
const MOST_FURTHER = 40;
/** Beyond it a value that cannot be told says little. */
const NEAR = 30;

/** Compares term by term at sample places, and counts what was found. */
class Sampling {
  agreeing: Numbers[] = [];
  seen = 0;
  unclear = 0;
  private readonly a: readonly Term[];
  private readonly b: readonly Term[];
  private readonly judging: Judging;
  constructor(a: readonly Term[], b: readonly Term[], judging: Judging) {
    [this.a, this.b, this.judging] = [a, b, judging];
  }

  /** Do they differ here? The first places where they agree are looked at again with more digits. */
  differAt(place: Numbers): boolean {
    this.judging.checkTime();
    const found = compareAt(this.a, this.b, place);
    this.seen++;
    if (found === 'other') return true;
    if (found === 'unclear' && Object.values(place).every((x) => Math.abs(x) <= NEAR)) this.unclear++;
    if (found !== 'same') return false;
    this.agreeing.push(place);
    return this.agreeing.length <= 2 && compareAt(this.a, this.b, place, [DIGITS[1]]) === 'other';
  }
}

/** Two sets of values, as they come of ±; one each where there is none. */
export function compareValues(a: readonly Term[], b: readonly Term[], judging: Judging): Judgement {
  const letters = new Set<string>();
  for (const term of [...a, ...b]) lettersOf(term, letters);
  if (a.length === 1 && b.length === 1) {
    const exactly = compareExactly(a[0]!, b[0]!, letters, judging);
    if (exactly) return exactly;
  }
  const random = randomFor(judging, 'values');
  const { domain } = judging;
  const sampling = new Sampling(a, b, judging);
  for (const place of samplePoints([...a, ...b], letters, domain, random))
    if (sampling.differAt(place)) return different('a sample');
  const { agreeing } = sampling;
  if (letters.size === 0) return agreeing.length > 0 ? equal('values') : undecided('too few digits');
  // Too few places with values: more of them are looked for beside those that were found.
  for (let i = 0; agreeing.length > 0 && agreeing.length < WANTED && i < MOST_FURTHER; i++) {
    const near = agreeing[i % agreeing.length]!;
    const place = Object.fromEntries(
      [...letters].map((name) => {
        const range = rangeOf(domain, name);
        if (range.whole) return [name, drawFrom(range, random)];
        const x = near[name]! * (0.5 + random());
        return [name, isInside(range, x) ? x : near[name]!];
      }),
    );
    if (sampling.differAt(place)) return different('a sample');
  }
  return agreeing.length >= ENOUGH && sampling.unclear <= sampling.seen / 3
    ? equal('samples')
    : undecided('too few samples');
}

/** The value of a term as a ball with so many digits, where it has one. */
export const ballAt = (term: Term, place: Environment, digits: number): Ball | null => {
  const found = valueAt(term, place, digits);
  return isBall(found) ? found : null;
};
