import { describe, expect, it } from 'vitest';
import { foldTime, type TimeEvent } from '../timing/sittingTime';
import {
  judgeSitting,
  type EntryRecord,
  type HeadRecord,
  type HoldRecord,
  type SittingRecord,
} from './judge';

const SECOND = 1000;
const MINUTE = 60 * SECOND;
/** The end of every sitting here: ten minutes from the start at 0. */
const END = 10 * MINUTE;
const TERMS = { limitMs: END, extraPercent: 0, breakMs: 5 * MINUTE, sectionLimitsMs: { B: 4 * MINUTE } };

let order = 0;
const entry = (number: number, claimedAt: number, arrivedAt: number, more: Partial<EntryRecord> = {}) => ({
  hold: 1,
  number,
  about: 'answer' as const,
  target: 'tray/A',
  claimedAt,
  arrivedAt,
  order: ++order,
  base: null,
  restored: null,
  aside: null,
  ...more,
});
const head = (number: number, arrivedAt: number, heard: number, checked = true): HeadRecord => ({
  number,
  arrivedAt,
  heard,
  checked,
});
const hold = (
  entries: readonly EntryRecord[],
  heads: readonly HeadRecord[],
  more: Partial<HoldRecord> = {},
): HoldRecord => ({ number: 1, grantedAt: 0, broken: false, entries, heads, ...more });
const started: TimeEvent[] = [{ type: 'started', at: 0 }];
const judged = (
  holds: readonly HoldRecord[],
  {
    events = [],
    now = END + 13 * MINUTE,
    ...more
  }: Partial<SittingRecord> & {
    readonly events?: TimeEvent[];
    readonly now?: number;
  } = {},
) =>
  judgeSitting(
    {
      holds,
      decided: [],
      limitedSection: () => null,
      readable: () => true,
      turns: null,
      ...more,
      time: foldTime(TERMS, [...started, ...events]),
    },
    now,
  );
const standing = (...given: Parameters<typeof judged>) => judged(...given).verdicts.map((v) => v.standing);

describe('an entry and the end', () => {
  const late = END + 5 * SECOND;
  it.each([
    // A head that covers it arrived in time; the bytes followed.
    ['announced before the end', entry(1, 0, late), [head(1, END, END - 900)], 'late'],
    ['announced in the grace, claimed before', entry(1, END - 1, late), [head(1, late, END - 9000)], 'late'],
    ['claimed after the end', entry(1, END + 1, late), [head(1, late, END - 9000)], 'after'],
    [
      'claimed before, but a time after the end was named before it',
      entry(1, END - 1, late),
      [head(0, late, END), head(1, late, END)],
      'after',
    ],
    [
      'first heard of after the grace',
      entry(1, END - 1, END + 121 * SECOND),
      [head(1, END + 121 * SECOND, END - 9000)],
      'waiting',
    ],
    // Without a head its own arrival counts, and the grant is the only time before it.
    ['that no head covers', entry(1, END - 1, late), [], 'late'],
    ['whose head cannot be checked', entry(1, END - 1, late), [head(1, END, END, false)], 'late'],
    ['whose bytes came after twelve minutes', entry(1, 0, END + BYTES + 1), [head(1, END, END)], 'waiting'],
    // A made-up head from before the end must not make it earlier.
    ['whose head is made up', entry(1, END + 1, late), [head(1, END - 900, END - 900, false)], 'after'],
    ['that arrived before the end, whatever it claims', entry(1, 99 * END, END), [], 'in time'],
  ])('%s', (_, one, heads, expected) => expect(standing([hold([one], heads)])).toEqual([expected]));
});
const BYTES = 12 * MINUTE;

