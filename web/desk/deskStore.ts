import { createStore, type StoreApi } from 'zustand';
import type { EntryAbout } from '../../core/journal/entry';
import { applyEntry, type Desk } from '../../core/journal/fold';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { progressAfter, progressOfPaper, type QuestionProgress } from '../../core/sittings/progress';
import type { JournalKept, Receipt } from '../../core/sittings/api';
import { warningsDue } from '../../core/timing/deadline';
import { post } from '../api/client';
import { Sender, type SavedState } from './journal/sender';
import type { OpenedDesk } from './openDesk';

export interface DeskState {
  readonly paper: CandidatePaper;
  readonly desk: Desk;
  readonly progress: readonly QuestionProgress[];
  readonly index: number;
  readonly view: 'question' | 'last look';
  readonly startedAt: number;
  readonly deadlineAt: number;
  readonly leftMs: number;
  readonly clockHidden: boolean;
  /** The warning in view: minutes left. */
  readonly warning: number | null;
  readonly saved: SavedState;
  readonly deviceTrouble: boolean;
  readonly handingIn: boolean;
  readonly receipt: Receipt | null;
  readonly go: (index: number) => void;
  readonly lookBack: () => void;
  readonly answer: (target: string, value: unknown) => void;
  readonly strike: (target: string, keys: string[]) => void;
  readonly toggleFlag: () => void;
  readonly toggleClock: () => void;
  readonly dismissWarning: () => void;
  readonly handIn: (by: 'candidate' | 'time') => Promise<void>;
}

export interface DeskSession {
  readonly store: StoreApi<DeskState>;
  close(): void;
}

const TICK_MS = 250;
const RETRY_MS = 2000;

/** One opening of the desk: its state, its journal, its clock, and what hands it in at the end. */
export function createDesk({ opened, paper, desk, journal, clock }: OpenedDesk): DeskSession {
  const place = paper.questions.findIndex((q) => q.item === desk.place);

  const store = createStore<DeskState>((set, get) => {
    const note = (about: EntryAbout, target: string, value: unknown) => {
      journal.note({ about, target, value });
      const next = applyEntry(get().desk, { about, target, value });
      set({ desk: next, progress: progressAfter(get().progress, next, target) });
    };
    return {
      paper,
      desk,
      progress: progressOfPaper(desk, paper),
      index: Math.max(place, 0),
      view: 'question',
      startedAt: opened.startedAt,
      deadlineAt: opened.deadlineAt,
      leftMs: opened.deadlineAt - clock.now(),
      clockHidden: false,
      warning: null,
      saved: { state: 'saved', at: null },
      deviceTrouble: false,
      handingIn: false,
      receipt: null,
      go(index) {
        const question = paper.questions[index];
        if (!question) return;
        if (get().desk.opened[question.item] !== true) note('opened', question.item, true);
        if (get().desk.place !== question.item) note('place', question.item, null);
        set({ index, view: 'question' });
      },
      lookBack: () => set({ view: 'last look' }),
      answer: (target, value) => note('answer', target, value),
      strike: (target, keys) => note('strike', target, keys),
      toggleFlag() {
        const { item } = paper.questions[get().index]!;
        note('flag', item, !get().desk.flags[item]);
      },
      toggleClock: () => set({ clockHidden: !get().clockHidden }),
      dismissWarning: () => set({ warning: null }),
      async handIn(by) {
        if (get().handingIn) return;
        set({ handingIn: true });
        try {
          await journal.settle();
          await sender.flush();
          const entries = (await journal.unsent(500)).map(wireEntry);
          const receipt = await post<Receipt>('/sitting/hand-in', { entries, by });
          sender.stop();
          set({ receipt });
        } catch (error) {
          set({ handingIn: false });
          // At the deadline nobody is asked: the device tries until the server has the paper.
          if (by === 'time') setTimeout(() => void get().handIn('time'), RETRY_MS);
          else throw error;
        }
      },
    };
  });

  const wireEntry = ({
    device,
    seq,
    about,
    target,
    value,
    at,
  }: Parameters<Sender['shell']['send']>[0][number]) => ({
    ...{ device, seq, about, target, value, at },
  });

  const sender = new Sender({
    journal,
    now: () => clock.now(),
    send: (entries, leaving) =>
      clock.learn(() =>
        post<JournalKept>('/sitting/journal', { entries: entries.map(wireEntry) }, { keepalive: leaving }),
      ),
    onState: (saved) => store.setState({ saved }),
    onKept: ({ deadlineAt, closed }) => {
      store.setState({ deadlineAt });
      if (closed) void store.getState().handIn('time');
    },
    onClosed: () => void store.getState().handIn('time'),
  });
  journal.onTrouble = () => store.setState({ deviceTrouble: true });

  const tick = () => {
    const { leftMs: before, deadlineAt, handingIn, receipt } = store.getState();
    const leftMs = deadlineAt - clock.now();
    const due = warningsDue(paper.warningMinutes, before, leftMs);
    store.setState({ leftMs, ...(due.length > 0 ? { warning: Math.min(...due) } : {}) });
    if (leftMs <= 0 && !handingIn && !receipt) void store.getState().handIn('time');
  };
  const timer = setInterval(tick, TICK_MS);
  const leave = () => void journal.settle().then(() => sender.flush(true));
  const hidden = () => document.visibilityState === 'hidden' && leave();
  const online = () => sender.wake();
  window.addEventListener('pagehide', leave);
  window.addEventListener('online', online);
  document.addEventListener('visibilitychange', hidden);

  store.getState().go(store.getState().index);
  sender.wake();
  return {
    store,
    close() {
      clearInterval(timer);
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('online', online);
      document.removeEventListener('visibilitychange', hidden);
      leave();
      sender.stop();
    },
  };
}
