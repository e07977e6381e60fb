import { describe, expect, it } from 'vitest';
import { seededRandom, type Random } from '../random';
import {
  breakLeftMs,
  deadlineAt,
  foldTime,
  graceMsOf,
  isOver,
  leftMs,
  newTime,
  ranOutAt,
  sectionEndAt,
  sectionLeftMs,
  step,
  stopAt,
  type SittingTime,
  type TimeEvent,
  type TimeTerms,
} from './sittingTime';

const TERMS: TimeTerms = { limitMs: 100, extraPercent: 50, breakMs: 20, sectionLimitsMs: { B: 40 } };

/**
 * The slow, obvious model: it goes through time one unit after the other and counts clocks down by hand. One unit of
 * time here is one millisecond there.
 */
class SlowClock {
  /** What is left of the paper; below 0 where it ran on, waiting for a device that may be given some back. */
  private balance: number;
  breakLeft: number;
  private running = false;
  private closed = false;
  paused = false;
  onBreak = false;
  /** What is left of sections that were entered, and how long they have run. */
  private readonly sections = new Map<string, { left: number; ran: number }>();
  /** What no device has confirmed yet: when it was recorded, and the time that ran since. */
  private unconfirmed: { at: number; ran: number }[] = [];
  givenBack = 0;
  /** How long the clock had run at each unit of time. */
  private readonly history: number[] = [0];
  private readonly terms: TimeTerms;
  private now = 0;

  constructor(terms: TimeTerms) {
    this.terms = terms;
    this.balance = terms.limitMs * (1 + terms.extraPercent / 100);
    this.breakLeft = terms.breakMs;
  }

  get left(): number {
    return Math.max(0, this.balance);
  }

  sectionLeft(key: string): number | null {
    const own = this.sections.get(key);
    return own ? Math.max(0, Math.min(own.left, this.left)) : null;
  }

  /** When the time came to nothing, by all that was given: the first unit at which as much had run. */
  get endedAt(): number | null {
    const total = this.balance + this.history.at(-1)!;
    const at = this.history.findIndex((ran) => ran >= total);
    return this.balance <= 0 ? at : null;
  }

  tick(): void {
    this.now++;
    const runs = this.running && !this.closed && !this.paused && !this.onBreak;
    this.history.push(this.history.at(-1)! + (runs ? 1 : 0));
    if (this.onBreak) {
      this.breakLeft--;
      if (this.breakLeft === 0) this.onBreak = false;
    }
    if (!runs) return;
    this.balance--;
    for (const one of this.unconfirmed) one.ran++;
    for (const own of this.sections.values()) [own.left, own.ran] = [own.left - 1, own.ran + 1];
  }

  /** Does what the event says where it can be done, and says whether it could. */
  take(event: TimeEvent): boolean {
    const owed = Math.max(0, ...this.unconfirmed.map((one) => one.ran));
    const live = this.running && !this.closed && this.balance + owed > 0;
    switch (event.type) {
      case 'started':
        if (this.running) return false;
        this.running = true;
        return this.tells();
      case 'paused':
        if (!live || this.paused) return false;
        [this.paused, this.onBreak] = [true, false];
        return true;
      case 'went on':
        if (!live || !this.paused) return false;
        this.paused = false;
        return this.tells();
      case 'break began':
        if (!live || this.paused || this.onBreak || this.breakLeft === 0) return false;
        this.onBreak = true;
        return true;
      case 'break ended':
        if (!live || !this.onBreak) return false;
        this.onBreak = false;
        return this.tells();
      case 'granted':
        if (!live) return false;
        this.give(event.ms, 0);
        return true;
      case 'section entered': {
        if (!live) return false;
        if (this.sections.has(event.section)) return true;
        const left = this.terms.sectionLimitsMs[event.section]! * (1 + this.terms.extraPercent / 100);
        this.sections.set(event.section, { left, ran: 0 });
        return this.tells();
      }
      case 'closed':
        if (!this.running || this.closed) return false;
        [this.closed, this.paused, this.onBreak] = [true, false, false];
        this.unconfirmed = [];
        this.takeBackOverrun();
        return true;
      case 'confirmed': {
        const told = this.unconfirmed.filter((one) => one.at <= event.heard);
        if (!live || told.length === 0) return false;
        this.unconfirmed = this.unconfirmed.filter((one) => one.at > event.heard);
        // Units of 1 ms here: the grace of two minutes is never used up, so that all of it comes back.
        const ran = Math.max(...told.map((one) => one.ran));
        for (const one of this.unconfirmed) one.ran = 0;
        this.givenBack += ran;
        if (ran > 0) this.give(ran, ran);
        return true;
      }
      case 'readmitted':
        // Somebody let in again without a minute left needs minutes.
        if (!this.closed || this.left + event.ms === 0) return false;
        this.closed = false;
        if (event.ms > 0) this.give(event.ms, 0);
        return this.tells();
    }
  }

