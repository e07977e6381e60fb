import { crc32 } from 'node:zlib';
import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { seededRandom, shuffled } from '../random';
import { canonicalJson } from './canonicalJson';
import { chainAfter, chainStart } from './chain';
import { ENTRY_LIMIT, entryText, isLater, type Entry } from './entry';
import { HoldChain } from './holdChain';
import { applyPatch, farApart, makePatch } from './patch';
import { parseEntry } from './parseEntry';
import { receiptCode } from './receipt';

const checkSum = (text: string) => crc32(text).toString(16).padStart(8, '0');
const digest = (text: string) => createHash('sha256').update(text).digest('hex');
const entry = (number: number, value: unknown = number): Entry => ({
  number,
  about: 'answer',
  target: 'tray/A',
  at: 1000 + number,
  value,
});
const textOf = (one: Entry) => entryText(one, canonicalJson(one.value));

describe('an entry', () => {
  it('has a canonical text, the same however its members stand', () => {
    const { number, about, target, at, value } = entry(1, { b: 1, a: 'é' });
    const parsed = parseEntry({ value, at, target, number, about });
    expect(parsed).toMatchObject({
      text: '{"about":"answer","at":1001,"number":1,"target":"tray/A","value":{"a":"é","b":1}}',
      body: '{"a":"é","b":1}',
    });
  });

  const patch = { base: { hold: 1, number: 1 }, place: 0, cut: 0, put: '', sum: '0'.repeat(8) };
  const deep = JSON.parse(`${'['.repeat(20_000)}1${']'.repeat(20_000)}`) as unknown;
  it.each([
    ['nothing', null, 'malformed-entry'],
    ['no number', { ...entry(1), number: undefined }, 'malformed-entry'],
    ['a number below 1', entry(0), 'malformed-entry'],
    ['neither value nor patch', { ...entry(1), value: undefined }, 'malformed-entry'],
    ['both', { ...entry(1), patch }, 'malformed-entry'],
    ['an unknown member', { ...entry(1), order: 1 }, 'malformed-entry'],
    ['a value nested without end', entry(1, deep), 'malformed-entry'],
    ['too long a value', entry(1, 'x'.repeat(ENTRY_LIMIT)), 'entry-too-long'],
  ])('is refused with %s', (_, raw, refusal) => expect(parseEntry(raw)).toEqual({ refusal }));

  it('is later in a later hold, whatever its number', () => {
    expect(isLater({ hold: 2, number: 1 }, { hold: 1, number: 9 })).toBe(true);
    expect(isLater({ hold: 2, number: 1 }, { hold: 2, number: 1 })).toBe(false);
  });
});

describe('a patch', () => {
  const base = { hold: 1, number: 4 };
  it.each([
    ['at the end', 'abc', 'abcd', { place: 3, cut: 0, put: 'd' }],
    ['in the middle', 'abcdef', 'abXef', { place: 2, cut: 2, put: 'X' }],
    ['of a repeated sign', 'aaa', 'aaaa', { place: 3, cut: 0, put: 'a' }],
    ['that takes away', 'abc', 'ac', { place: 1, cut: 1, put: '' }],
    ['of nothing', 'abc', 'abc', { place: 3, cut: 0, put: '' }],
    // Two emoji that share their first half (d83d): the pair is never split.
    ['between halves of signs', '😀', '😁', { place: 0, cut: 2, put: '😁' }],
    ['between halves that end alike', '\u{1F600}', '\u{1F200}', { place: 0, cut: 2, put: '\u{1F200}' }],
  ])('%s', (_, from, to, expected) => {
    const patch = makePatch(base, { from, to }, checkSum);
    expect(patch).toMatchObject(expected);
    expect(applyPatch(from, patch, checkSum)).toBe(to);
  });

  it('fails on another base, and beyond its end, instead of giving something else', () => {
    const patch = makePatch(base, { from: 'abc', to: 'abcd' }, checkSum);
    expect(applyPatch('abd', patch, checkSum)).toBeNull();
    expect(applyPatch('', patch, checkSum)).toBeNull();
  });

  it.each([
    // Between place 0 and place 500 lie 500 signs; two entries cost about 200 more than one.
    ['at both ends of a long text', 500, 'X', '', true],
    ['at both ends of a short one', 100, 'X', '', false],
    ['one behind the other', 500, '', 'X', false],
  ])('are far apart or not: changes %s', (_, length, before, after, apart) => {
    const base = 'a'.repeat(length);
    const between = before + base + after;
    expect(farApart(base, between, `${between}Y`)).toBe(apart);
  });

  it('brings any text to any other, over two thousand seeded pairs', () => {
    const random = seededRandom('patches');
    const some = () =>
      Array.from({ length: random() * 12 }, () => 'ab😀😁'[Math.floor(random() * 6)]).join('');
    for (let n = 0; n < 2000; n++) {
      const [from, to] = [JSON.stringify(some()), JSON.stringify(some())];
      expect(applyPatch(from, makePatch(base, { from, to }, checkSum), checkSum)).toBe(to);
    }
  });
});

describe('the chain of a hold', () => {
  const entries = Array.from({ length: 20 }, (_, i) => entry(i + 1));
  const chains = entries.reduce(
    (all, one) => [...all, chainAfter(all.at(-1)!, digest(textOf(one)), digest)],
    [chainStart('t', digest)],
  );
  const head = (number: number) => ({ number, chain: chains[number]! });

  it('is followed in whatever order entries come, and checks heads when it can', () => {
    const random = seededRandom('orders');
    for (let round = 0; round < 50; round++) {
      const chain = HoldChain.begin('t', digest);
      expect([chain.takeHead(head(0)), chain.takeHead(head(20))]).toEqual(['checked', 'unknown']);
      const checked = shuffled(entries, random).flatMap((e) => chain.takeEntry(e.number, textOf(e)));
      expect([chain.whole, chain.chain, chain.broken]).toEqual([20, chains[20], false]);
      expect(checked).toEqual([head(20)]);
      // A request that was overtaken: its head is among the last ones.
      expect(chain.takeHead(head(7))).toBe('checked');
    }
  });

  it.each<[string, (chain: HoldChain) => void]>([
    ['a head that does not fit its entries', (chain) => chain.takeHead({ number: 20, chain: 'made up' })],
    ['an older one that never was', (chain) => chain.takeHead({ number: 5, chain: 'made up' })],
    [
      'two for one number, before the entries come',
      (chain) => ['one', 'other'].forEach((made) => chain.takeHead({ number: 30, chain: made })),
    ],
    [
      'one whose entries turn out to be others',
      (chain) => {
        chain.takeHead({ number: 21, chain: 'made up' });
        chain.takeEntry(21, textOf(entry(21)));
      },
    ],
  ])('is broken by %s', (_, act) => {
    const chain = HoldChain.begin('t', digest);
    for (const one of entries) chain.takeEntry(one.number, textOf(one));
    act(chain);
    expect(chain.broken).toBe(true);
  });
});

describe('the receipt', () => {
  it('is read out in three groups of four', () => {
    // 60 zero bits are twelve times the first sign; 60 one bits twelve times the last
    expect(receiptCode('0'.repeat(64))).toBe('AAAA-AAAA-AAAA');
    expect(receiptCode('f'.repeat(64))).toBe('9999-9999-9999');
  });
});
