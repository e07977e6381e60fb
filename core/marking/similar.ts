import type { TextForm } from '../kinds/contract';
import { allRuns, cutOf, fingerprintsOf, tokensOf, type Fingerprint, type Token } from './fingerprints';

export interface ResponseText {
  readonly script: number;
  readonly form: TextForm;
  readonly text: string;
}

export interface SimilarPair {
  readonly scripts: readonly [number, number];
  /** Of the shorter one's fingerprints the share that both have, rare ones counting more: 0 to 1. */
  readonly overlap: number;
  /** How many fingerprints both have. */
  readonly shared: number;
  /** The base rate: how many pairs overlap as much or more. */
  readonly atLeast: number;
}

export interface SimilarResponses {
  readonly compared: number;
  readonly pairs: readonly SimilarPair[];
  /** Of all pairs: their number, the mean of their overlap, and what 99 of 100 pairs stay below. */
  readonly base: { readonly pairs: number; readonly mean: number; readonly high: number };
}

export const SIMILAR = { overlap: 0.4, shared: 4, most: 100 } as const;
/** Overlaps are counted in this many steps, so that millions of pairs need no list. */
const STEPS = 1000;

interface Fingerprinted {
  readonly script: number;
  readonly own: readonly number[];
  readonly weight: number;
}

/** Distinct fingerprints of each, numbered, and how much each one tells: little where everybody has it. */
function fingerprinted(
  responses: readonly ResponseText[],
  given: readonly string[],
): { scripts: Fingerprinted[]; weights: number[]; holders: number[][] } {
  const known = new Map<TextForm, ReadonlySet<number>>();
  const knownOf = (form: TextForm) => {
    const found = known.get(form) ?? new Set(given.flatMap((text) => allRuns(text, form)));
    known.set(form, found);
    return found;
  };
  const numbers = new Map<string, number>();
  const holders: number[][] = [];
  const owns = responses.map(({ form, text }, i) => {
    const hashes = new Set(fingerprintsOf(tokensOf(text, form), form, knownOf(form)).map((f) => f.hash));
    return [...hashes].map((hash) => {
      const name = `${form} ${hash}`;
      const number = numbers.get(name) ?? numbers.size;
      numbers.set(name, number);
      (holders[number] ??= []).push(i);
      return number;
    });
  });
  const weights = holders.map((own) => Math.log(1 + responses.length / own.length));
  const scripts = owns.map((own, i) => ({
    script: responses[i]!.script,
    own,
    weight: own.reduce((sum, n) => sum + weights[n]!, 0),
  }));
  return { scripts, weights, holders };
}

/**
 * Pairs of responses with unusual overlap, the closest first, for a person to judge. `given` is what everybody had: the
 * paper's own text and starter code, which is taken out.
 */
export function similarResponses(
  responses: readonly ResponseText[],
  given: readonly string[],
): SimilarResponses {
  const { scripts, weights, holders } = fingerprinted(responses, given);
  const n = scripts.length;
  const [score, shared] = [new Float64Array(n), new Int32Array(n)];
  const steps = new Float64Array(STEPS + 1);
  const found: Omit<SimilarPair, 'atLeast'>[] = [];
  let sum = 0;
  scripts.forEach(({ script, own, weight }, i) => {
    const met: number[] = [];
    for (const number of own)
      for (const j of holders[number]!) {
        if (j <= i) continue;
        if (shared[j] === 0) met.push(j);
        shared[j]!++;
        score[j]! += weights[number]!;
      }
    for (const j of met) {
      const other = scripts[j]!;
      const overlap = Math.min(1, score[j]! / Math.min(weight, other.weight));
      sum += overlap;
      steps[Math.floor(overlap * STEPS)]!++;
      if (overlap >= SIMILAR.overlap && shared[j]! >= SIMILAR.shared)
        found.push({ scripts: [script, other.script], overlap, shared: shared[j]! });
      shared[j] = 0;
      score[j] = 0;
    }
  });
  const pairs = (n * (n - 1)) / 2;
  const above = (from: number) => steps.reduce((all, count, step) => (step >= from ? all + count : all), 0);
  // What did not meet at all overlaps by nothing.
  let high = 0;
  while (high < STEPS && above(high + 1) > pairs / 100) high++;
  found.sort((a, b) => b.overlap - a.overlap || b.shared - a.shared || a.scripts[0] - b.scripts[0]);
  const told = found.slice(0, SIMILAR.most).map((pair) => ({
    ...pair,
    atLeast: found.filter((one) => one.overlap >= pair.overlap).length,
  }));
  return {
    compared: n,
    pairs: told,
    base: { pairs, mean: pairs === 0 ? 0 : sum / pairs, high: high / STEPS },
  };
}

export interface Passage {
  readonly start: number;
  readonly end: number;
}

/** Stretches of two responses that both have, in characters of each: to be marked side by side. */
export function sharedPassages(
  [a, b]: readonly [ResponseText, ResponseText],
  given: readonly string[],
): readonly [Passage[], Passage[]] {
  const known = new Set(given.flatMap((text) => allRuns(text, a.form)));
  const read = ({ text, form }: ResponseText) => {
    const tokens = tokensOf(text, form);
    return { tokens, prints: fingerprintsOf(tokens, form, known) };
  };
  const [first, second] = [read(a), read(b)];
  const { k } = cutOf(a.form);
  const passages = (
    { tokens, prints }: { readonly tokens: readonly Token[]; readonly prints: readonly Fingerprint[] },
    others: readonly Fingerprint[],
  ): Passage[] => {
    const hashes = new Set(others.map((one) => one.hash));
    const made: Passage[] = [];
    for (const { hash, token } of prints) {
      if (!hashes.has(hash)) continue;
      const [start, end] = [tokens[token]!.start, tokens[token + k - 1]!.end];
      const before = made.at(-1);
      // Runs that touch or overlap are one passage; a token or two in between may stand for the window.
      if (before && start - before.end <= 12) made[made.length - 1] = { start: before.start, end };
      else made.push({ start, end });
    }
    return made;
  };
  return [passages(first, second.prints), passages(second, first.prints)];
}