  private tells(): true {
    this.unconfirmed.push({ at: this.now, ran: 0 });
    return true;
  }

  /** `lost` of it had run without the candidate: a section that only so came to its end goes on. */
  private give(ms: number, lost: number): void {
    for (const own of this.sections.values()) if (own.left + Math.min(lost, own.ran) > 0) own.left += ms;
    this.balance += ms;
  }

  /** Closed too late, the sitting ended when its time ran out: what ran since does not count. */
  private takeBackOverrun(): void {
    const over = Math.max(0, -this.balance);
    this.balance += over;
    for (const own of this.sections.values()) {
      const ran = Math.max(0, own.ran - over);
      [own.left, own.ran] = [own.left + own.ran - ran, ran];
    }
    const most = this.history.at(-1)! - over;
    this.history.forEach((ran, at) => (this.history[at] = Math.min(ran, most)));
  }
}

const KINDS: ((at: number, random: Random) => TimeEvent)[] = [
  (at) => ({ type: 'started', at }),
  (at) => ({ type: 'paused', at }),
  (at) => ({ type: 'went on', at }),
  (at) => ({ type: 'went on', at }),
  (at) => ({ type: 'break began', at }),
  (at) => ({ type: 'break ended', at }),
  (at, random) => ({ type: 'granted', at, ms: 1 + Math.floor(random() * 30) }),
  (at) => ({ type: 'confirmed', at, heard: at }),
  (at, random) => ({ type: 'confirmed', at, heard: at - Math.floor(random() * 30) }),
  (at) => ({ type: 'section entered', at, section: 'B' }),
  (at, random) => ({ type: 'closed', at, by: random() < 0.5 ? 'candidate' : 'server' }),
  (at, random) => ({ type: 'readmitted', at, ms: random() < 0.5 ? 0 : 10 }),
];

/** What both clocks say, in one line, so that a difference can be read. */
const told = (...facts: (string | number | null | undefined)[]) =>
  facts.map((fact) => fact ?? 'none').join(' ');

/** Finding the end of the time costs some steps: now and then is often enough. */
const asksForEnd = (now: number) => now % 9 === 0;

function slowlyTold(slow: SlowClock, now: number): string {
  const stopped = slow.paused ? 'pause' : slow.onBreak ? 'break' : null;
  return told(
    slow.left,
    slow.breakLeft,
    stopped,
    slow.sectionLeft('B'),
    slow.givenBack,
    asksForEnd(now) ? slow.endedAt : null,
  );
}

function quicklyTold(time: SittingTime, now: number): string {
  const section = sectionLeftMs(time, 'B', now);
  const stopped = stopAt(time, now)?.why;
  const ended = asksForEnd(now) ? ranOutAt(time, now) : null;
  return told(leftMs(time, now), breakLeftMs(time, now), stopped, section, time.givenBackMs, ended);
}