describe('what was announced', () => {
  const held = () => hold([entry(1, 0, END + SECOND)], [head(3, END - SECOND, END - 2 * SECOND)]);
  it('holds up what is here until the rest has come, and in the end is for a person to decide', () => {
    const unchecked = { ...held(), heads: [head(1, END - 2000, 0), head(3, END - 1000, 0, false)] };
    expect(standing([unchecked], { now: END + MINUTE })).toEqual(['pending']);
    const atLast = judged([unchecked]);
    expect(atLast.verdicts.map((v) => v.standing)).toEqual(['waiting']);
    expect([atLast.complete, atLast.missing]).toEqual([false, [{ hold: 1, from: 2, to: 3 }]]);
  });

  it('of one hold holds up the others', () => {
    const other = hold([entry(1, 0, END + SECOND, { hold: 2 })], [head(1, END - 1, 0)], { number: 2 });
    expect(standing([{ ...held(), heads: [head(3, END, 0, false)] }, other])).toEqual(['waiting', 'waiting']);
  });

  it('by whom contradicts himself counts for nothing: what came after the end waits', () => {
    const broken = hold([entry(1, 0, END), entry(2, 0, END + 1)], [head(2, END - 5, 0)], { broken: true });
    expect(standing([broken])).toEqual(['in time', 'waiting']);
  });

  it('is final once every hold has named a time not before the end, with nothing outstanding', () => {
    const one = (heads: HeadRecord[], number = 1) =>
      hold([entry(1, 0, 5, { hold: number })], heads, { number });
    const told = [head(1, END + 500, END)];
    expect(judged([one(told)], { now: END + 600 }).final).toBe(true);
    expect(judged([one(told), one([head(1, 10, 5)], 2)], { now: END + 600 }).final).toBe(false);
    expect(judged([one([head(1, END + 500, END - 1)])], { now: END + 600 }).final).toBe(false);
    expect(judged([one([...told, head(2, 9, 0, false)])], { now: END + 600 }).final).toBe(false);
  });
});

describe('a hand-in by the candidate', () => {
  const at = 5 * MINUTE;
  const events: TimeEvent[] = [{ type: 'closed', at, by: 'candidate' }];
  it('is completed by what it named, and by nothing else: the rest waits for a coordinator', () => {
    const [named, unnamed] = [entry(1, at - 2000, at + 3000), entry(2, at - 1000, at + 4000)];
    const own = hold([named, unnamed], [head(1, at, at - 3000), head(2, at + 4000, at - 3000)]);
    expect(standing([own], { events })).toEqual(['late', 'waiting']);
    // Of another device too, which had announced nothing.
    const other = hold([entry(1, at - 5000, at + 6000, { hold: 2 })], [head(1, at + 6000, at - 6000)], {
      number: 2,
    });
    expect(standing([hold([], []), other], { events })).toEqual(['waiting']);
  });
});

describe('a closing by an invigilator', () => {
  const closed: TimeEvent[] = [{ type: 'closed', at: 5 * MINUTE, by: 'staff' }];
  const at = (claim: number) =>
    standing([hold([entry(1, claim, 5 * MINUTE + 9000)], [])], { events: closed })[0];
  it('leaves two seconds for what the device could not know', () => {
    expect([at(5 * MINUTE + 2000), at(5 * MINUTE + 2001)]).toEqual(['late', 'after']);
  });
});

describe('a section with a limit of its own', () => {
  const limitedSection = (target: string) => (target === 'tray/A' ? 'B' : null);
  const events: TimeEvent[] = [{ type: 'section entered', at: MINUTE, section: 'B' }];
  // Entered after one minute, it ends after five.
  const both = [
    entry(1, 5 * MINUTE + 1, 5 * MINUTE + 3000),
    entry(2, 5 * MINUTE + 1, 5 * MINUTE + 3000, { target: 'other/A' }),
  ];
  it('ends for its own questions alone', () => {
    expect(standing([hold(both, [head(0, 5 * MINUTE, 5 * MINUTE)])], { limitedSection, events })).toEqual([
      'after',
      'in time',
    ]);
  });
  it('takes nothing while it is sealed', () => {
    expect(standing([hold(both, [])], { limitedSection })[0]).toBe('aside');
  });
});

