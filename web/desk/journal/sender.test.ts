import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { JournalKept } from '../../../core/sittings/api';
import { ApiProblem } from '../../api/client';
import { deskTime } from '../../testing/deskWith';
import type { DeviceBatch } from './deviceJournal';
import { retryAfterMs } from '../../api/retryAfterMs';
import { retryAtEndMs, Sender, type SavedState } from './sender';

const head = { hold: 1, token: 't', number: 0, chain: '', heard: 0 };
const kept = (more: Partial<JournalKept> = {}): JournalKept => ({
  now: 5,
  time: deskTime,
  held: 3,
  current: true,
  renew: false,
  refused: [],
  closed: false,
  otherVersions: [],
  nextSaveMs: 1000,
  ...more,
});

let waiting: number;
let ended: boolean;
let left: number | null;
let send: ReturnType<typeof vi.fn<(batch: DeviceBatch, leaving: boolean) => Promise<JournalKept>>>;
let states: SavedState['state'][];
let slow: boolean[];
const [onKept, onRemedy, onGone, smaller] = [
  vi.fn(),
  vi.fn(() => Promise.resolve()),
  vi.fn(),
  vi.fn(() => true),
];
let noted: () => void;

beforeEach(() => {
  vi.useFakeTimers();
  vi.spyOn(Math, 'random').mockReturnValue(0.5);
  vi.clearAllMocks();
  [waiting, ended, states, left] = [3, false, [], null];
  slow = [];
  send = vi.fn(() => Promise.resolve(kept()));
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

function sender(): Sender {
  const journal = {
    batch: () =>
      Promise.resolve({ head, entries: Array.from({ length: waiting }, (_, i) => ({ number: i })) } as never),
    acknowledge: (held: number) => (waiting = Math.max(0, 3 - held)),
    smaller,
    get waiting() {
      return waiting;
    },
    onWritten: () => undefined,
  };
  const made = new Sender({
    journal,
    send,
    onKept,
    onRemedy,
    onGone,
    now: () => 0,
    atEnd: () => ended,
    leftMs: () => left,
    onState: (saved) => {
      states.push(saved.state);
      if (saved.state === 'saving') slow.push(saved.slow);
    },
  });
  noted = () => journal.onWritten();
  return made;
}

const refusal = (status: number, code: string) =>
  new ApiProblem(status, { code, message: { code: 'error.unknown' } });

describe('the sender', () => {
  it('says “saving” from the first change on, and “saved” only when all of it is durable', async () => {
    sender();
    noted();
    expect(states).toEqual(['saving']);
    send.mockResolvedValueOnce(kept({ held: 1 }));
    await vi.advanceTimersByTimeAsync(1000);
    expect([send.mock.calls.length, states.at(-1)]).toEqual([2, 'saved']);
  });

  it('waits as long as the server allows before it saves what follows, and says where it is meanwhile', async () => {
    send.mockResolvedValue(kept({ nextSaveMs: 10_000 }));
    const made = sender();
    expect(await made.flush()).toBe(true);
    const write = async () => {
      waiting = 3;
      noted();
      const said = states.at(-1);
      await vi.advanceTimersByTimeAsync(1000);
      return [said, send.mock.calls.length];
    };
    expect(await write()).toEqual(['noted', 1]);
    await vi.advanceTimersByTimeAsync(9000);
    expect([send.mock.calls.length, states.at(-1)]).toEqual([2, 'saved']);
    // A question is left: nothing waits any longer.
    expect(await write()).toEqual(['noted', 2]);
    await made.flush();
    expect([send.mock.calls.length, states.at(-1)]).toEqual([3, 'saved']);
    // Two minutes and three seconds are left: the next save comes before the last two minutes begin.
    left = 123_000;
    await write();
    await vi.advanceTimersByTimeAsync(2000);
    expect(send.mock.calls.length).toBe(4);
    made.stop();
  });

  it('spares a busy server: a sign of life counts as a request too, and comes as late as it may', async () => {
    waiting = 0;
    send.mockResolvedValue(kept({ nextSaveMs: 15_000 }));
    const made = sender();
    await made.flush();
    await vi.advanceTimersByTimeAsync(13_000);
    expect(send).toHaveBeenCalledOnce();
    await vi.advanceTimersByTimeAsync(500);
    expect(send).toHaveBeenCalledTimes(2);
    waiting = 3;
    noted();
    await vi.advanceTimersByTimeAsync(13_000);
    expect(send).toHaveBeenCalledTimes(2);
    await vi.advanceTimersByTimeAsync(2000);
    expect([send.mock.calls.length, states.at(-1)]).toEqual([3, 'saved']);
    made.stop();
  });

  it('says after five seconds that a save takes longer, and that nothing is lost', async () => {
    let arrive: (reply: JournalKept) => void = () => undefined;
    send.mockReturnValueOnce(new Promise((resolve) => (arrive = resolve)));
    void sender().flush();
    await vi.advanceTimersByTimeAsync(4900);
    expect(slow).toEqual([false]);
    await vi.advanceTimersByTimeAsync(200);
    expect(slow).toEqual([false, true]);
    arrive(kept());
    await vi.advanceTimersByTimeAsync(0);
    expect(states.at(-1)).toBe('saved');
  });

  it('says that the device is there also where nothing waits', async () => {
    waiting = 0;
    expect(await sender().flush()).toBe(true);
    expect(send).toHaveBeenCalledOnce();
  });

  it.each([
    ['no connection', refusal(0, 'unreachable')],
    ['too many requests', refusal(429, 'too-many-tries')],
    ['a full disk', refusal(507, 'storage-full')],
    ['a broken server', refusal(500, 'broken')],
  ])('backs off and tries again: %s', async (_, problem) => {
    send.mockRejectedValue(problem);
    void sender().flush();
    // At once, then after 1, 2, 4, 8 s: five in the first 15.5 s, not one more.
    await vi.advanceTimersByTimeAsync(15_500);
    expect([send.mock.calls.length, states.at(-1)]).toEqual([5, 'kept']);
    expect(onRemedy).not.toHaveBeenCalled();
  });

  it.each([
    ['a session that is not known', refusal(401, 'link-needed'), 'open the link'],
    ['a refused account', refusal(403, 'not-allowed'), 'open the link'],
    ['a hold that is not known', refusal(409, 'hold-unknown'), 'fresh hold'],
    ['what cannot be read', refusal(422, 'unreadable'), 'fresh hold'],
    ['what is malformed', refusal(400, 'malformed'), 'fresh hold'],
  ])('has a remedy for %s, and tries again after it, not in a loop', async (_, problem, remedy) => {
    send.mockRejectedValue(problem);
    void sender().flush();
    await vi.advanceTimersByTimeAsync(15_500);
    expect([send.mock.calls.length, onRemedy.mock.calls.length]).toEqual([5, 5]);
    expect(onRemedy).toHaveBeenCalledWith(remedy);
  });

  it('sends smaller batches where one is too large, and a fresh value where one entry is', async () => {
    send.mockRejectedValueOnce(refusal(413, 'too-large'));
    void sender().flush();
    await vi.advanceTimersByTimeAsync(1500);
    expect([smaller.mock.calls.length, onRemedy.mock.calls.length, states.at(-1)]).toEqual([1, 0, 'saved']);
    waiting = 3;
    smaller.mockReturnValueOnce(false);
    send.mockRejectedValueOnce(refusal(413, 'too-large'));
    void sender().flush();
    await vi.advanceTimersByTimeAsync(0);
    expect(onRemedy).toHaveBeenCalledWith('fresh hold');
  });

  it('asks for a fresh hold where entries contradict or could not be taken, and not for one kept aside', async () => {
    send.mockResolvedValueOnce(kept({ renew: true }));
    expect(await sender().flush()).toBe(false);
    expect(onRemedy).toHaveBeenCalledWith('fresh hold');
    onRemedy.mockClear();
    send.mockResolvedValue(kept({ refused: [{ number: 2, code: 'foreign' }] }));
    expect(await sender().flush()).toBe(true);
    expect(onRemedy).not.toHaveBeenCalled();
  });

  it('does not ask a server again at once that took nothing', async () => {
    send.mockResolvedValue(kept({ held: 0 }));
    void sender().flush();
    await vi.advanceTimersByTimeAsync(15_500);
    expect(send).toHaveBeenCalledTimes(5);
  });

  it('says so when there is no sitting any more, and goes at once when the network is back', async () => {
    send.mockRejectedValueOnce(refusal(409, 'no-sitting'));
    const one = sender();
    await one.flush();
    expect(onGone).toHaveBeenCalledOnce();
    one.wake();
    await vi.advanceTimersByTimeAsync(0);
    expect(states.at(-1)).toBe('saved');
  });

  it('tries at least every five seconds from an end on', async () => {
    ended = true;
    send.mockRejectedValue(refusal(0, 'unreachable'));
    void sender().flush();
    await vi.advanceTimersByTimeAsync(60_000);
    // 1, 2, then every 4 s: more than sixty seconds divided by five.
    expect(send.mock.calls.length).toBeGreaterThanOrEqual(13);
  });
});

describe('trying again', () => {
  it.each([
    // 1 s doubled at each failure, spread from three quarters to five quarters, never beyond 15 s and a quarter
    [1, 0, 750],
    [1, 1, 1250],
    [3, 0.5, 4000],
    [9, 1, 18_750],
  ])('after failure %i with luck %d: %i ms', (failures, random, ms) =>
    expect(retryAfterMs(failures, random)).toBe(ms),
  );

  it('waits five seconds at the most at an end', () => expect(retryAtEndMs(9, 1)).toBe(5000));
});
