import { createStore, type StoreApi } from 'zustand';
import type { EntryAbout } from '../../core/journal/entry';
import { applyEntry, type Desk } from '../../core/journal/fold';
import type { LiveView } from '../../core/live/api';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { progressAfter, progressOfPaper, type QuestionProgress } from '../../core/sittings/progress';
import type { Receipt, TimeView } from '../../core/sittings/api';
import { warningsDue } from '../../core/timing/deadline';
import { shownLeftMs } from '../../core/timing/sittingTime';
import type { DeskBackend } from './backend';
import type { SavedState } from './journal/sender';
import type { OpenedDesk } from './openDesk';

export interface DeskState {
  readonly paper: CandidatePaper;
  readonly desk: Desk;
  readonly progress: readonly QuestionProgress[];
  readonly index: number;
  readonly view: 'question' | 'last look';
  readonly time: TimeView;
  /** The server's time as known here, at the last tick. */
  readonly now: number;
  readonly leftMs: number;
  readonly timed: boolean;
  readonly clockHidden: boolean;
  /** The warning in view: minutes left. */
  readonly warning: number | null;
  readonly saved: SavedState;
  readonly deviceTrouble: boolean;
  readonly handingIn: boolean;
  /** Handed in without a connection: when. It is sent as soon as there is one. */
  readonly queuedAt: number | null;
  readonly elsewhere: boolean;
  readonly live: LiveView | null;
  /** The last message of the invigilator that was not put away yet. */
  readonly told: string | null;
  readonly receipt: Receipt | null;
  readonly help: DeskBackend['help'];
  readonly go: (index: number) => void;
  readonly lookBack: () => void;
  readonly answer: (target: string, value: unknown) => void;
  readonly strike: (target: string, keys: string[]) => void;
  readonly toggleFlag: () => void;
  readonly toggleClock: () => void;
  readonly dismissWarning: () => void;
  readonly dismissTold: () => void;
  readonly takeLive: (view: LiveView) => void;
  readonly handIn: (by: 'candidate' | 'time') => Promise<void>;
}

export interface DeskSession {
  readonly store: StoreApi<DeskState>;
  close(): void;
}

const TICK_MS = 250;
const RETRY_MS = 2000;

/** Sections that have a limit of their own and whose time has run out. */
export const endedSections = ({ time, now }: Pick<DeskState, 'time' | 'now'>): string[] =>
  Object.entries(time.sectionEnds).flatMap(([section, end]) =>
    time.stopped === null && now >= end ? [section] : [],
  );

type Store = StoreApi<DeskState>;

/** What a candidate does at the desk; each act becomes an entry of the journal and the next state. */
function actsOf(
  store: () => Store,
  backend: DeskBackend,
): Omit<DeskState, keyof ReturnType<typeof firstState>> {
  const get = () => store().getState();
  const set = (change: Partial<DeskState>) => store().setState(change);
  const note = (about: EntryAbout, target: string, value: unknown) => {
    backend.note({ about, target, value });
    const next = applyEntry(get().desk, { about, target, value });
    set({ desk: next, progress: progressAfter(get().progress, next, target) });
  };
  return {
    go(index) {
      const question = get().paper.questions[index];
      if (!question) return;
      if (get().desk.opened[question.item] !== true) note('opened', question.item, true);
      if (get().desk.place !== question.item) note('place', question.item, null);
      set({ index, view: 'question' });
    },
    lookBack: () => set({ view: 'last look' }),
    answer: (target, value) => note('answer', target, value),
    strike: (target, keys) => note('strike', target, keys),
    toggleFlag() {
      const { item } = get().paper.questions[get().index]!;
      note('flag', item, !get().desk.flags[item]);
    },
    toggleClock: () => set({ clockHidden: !get().clockHidden }),
    dismissWarning: () => set({ warning: null }),
    dismissTold: () => set({ told: null }),
    takeLive(live) {
      const before = get().live?.messages.at(-1)?.id ?? live.messages.at(-1)?.id ?? 0;
      const news = live.messages.filter((m) => m.id > before && m.from === 'invigilator');
      set({ live, ...(news.length > 0 ? { told: news.at(-1)!.text } : {}) });
      if (live.time) set({ time: live.time });
    },
    async handIn(by) {
      if (get().handingIn) return;
      set({ handingIn: true });
      try {
        const outcome = await backend.handIn(by);
        if ('done' in outcome) set({ receipt: outcome.done });
        else if ('queuedAt' in outcome) set({ queuedAt: outcome.queuedAt });
        else set({ queuedAt: null });
        if ('queuedAt' in outcome) setTimeout(() => void get().handIn(by), RETRY_MS);
      } finally {
        set({ handingIn: false });
      }
    },
  };
}

function firstState({ paper, desk, time, timed, clock, backend, queuedAt, elsewhere }: OpenedDesk) {
  const place = paper.questions.findIndex((q) => q.item === desk.place);
  return {
    ...{ paper, desk, progress: progressOfPaper(desk, paper), index: Math.max(place, 0) },
    view: 'question' as DeskState['view'],
    ...{ time, now: clock.now(), leftMs: shownLeftMs(time, clock.now()), timed, clockHidden: false },
    warning: null as number | null,
    saved: { state: 'saved', at: null } as SavedState,
    ...{ deviceTrouble: false, handingIn: false, queuedAt, elsewhere },
    live: null as LiveView | null,
    told: null as string | null,
    receipt: null as Receipt | null,
    help: backend.help,
  };
}

/** One opening of the desk: its state, its clock, and what hands it in at the end. */
export function createDesk(opened: OpenedDesk): DeskSession {
  const { backend, clock, paper } = opened;
  const store: Store = createStore<DeskState>(() => ({
    ...firstState(opened),
    ...actsOf(() => store, backend),
  }));
  const act = () => store.getState();

  const end = backend.begin({
    onSaved: (saved) => store.setState({ saved }),
    onTime: (time) => store.setState({ time }),
    onLive: (view) => act().takeLive(view),
    onTrouble: () => store.setState({ deviceTrouble: true }),
    onElsewhere: () => store.setState({ elsewhere: true }),
    onClosed: () => void act().handIn('time'),
  });

  const tick = () => {
    const { leftMs: before, time, timed, handingIn, receipt, queuedAt } = act();
    if (!timed) return;
    const now = clock.now();
    const leftMs = shownLeftMs(time, now);
    const due = warningsDue(paper.warningMinutes, before, leftMs);
    store.setState({ now, leftMs, ...(due.length > 0 ? { warning: Math.min(...due) } : {}) });
    if (leftMs <= 0 && !handingIn && !receipt && queuedAt === null) void act().handIn('time');
  };
  const timer = setInterval(tick, TICK_MS);
  if (opened.queuedAt !== null) void act().handIn('candidate');
  else if (!opened.elsewhere) act().go(act().index);
  return {
    store,
    close() {
      clearInterval(timer);
      end();
    },
  };
}
