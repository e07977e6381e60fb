import { splitForSealing, type CandidatePaper } from '../../core/papers/candidatePaper';
import type { TimeView } from '../../core/sittings/api';
import { allowedMs, MINUTE_MS } from '../../core/timing/deadline';
import type { DeskBackend, DeskEvents } from '../desk/backend';
import type { OpenedDesk } from '../desk/openDesk';

export interface RehearsalTerms {
  readonly paper: CandidatePaper;
  /** More time by arrangement, in percent. */
  readonly extraPercent: number;
  readonly timed: boolean;
}

/**
 * What the desk of a rehearsal opens with. Nothing stands behind it: nothing is sent and nothing is kept. Its sections
 * with a limit are closed until they are entered, as in the test, and their time begins then.
 */
export function rehearsalDesk({
  paper,
  extraPercent,
  timed,
}: RehearsalTerms): Pick<OpenedDesk, 'paper' | 'time' | 'timed' | 'backend'> {
  const { open, limited } = splitForSealing(paper);
  const lengthOf = (minutes: number) => allowedMs(minutes * MINUTE_MS, extraPercent);
  const startedAt = Date.now();
  const limitMs = lengthOf(paper.minutes);
  let time: TimeView = {
    startedAt,
    leftMs: limitMs,
    deadlineAt: startedAt + limitMs,
    stopped: null,
    breakLeftMs: 0,
    extraPercent,
    sectionEnds: {},
  };
  let events: DeskEvents | null = null;
  const backend: DeskBackend = {
    begin(told) {
      events = told;
      told.onSaved({ state: 'not saved' });
      return () => (events = null);
    },
    note: () => undefined,
    settle: () => undefined,
    enter(key) {
      const section = paper.sections.find((one) => one.key === key);
      const inside = limited.find((one) => one.section === key);
      if (!section || section.minutes === null || !inside)
        return Promise.reject(new Error(`section ${key} has no limit of its own`));
      if (timed && time.sectionEnds[key] === undefined) {
        const end = Math.min(time.deadlineAt, Date.now() + lengthOf(section.minutes));
        time = { ...time, sectionEnds: { ...time.sectionEnds, [key]: end } };
        events?.onTime(time);
      }
      return Promise.resolve(inside);
    },
    handIn: () =>
      Promise.resolve({
        done: {
          code: '',
          handedInAt: 0,
          claimedAt: null,
          earlier: [],
          usedMs: 0,
          closedBy: 'candidate',
          answered: 0,
          parts: 0,
        },
      }),
    directions: null,
    help: null,
  };
  return { paper: open, time, timed, backend };
}