describe('writing-in-stop', () => {
  const stop = 3 * MINUTE;
  const pause: TimeEvent[] = [
    { type: 'paused', at: stop },
    { type: 'went on', at: stop + MINUTE },
  ];
  const rest: TimeEvent[] = [
    { type: 'break began', at: stop },
    { type: 'break ended', at: stop + MINUTE },
  ];
  const inStop = (events: TimeEvent[], claim: number, arrival: number, heard: number) =>
    judged([hold([entry(1, claim, arrival)], [head(0, heard, heard), head(1, arrival, heard)])], { events })
      .verdicts[0]!.inStop;
  it.each<[string, TimeEvent[], number, number, number, boolean]>([
    ['ends within 10 s of a pause', pause, stop + 9000, stop + 10_000, stop - 5000, false],
    ['is claimed within 10 s, in an interval of 25 s', pause, stop + 9000, stop + 20_000, stop - 5000, false],
    ['is claimed later', pause, stop + 10_001, stop + 20_000, stop - 5000, true],
    ['has an interval of more than 25 s', pause, stop + 9000, stop + 20_001, stop - 5000, true],
    ['began in the pause', pause, stop + 9000, stop + 20_000, stop, true],
    ['comes after going on was confirmed', pause, stop, stop + 2 * MINUTE, stop + MINUTE, false],
    ['ends with the request for a break', rest, 0, stop, stop - 5000, false],
    ['goes on after that request', rest, 0, stop + 1, stop - 5000, true],
  ])('%s', (_, events, claim, arrival, heard, expected) => {
    expect(inStop(events, claim, arrival, heard)).toBe(expected);
  });

  const before = entry(1, 0, 1000);
  const within = entry(2, 0, stop + 30_000);
  const heads = [head(1, 1000, 900), head(2, stop + 30_000, stop), head(2, stop + MINUTE, stop + MINUTE)];
  const winner = (more: EntryRecord[], others: HoldRecord[] = [], decided: SittingRecord['decided'] = []) =>
    judged([hold([before, within, ...more], heads), ...others], { events: pause, decided }).winners.get(
      'answer tray/A',
    );

  it('makes two versions where the value rests on it', () => {
    expect(winner([])).toEqual({ entry: within, without: before });
    const after = entry(3, 0, stop + 2 * MINUTE);
    expect(winner([after])).toEqual({ entry: after, without: before });
    const next = hold([entry(1, 0, stop + 3 * MINUTE, { hold: 2 })], [], {
      number: 2,
      grantedAt: stop + 2 * MINUTE,
    });
    expect(winner([], [next])).toEqual({ entry: next.entries[0], without: before });
  });

  it('makes one version where it does not: another part, or a hold granted before', () => {
    const elsewhere = entry(3, 0, stop + 2 * MINUTE, { target: 'note/A' });
    expect(
      judged([hold([before, within, elsewhere], heads)], { events: pause }).winners.get('answer note/A'),
    ).toEqual({ entry: elsewhere });
    const own = [entry(1, 0, stop + 3 * MINUTE, { hold: 2 })];
    // Granted before the writing in the stop arrived; it confirmed going on before it wrote.
    const confirmed = [head(0, stop + 2 * MINUTE, stop + MINUTE)];
    const granted = hold(own, confirmed, { number: 2, grantedAt: stop - 1 });
    expect(winner([], [granted])).toEqual({ entry: granted.entries[0] });
  });

  it('is settled by a coordinator', () => {
    const decide = (without: boolean) => winner([], [], [{ kind: 'stop', target: 'tray/A', without }]);
    expect([decide(true), decide(false)]).toEqual([{ entry: before }, { entry: within }]);
  });
});

