import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { firstBrokenLink, firstLink, linkOf, type Observation } from './observation';

const digest = (text: string) => createHash('sha256').update(text).digest('hex');
const start = firstLink('KX4M', digest);

const noted: Observation[] = [
  { kind: 'reload', from: 10, to: 10, facts: {} },
  { kind: 'connection gap', from: 20, to: 95, facts: { seconds: 75 } },
  { kind: 'second hold', from: 120, to: 120, facts: { hold: 2, sameDevice: false } },
];
const chain = (observations: readonly Observation[], from = start) => {
  let before = from;
  return observations.map((one) => ({ ...one, hash: (before = linkOf(before, one, digest)) }));
};
const broken = (rows: ReturnType<typeof chain>) => firstBrokenLink(start, rows, digest);

it('a chain of observations holds as it was written, also where nothing was noted', () => {
  expect(broken(chain(noted))).toBeNull();
  expect(broken([])).toBeNull();
});

it('shows the first row that was altered, whatever was altered in it', () => {
  for (const [place, row] of chain(noted).entries())
    for (const change of [{ kind: 'check' as const }, { from: 1 }, { to: 999 }, { facts: { seconds: 5 } }]) {
      const altered = chain(noted).map((one, i) => (i === place ? { ...row, ...change } : one));
      expect(broken(altered)).toBe(place);
    }
});

it('shows where a row is missing, was put in, or stands in another place', () => {
  const [a, b, c] = chain(noted) as [
    ReturnType<typeof chain>[0],
    ReturnType<typeof chain>[0],
    ReturnType<typeof chain>[0],
  ];
  expect(broken([b, c])).toBe(0);
  expect(broken([a, c])).toBe(1);
  expect(broken([a, a, b, c])).toBe(1);
  expect(broken([a, c, b])).toBe(1);
  // A row that follows the altered one by its own hash does not hide it: that hash is of what was there before.
  const forged = { ...b, to: 30, hash: linkOf(a.hash, { ...b, to: 30 }, digest) };
  expect(broken([a, forged, c])).toBe(2);
  // What is cut off at the end does not show in the chain itself: the last hash is kept elsewhere.
  expect(broken([a, b])).toBeNull();
});

it('of one sitting is no chain of another, and the order of facts does not matter', () => {
  expect(firstBrokenLink(firstLink('ANOTHER', digest), chain(noted), digest)).toBe(0);
  const [one, other] = [
    { a: 1, b: true },
    { b: true, a: 1 },
  ].map((facts) => linkOf(start, { kind: 'check', from: 1, to: 1, facts }, digest));
  expect(one).toBe(other);
});
