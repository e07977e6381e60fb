import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { JournalKept } from '../../../core/sittings/api';
import { ApiProblem } from '../../api/client';
import type { StoredEntry } from './deviceStore';
import { Sender, type SavedState, type SendableJournal } from './sender';

const entry = (seq: number): StoredEntry => ({
  ...{
    sitting: 's',
    device: 'device-1',
    seq,
    turn: seq,
    about: 'answer',
    target: 'a/A',
    value: seq,
    at: seq,
  },
});
const kept = { closed: false, kept: [] } as unknown as JournalKept;

let waiting: StoredEntry[];
let states: SavedState['state'][];
let journal: SendableJournal;
const send = vi.fn<(entries: readonly StoredEntry[]) => Promise<JournalKept>>();
const closed = vi.fn();

function sender(): Sender {
  return new Sender({
    ...{ journal, send, now: () => 1000, onKept: () => undefined, onClosed: closed },
    onState: ({ state }) => void states.push(state),
  });
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.spyOn(Math, 'random').mockReturnValue(0.5);
  [waiting, states] = [[entry(1), entry(2)], []];
  const without = (gone: readonly StoredEntry[]) => {
    waiting = waiting.filter((e) => !gone.includes(e));
    return Promise.resolve();
  };
  journal = {
    unsent: (most) => Promise.resolve(waiting.slice(0, most)),
    count: () => Promise.resolve(waiting.length),
    ...{ acknowledge: without, drop: without, onWritten: () => undefined },
  };
  send.mockReset();
  closed.mockReset();
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
});

describe('sending the journal', () => {
  it('says saved only when everything is acknowledged', async () => {
    send.mockResolvedValue(kept);
    const one = sender();
    journal.onWritten();
    expect(states).toEqual(['saving']);
    await one.flush();
    expect([states, waiting]).toEqual([['saving', 'saved'], []]);
  });

  it('keeps everything while there is no answer, and sends it again after the waits grow', async () => {
    send.mockRejectedValueOnce(new ApiProblem(0, 'unreachable', ''));
    send.mockRejectedValueOnce(new ApiProblem(503, 'unreachable', ''));
    send.mockResolvedValue(kept);
    const one = sender();
    await one.flush();
    expect([states.at(-1), waiting.length]).toEqual(['kept', 2]);
    // one second, then two, as random says the middle
    await vi.advanceTimersByTimeAsync(999);
    expect(send).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(2);
    expect(send).toHaveBeenCalledTimes(2);
    await vi.advanceTimersByTimeAsync(2001);
    expect([send.mock.calls.length, waiting.length, states.at(-1)]).toEqual([3, 0, 'saved']);
  });

  it('leaves out only what the server can never take', async () => {
    const refused = [{ device: 'device-1', seq: 1 }];
    send.mockRejectedValueOnce(new ApiProblem(422, 'unreadable', '', { refused }));
    send.mockResolvedValue(kept);
    const one = sender();
    await one.flush();
    await vi.advanceTimersByTimeAsync(10);
    expect(send.mock.calls[1]![0].map((e) => e.seq)).toEqual([2]);
    expect(waiting).toEqual([]);
  });

  it('says so when the sitting is closed, and goes at once when the network is back', async () => {
    send.mockRejectedValueOnce(new ApiProblem(409, 'no-sitting', ''));
    const one = sender();
    await one.flush();
    expect(closed).toHaveBeenCalledOnce();
    send.mockResolvedValue(kept);
    one.wake();
    await vi.advanceTimersByTimeAsync(0);
    expect(waiting).toEqual([]);
  });
});