describe('between holds', () => {
  const first = [entry(1, 0, 1000), entry(2, 0, 9000)];
  const second = hold([entry(1, 0, 5000, { hold: 2 })], [], { number: 2, grantedAt: 4000 });
  const winner = (holds: HoldRecord[], more = {}) => judged(holds, more).winners.get('answer tray/A')?.entry;

  it('the latest hold that wrote the part wins, whatever arrives last', () => {
    expect(winner([hold(first, []), second])).toBe(second.entries[0]);
  });

  it('an earlier value stands in for one that cannot be read', () => {
    const readable = (one: EntryRecord) => one.hold === 1;
    expect(winner([hold(first, []), second], { readable })).toBe(first[1]);
  });

  it('a version that came after the end and is claimed later is put before a coordinator', () => {
    const rival = entry(3, END - 5, END + 3000);
    const holds = [hold([...first, rival], [head(3, END + 3000, 9000)]), second];
    expect(judged(holds).winners.get('answer tray/A')).toEqual({ entry: second.entries[0], rival });
    const decided = [{ kind: 'version' as const, target: 'tray/A', choose: { hold: 1, number: 3 } }];
    expect(winner(holds, { decided })).toBe(rival);
  });
});

describe('writing that is hidden', () => {
  const pause: TimeEvent[] = [
    { type: 'paused', at: 2 * MINUTE },
    { type: 'went on', at: 4 * MINUTE },
  ];
  const inStop = (...given: Parameters<typeof judged>) => judged(...given).verdicts.map((v) => v.inStop);

  it('by a head of number 0 that names the present: what is here was made before it', () => {
    const written = entry(1, 5 * MINUTE, 3 * MINUTE);
    const holds = [hold([written], [head(1, 3 * MINUTE, MINUTE), head(0, 5 * MINUTE, 5 * MINUTE)])];
    const [verdict] = judged(holds, { events: pause }).verdicts;
    expect([verdict!.from, verdict!.to, verdict!.inStop]).toEqual([3 * MINUTE, 3 * MINUTE, true]);
  });

  it('by a contradiction afterwards: what a checked head covers stays as it was known', () => {
    // Written offline in the pause, delivered after it; then the same number with another chain.
    const [one, two] = [entry(1, MINUTE, 5 * MINUTE), entry(2, MINUTE, 6 * MINUTE)];
    const heads = [head(0, MINUTE, MINUTE), head(1, 5 * MINUTE, MINUTE), head(1, 5 * MINUTE + 1, 0, false)];
    expect(inStop([hold([one], heads.slice(0, 2))], { events: pause })).toEqual([true]);
    expect(inStop([hold([one, two], heads, { broken: true })], { events: pause })).toEqual([true, false]);
  });
});

describe('a silence', () => {
  it('goes on record also where a coordinator decides on what was written in it', () => {
    const across = entry(1, END - 1, END + 200_000);
    const heads = [head(0, END - 6000, END - 6000), head(1, END + 200_000, 0)];
    const found = judged([hold([across], heads)]);
    expect(found.verdicts[0]!.standing).toBe('waiting');
    expect(found.silences).toEqual([{ hold: 1, from: END - 6000, to: END + 200_000, across: 'end' }]);
  });

  it('across the end or a stop goes on record where the writing counts', () => {
    const across = entry(1, END - 1, END + 20_000);
    const quiet = judged([hold([across], [head(0, END - 6000, END - 6000), head(1, END + 20_000, 0)])]);
    expect(quiet.silences).toEqual([{ hold: 1, from: END - 6000, to: END + 20_000, across: 'end' }]);
    const heard = judged([hold([across], [head(0, END - 5000, END - 5000), head(1, END + 20_000, 0)])]);
    expect([heard.silences, heard.verdicts[0]!.standing]).toEqual([[], 'late']);
  });
});

describe('a decision about late entries', () => {
  it('is for those that had come by then', () => {
    const [one, two] = [entry(1, 0, END + BYTES + 1), entry(2, 0, END + BYTES + 2)];
    const holds = [hold([one, two], [head(2, END, 0)])];
    const by = (count: boolean) => standing(holds, { decided: [{ kind: 'late', upTo: one.order, count }] });
    expect([by(true), by(false)]).toEqual([
      ['late', 'waiting'],
      ['left out', 'waiting'],
    ]);
  });
});
