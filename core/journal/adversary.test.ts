import { hash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { seededRandom, type Random } from '../random';
import { GRACE_MS, SILENCE_MS } from '../timing/deadline';
import { deadlineAt, graceMsOf, leftMs, stopAt } from '../timing/sittingTime';
import { chainAfter, chainStart, type Head } from './chain';
import type { Entry } from './entry';
import { counts, type Verdict } from './judge';
import { SimulatedServer, textOf, type SimulatedReply, type SimulatedRequest } from './simulatedServer';

const SECOND = 1000;
const LIMIT = 5 * 60 * SECOND;
const TERMS = { limitMs: LIMIT, extraPercent: 0, breakMs: 0, sectionLimitsMs: {} };
const digest = (text: string) => hash('sha256', text);
const between = (random: Random, low: number, high: number) => low + Math.floor(random() * (high - low));
const oneOf = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)]!;

/** What a device has written in a hold, with the true time of each entry, which no server can know. */
class Writing {
  readonly entries: Entry[] = [];
  readonly madeAt: number[] = [];
  private readonly chains: string[];
  readonly hold: number;
  private readonly token: string;

  constructor({ hold, token }: { readonly hold: number; readonly token: string }) {
    [this.hold, this.token] = [hold, token];
    this.chains = [chainStart(token, digest)];
  }

  write(madeAt: number, at: number): void {
    const number = this.entries.length + 1;
    const entry: Entry = { number, about: 'answer', target: 'tray/A', at, value: `${this.hold}.${number}` };
    this.entries.push(entry);
    this.madeAt.push(madeAt);
    this.chains.push(chainAfter(this.chains.at(-1)!, digest(textOf(entry)), digest));
  }

  head(number: number, heard: number): Head {
    const { hold, token } = this;
    return { hold, token, number, chain: this.chains[number]!, heard };
  }
}

/** What happens when, one after the other. */
class Agenda {
  /** The latest first, so that the next one is at the end. */
  private readonly acts: { at: number; act: () => void }[] = [];
  now = 0;

  at(at: number, act: () => void): void {
    let place = this.acts.length;
    while (place > 0 && this.acts[place - 1]!.at <= at) place--;
    this.acts.splice(place, 0, { at, act });
  }

  run(until: number): void {
    for (let next = this.acts.pop(); next && next.at <= until; next = this.acts.pop()) {
      this.now = Math.max(this.now, next.at);
      next.act();
    }
  }
}

/** A seeded walk of server and invigilator: pauses that begin and end, grants; gives server and agenda. */
function house(random: Random) {
  const server = new SimulatedServer(TERMS, digest);
  const agenda = new Agenda();
  server.try({ type: 'started', at: 0 });
  for (let n = between(random, 0, 3); n > 0; n--) {
    const from = between(random, 0, LIMIT);
    agenda.at(from, () => server.try({ type: 'paused', at: agenda.now }));
    agenda.at(from + between(random, 1, 90) * SECOND, () => server.try({ type: 'went on', at: agenda.now }));
  }
  if (random() < 0.3)
    agenda.at(between(random, 0, LIMIT), () => server.try({ type: 'granted', at: agenda.now, ms: 60_000 }));
  const sweep = () => {
    server.sweep(agenda.now);
    if (!server.time.closed) agenda.at(agenda.now + 3 * SECOND, sweep);
  };
  agenda.at(LIMIT, sweep);
  return { server, agenda };
}

const END_OF_WALK = 40 * 60 * SECOND;

interface Counted extends Verdict {
  readonly madeAt: number;
}
const countedOf = (server: SimulatedServer, writings: readonly Writing[], now: number): Counted[] =>
  server
    .judge(now)
    .verdicts.filter(counts)
    .map((v) => ({
      ...v,
      madeAt: writings.find((w) => w.hold === v.entry.hold)!.madeAt[v.entry.number - 1]!,
    }));

/**
 * A device that lies about every time it states, withholds, reorders and repeats entries, makes heads up and repeats old
 * ones, opens new holds and keeps the old ones for later, confirms late, hands in when it likes, and looks at results.
 */
