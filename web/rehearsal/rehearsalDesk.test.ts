import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { plainForm } from '../../core/forms/drawForm';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import type { DeskEvents } from '../desk/backend';
import { rehearsalDesk } from './rehearsalDesk';

beforeEach(() => vi.useFakeTimers({ toFake: ['Date'], now: 1_000_000 }));
afterEach(() => vi.useRealTimers());

/** A paper of 60 minutes whose section B has a limit of 10. */
const paper = (): CandidatePaper => {
  const { paper: copy } = plainForm(technicianPaper());
  const sections = copy.sections.map((one) => (one.key === 'B' ? { ...one, minutes: 10 } : one));
  return { ...copy, minutes: 60, sections };
};
const began = (timed: boolean, extraPercent = 0) => {
  const desk = rehearsalDesk({ paper: paper(), timed, extraPercent });
  const times: Record<string, number>[] = [];
  const events = {
    onSaved: vi.fn(),
    onTime: (time: { sectionEnds: object }) => times.push({ ...time.sectionEnds }),
  };
  desk.backend.begin(events as unknown as DeskEvents);
  return { ...desk, times, events };
};

describe('a section with a limit in a rehearsal', () => {
  it('is closed until it is entered; its time begins then, with more of it by arrangement', async () => {
    const { paper: open, backend, times, events } = began(true, 25);
    expect(events.onSaved).toHaveBeenCalledWith({ state: 'not saved' });
    const inB = open.questions.filter(({ section }) => section === 'B');
    expect(inB.every(({ sealed, parts }) => sealed && parts.length === 0)).toBe(true);
    vi.setSystemTime(1_060_000);
    const inside = await backend.enter('B');
    expect(inside.questions.map(({ item }) => item)).toEqual(inB.map(({ item }) => item));
    expect(inside.questions.every(({ parts }) => parts.length > 0)).toBe(true);
    // Ten minutes and a quarter more from then on; entered once more, it is no longer.
    vi.setSystemTime(1_120_000);
    await backend.enter('B');
    expect(times).toEqual([{ B: 1_060_000 + 12.5 * 60_000 }]);
  });

  it('ends no later than the whole', async () => {
    const { backend, times } = began(true);
    vi.setSystemTime(1_000_000 + 55 * 60_000);
    await backend.enter('B');
    expect(times).toEqual([{ B: 1_000_000 + 60 * 60_000 }]);
  });

  it('has no time where the rehearsal has none, and no other section is entered', async () => {
    const { backend, times } = began(false);
    await backend.enter('B');
    expect(times).toEqual([]);
    await expect(backend.enter('A')).rejects.toThrow('no limit');
  });
});
