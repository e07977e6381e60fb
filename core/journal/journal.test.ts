import { describe, expect, it } from 'vitest';
import { seededRandom, shuffled } from '../random';
import type { KeptEntry } from './entry';
import { foldJournal } from './fold';
import { canonicalJson, receiptCode } from './receipt';

const entry = (
  device: string,
  seq: number,
  value: unknown,
  order: number,
  more: Partial<KeptEntry> = {},
): KeptEntry => ({
  device,
  seq,
  about: 'answer',
  target: 'tray/A',
  value,
  at: 0,
  order,
  standing: 'in-time',
  ...more,
});

describe('the fold', () => {
  it('lets the last seq of a device win, in whatever order and however often entries came', () => {
    const random = seededRandom('orders');
    const entries = Array.from({ length: 20 }, (_, i) => entry('a', i + 1, i + 1, 0));
    for (let round = 0; round < 200; round++) {
      const arrived = shuffled([...entries, ...entries.slice(5, 9)], random).map((e, order) => ({
        ...e,
        order,
      }));
      expect(foldJournal(arrived).answers['tray/A']).toBe(20);
    }
  });

  it('lets the device that arrived last win', () => {
    expect(foldJournal([entry('a', 9, 'old', 1), entry('b', 1, 'new', 2)]).answers['tray/A']).toBe('new');
    expect(foldJournal([entry('b', 1, 'new', 1), entry('a', 9, 'late', 2)]).answers['tray/A']).toBe('late');
  });

  it('leaves out what came after time and keeps what is late', () => {
    const entries = [
      entry('a', 1, 'first', 1),
      entry('a', 2, 'late', 2, { standing: 'late' }),
      entry('a', 3, 'over', 3, { standing: 'after-time' }),
      entry('a', 4, 'undecided', 4, { standing: 'waiting' }),
    ];
    expect(foldJournal(entries).answers['tray/A']).toBe('late');
  });

  it('keeps flags, strike-outs, openings and the place apart', () => {
    const desk = foldJournal([
      entry('a', 1, true, 1, { about: 'flag', target: 'tray' }),
      entry('a', 2, ['k1'], 2, { about: 'strike' }),
      entry('a', 3, true, 3, { about: 'opened', target: 'tray' }),
      entry('a', 4, null, 4, { about: 'place', target: 'tray' }),
      entry('a', 5, null, 5, { about: 'place', target: 'note' }),
    ]);
    expect(desk).toEqual({
      answers: {},
      flags: { tray: true },
      struck: { 'tray/A': ['k1'] },
      opened: { tray: true },
      place: 'note',
    });
  });
});

describe('the receipt', () => {
  it('is the same for the same answers, however their keys stand', () => {
    const a = canonicalJson({ b: [1, { d: null, c: 'é' }], a: undefined });
    expect(a).toBe('{"b":[1,{"c":"é","d":null}]}');
    expect(canonicalJson({ b: [1, { c: 'é', d: null }] })).toBe(a);
  });

  it('is read out in three groups of four', () => {
    // 60 zero bits are twelve times the first sign; 60 one bits twelve times the last
    expect(receiptCode('0'.repeat(64))).toBe('AAAA-AAAA-AAAA');
    expect(receiptCode('f'.repeat(64))).toBe('9999-9999-9999');
  });
});