function walkOfAdversary(seed: string): string | null {
  const random = seededRandom(seed);
  const { server, agenda } = house(random);
  const writings = [new Writing(server.grant(0))];
  const shown: { at: number; entries: ReadonlySet<string> | null } = { at: Infinity, entries: null };
  const nameOf = ({ entry }: Verdict) => `${entry.hold}.${entry.number}`;
  const claim = () => between(random, -60 * SECOND, LIMIT + 600 * SECOND);
  const heard = () => oneOf(random, [0, agenda.now, agenda.now - between(random, 0, 200) * SECOND, claim()]);
  const request = (writing: Writing): SimulatedRequest => {
    const written = writing.entries.length;
    const number = random() < 0.7 ? written : between(random, 0, written + 1);
    const honest = writing.head(number, heard());
    const head = random() < 0.03 ? { ...honest, chain: 'made up', number: number + 2 } : honest;
    const entries = writing.entries.filter(() => random() < oneOf(random, [0, 0.5, 1]));
    // Another content under a number that is taken: decided on only now.
    const other =
      random() < 0.03 && written > 0 ? [{ ...oneOf(random, writing.entries), value: 'else' }] : [];
    const handIn = random() < 0.01 ? oneOf(random, ['candidate', 'time'] as const) : undefined;
    return { head, entries: [...entries, ...other], handIn };
  };
  const steps = between(random, 20, 150);
  for (let n = 0; n < steps; n++)
    agenda.at(between(random, 0, LIMIT + (random() < 0.3 ? 900 : 150) * SECOND), () => {
      const writing = random() < 0.7 ? writings.at(-1)! : oneOf(random, writings);
      if (random() < 0.6) writing.write(agenda.now, oneOf(random, [claim(), agenda.now, LIMIT - 1]));
      else server.take(request(writing), agenda.now);
      if (random() < 0.02) writings.push(new Writing(server.grant(agenda.now)));
      if (shown.entries === null && server.mayShow(agenda.now)) {
        const counted = server.judge(agenda.now).verdicts.filter(counts);
        Object.assign(shown, { at: agenda.now, entries: new Set(counted.map(nameOf)) });
      }
    });
  agenda.run(END_OF_WALK);
  const { time } = server;
  const end = time.closed!.at;
  const { silences, complete } = server.judge(END_OF_WALK);
  if (time.givenBackMs > GRACE_MS) return `${seed}: ${time.givenBackMs} ms were given back`;
  for (const verdict of countedOf(server, writings, END_OF_WALK)) {
    const name = `${seed}: ${nameOf(verdict)} made at ${verdict.madeAt}, end ${end}`;
    const gain = verdict.madeAt - end;
    const silent = silences.some(
      (s) => s.across === 'end' && s.hold === verdict.entry.hold && s.to >= verdict.madeAt,
    );
    if (gain > (silent ? graceMsOf(time) : SILENCE_MS)) return `${name}: gained ${gain}, silent ${silent}`;
    if (verdict.entry.arrivedAt > end && !complete) return `${name}: chosen from what was announced`;
    const { at: shownAt, entries } = shown;
    if (verdict.madeAt > shownAt) return `${name}: after the result was shown at ${shownAt}`;
    if (entries && !entries.has(nameOf(verdict))) return `${name}: counts only since a result was shown`;
    for (const stop of time.stops) {
      const inside = verdict.madeAt > stop.from + SILENCE_MS && verdict.madeAt < stop.until!;
      const known = verdict.entry.arrivedAt < stop.until! || verdict.from < stop.until!;
      if (inside && known && !verdict.inStop) return `${name}: written in a stop unseen`;
    }
  }
  return null;
}

interface Line {
  /** One way, in ms; null where the message is lost. */
  trip(at: number): number | null;
}

/** 20 to 800 ms one way, losses, requests that stall for 8 s, and cuts. */
function badLine(random: Random, cuts: readonly (readonly [number, number])[]): Line {
  const loss = random() * 0.2;
  return {
    trip(at) {
      if (random() < loss || cuts.some(([from, to]) => at >= from && at < to)) return null;
      return random() < 0.03 ? 8 * SECOND : between(random, 20, 800);
    },
  };
}

const TIMEOUT = 12 * SECOND;
const BEAT = 10 * SECOND;

/**
 * An honest device: it claims what it can be sure of, sends soon after it has written, says that it is there, and at the
 * end tries at least every five seconds. It hides the desk while it knows of a stop.
 */
class HonestDevice {
  readonly writing: Writing;
  private readonly server: SimulatedServer;
  private readonly agenda: Agenda;
  private readonly line: Line;
  private readonly random: Random;
  /** The server's time at the least: true time passes at the same rate here and there. */
  private sure = -Infinity;
  private guess = 0;
  private heard = 0;
  private busy = false;
  private lastAt = -Infinity;
  private deadline = LIMIT;
  private stopped = false;
  private confirmed = true;
  closed = false;