/** One schedule: at each unit of time perhaps an event. Gives the first moment at which the clocks differ, if any. */
function firstDifference(seed: string): string | null {
  const random = seededRandom(seed);
  const terms = { ...TERMS, breakMs: [0, 7, 20][Math.floor(random() * 3)]! };
  const slow = new SlowClock(terms);
  let time: SittingTime = newTime(terms);
  const rate = 0.02 + random() * 0.2;
  for (let now = 0; now < 330; now++) {
    if (random() < rate) {
      // Closing is rare, as in life; nearly every other schedule would be over at once.
      const pick = random() < 0.1 ? KINDS.length - 2 : Math.floor(random() * (KINDS.length - 2));
      const event = KINDS[time.closed ? KINDS.length - 1 : pick]!(now, random);
      const next = step(time, event);
      if (next.done !== slow.take(event)) return `${seed}: ${event.type} at ${now} done: ${next.done}`;
      if (next.done) time = next.time;
    }
    const [quick, obvious] = [quicklyTold(time, now), slowlyTold(slow, now)];
    if (quick !== obvious) return `${seed} at ${now}: ${quick}, not ${obvious}`;
    slow.tick();
  }
  return null;
}

describe('the clock of a sitting', () => {
  it('says at every moment of three thousand schedules what the slow model says', () => {
    const differences = Array.from({ length: 3000 }, (_, n) => firstDifference(`schedule ${n}`));
    expect(differences.filter((difference) => difference !== null)).toEqual([]);
  });

  const started = (events: TimeEvent[]): SittingTime =>
    [{ type: 'started', at: 1000 } as const, ...events].reduce<SittingTime>((time, event) => {
      const next = step(time, event);
      if (!next.done) throw new Error(next.refusal);
      return next.time;
    }, newTime(TERMS));

  it('moves the deadline by grants and stops', () => {
    // 100 and half as much again are 150; 25 granted; a pause of 10, a break of 5
    const time = started([
      { type: 'granted', at: 1010, ms: 25 },
      { type: 'paused', at: 1020 },
      { type: 'went on', at: 1030 },
      { type: 'break began', at: 1040 },
      { type: 'break ended', at: 1045 },
    ]);
    expect(deadlineAt(time, 1050)).toBe(1000 + 150 + 25 + 10 + 5);
    expect(breakLeftMs(time, 1050)).toBe(15);
  });

  it('has no deadline while paused, and takes a running break to be used up', () => {
    expect(deadlineAt(started([{ type: 'paused', at: 1020 }]), 1060)).toBeNull();
    const resting = started([{ type: 'break began', at: 1020 }]);
    expect(deadlineAt(resting, 1025)).toBe(1000 + 150 + 20);
    expect(stopAt(resting, 1025)).toEqual({ why: 'break', since: 1020, until: 1040 });
    // The allowance is used up at 1040, whether anybody says so or not.
    expect(stopAt(resting, 1041)).toBeNull();
    expect(deadlineAt(resting, 1100)).toBe(1000 + 150 + 20);
  });

  it('ends a section inside the paper, and it stays closed', () => {
    // 40 and half as much again are 60 from 1030
    const time = started([{ type: 'section entered', at: 1030, section: 'B' }]);
    expect(sectionLeftMs(time, 'B', 1080)).toBe(10);
    expect(sectionEndAt(time, 'B', 1100)).toBe(1090);
    const later = step(time, { type: 'granted', at: 1095, ms: 30 });
    expect(later.done && sectionLeftMs(later.time, 'B', 1096)).toBe(0);
    expect(sectionLeftMs(time, 'A', 1080)).toBeNull();
  });

  it('gives back what ran until a device showed that it had heard, once, and shortens the grace by it', () => {
    const MINUTE = 60_000;
    const terms = { ...TERMS, limitMs: 60 * MINUTE, extraPercent: 0 };
    const events: TimeEvent[] = [
      { type: 'started', at: 0 },
      { type: 'section entered', at: 40_000, section: 'B' },
      // Names a time after the start, not after the entering: 50 s ran since the start.
      { type: 'confirmed', at: 50_000, heard: 1000 },
      // The entering is given back from 50 s on only.
      { type: 'confirmed', at: 80_000, heard: 45_000 },
      { type: 'paused', at: 90_000 },
      { type: 'went on', at: 100_000 },
      // 90 s ran, but 120 s in all are given back at the most: 40 s are left of them.
      { type: 'confirmed', at: 190_000, heard: 100_000 },
    ];
    const given: number[] = [];
    let time = newTime(terms);
    for (const event of events) {
      const next = step(time, event);
      if (!next.done) throw new Error(next.refusal);
      time = next.time;
      if (event.type === 'confirmed') given.push(time.givenBackMs);
    }
    expect(given).toEqual([50_000, 80_000, 120_000]);
    expect(deadlineAt(time, 200_000)).toBe(60 * MINUTE + 10_000 + 120_000);
    expect(graceMsOf(time)).toBe(30_000);
    expect(step(time, { type: 'confirmed', at: 200_000, heard: 200_000 })).toEqual({
      done: false,
      refusal: 'nothing to confirm',
    });
  });

  describe('gives back also what would have run out meanwhile', () => {
    const SECOND = 1000;
    const terms = { ...TERMS, limitMs: 600 * SECOND, extraPercent: 0, sectionLimitsMs: { B: 200 * SECOND } };
    const after = (...events: TimeEvent[]) =>
      foldTime(terms, [{ type: 'started', at: 0 }, { type: 'confirmed', at: 0, heard: 0 }, ...events]);
    const paused = after({ type: 'paused', at: 540 * SECOND }, { type: 'went on', at: 700 * SECOND });
    const entered = after({ type: 'section entered', at: 100 * SECOND, section: 'B' });

    it('after a pause with 60 s left, where the device is back after 70 s', () => {
      expect([leftMs(paused, 770 * SECOND), isOver(paused, 770 * SECOND)]).toEqual([0, false]);
      const back = step(paused, { type: 'confirmed', at: 770 * SECOND, heard: 770 * SECOND });
      expect(back.done && leftMs(back.time, 770 * SECOND)).toBe(60 * SECOND);
      expect(back.done && graceMsOf(back.time)).toBe(50 * SECOND);
    });

    it('but no more than one grace: it is over 120 s after it ran out, and then ended when it ran out', () => {
      expect([isOver(paused, 879 * SECOND), isOver(paused, 880 * SECOND)]).toEqual([false, true]);
      const closed = step(paused, { type: 'closed', at: 881 * SECOND, by: 'server' });
      expect(closed.done && closed.time.closed).toEqual({ at: 760 * SECOND, by: 'server' });
      expect(step(paused, { type: 'confirmed', at: 880 * SECOND, heard: 880 * SECOND })).toEqual({
        done: false,
        refusal: 'time is over',
      });
    });

    it('of a section of 200 s that was entered as the line died', () => {
      // Lost until 210 s after the entering; 120 s of it come back: 110 are left.
      expect(sectionLeftMs(entered, 'B', 310 * SECOND)).toBe(0);
      const back = step(entered, { type: 'confirmed', at: 310 * SECOND, heard: 310 * SECOND });
      expect(back.done && sectionLeftMs(back.time, 'B', 310 * SECOND)).toBe(110 * SECOND);
      // Heard of and ended of itself it stays closed.
      const heard = after(
        { type: 'section entered', at: 100 * SECOND, section: 'B' },
        { type: 'confirmed', at: 101 * SECOND, heard: 100 * SECOND },
        { type: 'granted', at: 310 * SECOND, ms: 60 * SECOND },
      );
      expect(sectionLeftMs(heard, 'B', 311 * SECOND)).toBe(0);
    });
  });

  it.each<[string, TimeEvent[], TimeEvent, string]>([
    ['a second start', [], { type: 'started', at: 1001 }, 'already started'],
    ['going on while it runs', [], { type: 'went on', at: 1001 }, 'not stopped'],
    [
      'a grant after the end',
      [{ type: 'confirmed', at: 1001, heard: 1000 }],
      { type: 'granted', at: 1153, ms: 5 },
      'time is over',
    ],
    ['letting in who is in', [], { type: 'readmitted', at: 1001, ms: 5 }, 'not closed'],
    [
      'a pause after hand-in',
      [{ type: 'closed', at: 1010, by: 'candidate' }],
      { type: 'paused', at: 1020 },
      'already closed',
    ],
  ])('refuses %s', (_, before, event, refusal) => {
    expect(step(started(before), event)).toEqual({ done: false, refusal });
  });
});