  constructor(server: SimulatedServer, agenda: Agenda, line: Line, random: Random) {
    [this.server, this.agenda, this.line, this.random] = [server, agenda, line, random];
    this.writing = new Writing(server.grant(0));
    this.sure = -between(random, 20, 800);
    this.act();
  }

  private get over(): boolean {
    return this.agenda.now + this.guess >= this.deadline;
  }

  private act(): void {
    const { agenda, random } = this;
    if (this.closed && this.unsent === 0) return;
    const visible = !this.stopped && this.confirmed && !this.over && !this.closed;
    if (visible && random() < 0.2) this.writing.write(agenda.now, Math.floor(agenda.now + this.sure));
    const rest = this.over && !this.closed ? 1000 : this.unsent > 0 || !this.confirmed ? 1000 : BEAT;
    if (!this.busy && agenda.now - this.lastAt >= rest) this.send();
    agenda.at(agenda.now + 500, () => this.act());
  }

  private held = 0;
  private get unsent(): number {
    return this.writing.entries.length - this.held;
  }

  private send(): void {
    const { agenda, line, server, writing } = this;
    [this.busy, this.lastAt] = [true, agenda.now];
    let over = false;
    const finish = (act: () => void) => () => {
      if (!over) act();
      over = true;
      this.busy = false;
    };
    agenda.at(
      agenda.now + TIMEOUT,
      finish(() => undefined),
    );
    const head = writing.head(writing.entries.length, this.heard);
    const handIn = this.over ? ('time' as const) : undefined;
    const entries = writing.entries.slice(this.held, this.held + 50);
    const there = line.trip(agenda.now);
    if (there === null) return;
    const sentAt = agenda.now;
    agenda.at(agenda.now + there, () => {
      const reply = server.take({ head, entries, handIn }, agenda.now);
      const back = line.trip(agenda.now);
      if (back !== null)
        agenda.at(
          agenda.now + back,
          finish(() => this.learn(reply, head, sentAt)),
        );
    });
  }

  private learn({ now, held, closed, time }: SimulatedReply, { heard }: Head, sentAt: number): void {
    const { agenda } = this;
    this.sure = Math.max(this.sure, now - agenda.now);
    this.guess = now - (sentAt + agenda.now) / 2;
    this.heard = Math.max(this.heard, now);
    this.held = held;
    this.closed = closed;
    const stopped = stopAt(time, now) !== null;
    // Going on is confirmed once a head has named a time after the stop, and that is known to have arrived.
    if (stopped) this.confirmed = false;
    else if (!this.confirmed) this.confirmed = heard >= Math.max(...time.stops.map((s) => s.until ?? 0));
    this.stopped = stopped;
    this.deadline = deadlineAt(time, now) ?? now + leftMs(time, now);
  }
}

function walkOfHonest(seed: string): string | null {
  const random = seededRandom(seed);
  const { server, agenda } = house(random);
  const cuts: [number, number][] = [];
  const device = new HonestDevice(server, agenda, badLine(random, cuts), random);
  // Cuts wherever they hurt: also over the deadline, but over half a minute before the grace is.
  for (let n = between(random, 0, 3); n > 0; n--) {
    const from = between(random, 0, LIMIT);
    cuts.push([from, Math.min(from + between(random, 1, 100) * SECOND, LIMIT + GRACE_MS - 32 * SECOND)]);
  }
  agenda.run(END_OF_WALK);
  const end = server.time.closed!.at;
  const counted = new Set(countedOf(server, [device.writing], END_OF_WALK).map((v) => v.entry.number));
  const lost = device.writing.entries.filter(
    ({ number }) => device.writing.madeAt[number - 1]! <= end && !counted.has(number),
  );
  const [first] = lost;
  if (!first) return null;
  const verdict = server.judge(END_OF_WALK).verdicts.find((v) => v.entry.number === first.number);
  return `${seed}: ${lost.length} lost, first made at ${device.writing.madeAt[first.number - 1]} of ${end}: ${JSON.stringify(verdict)}; back ${server.time.givenBackMs}`;
}

const failuresOf = (walk: (seed: string) => string | null, count: number) =>
  Array.from({ length: count }, (_, n) => walk(`walk ${n}`)).filter((failure) => failure !== null);

describe('over seeded schedules', () => {
  it('a device that lies gains nothing beyond what the rules leave it', () => {
    expect(failuresOf(walkOfAdversary, 2000)).toEqual([]);
  });

  it('an honest device on a bad line loses no change that it made before the deadline', () => {
    expect(failuresOf(walkOfHonest, 1000)).toEqual([]);
  });
});
