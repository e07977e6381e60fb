import { createStore, type StoreApi } from 'zustand';
import type { DeviceEntryAbout, EntryRef } from '../../core/journal/entry';
import { applyChange, type Desk } from '../../core/journal/desk';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty, storeResponse } from '../../core/kinds/stored';
import type { AidSetting, Highlights } from '../../core/kit/notes';
import { closedItems, forwardSectionsOf, type ForwardSections } from '../../core/journal/forwardOnly';
import { sectionLeft, wayTo, type SectionLeft, type Way } from '../../core/sittings/wayTo';
import type { LiveView } from '../../core/live/api';
import { withSection, type CandidatePaper } from '../../core/papers/candidatePaper';
import { progressAfter, progressOfPaper, type QuestionProgress } from '../../core/sittings/progress';
import type { Receipt, TimeView } from '../../core/sittings/api';
import { warningsDue } from '../../core/timing/deadline';
import { shownLeftMs } from '../../core/timing/sittingTime';
import type { FileSource } from '../media/fileSource';
import { Recordings } from '../media/recordings';
import type { PageBox } from '../pages/pageBox';
import type { DeskBackend } from './backend';
import type { Directions } from './directions';
import type { NoteTrouble } from './journal/deviceJournal';
import { retryAtEndMs, type SavedState } from './journal/sender';
import type { OpenedDesk } from './openDesk';
import { t } from './words';

export interface DeskState {
  readonly paper: CandidatePaper;
  readonly desk: Desk;
  readonly progress: readonly QuestionProgress[];
  /** Sections through which one goes forward only; null where there are none. */
  readonly turns: ForwardSections | null;
  /** The questions of those that are closed by now. */
  readonly closed: readonly string[];
  /** A way that the candidate has yet to agree to, or that is not open now, and why. */
  readonly asked: { readonly to: number; readonly way: Exclude<Way, 'go'> } | null;
  /** What the last step across two sections left behind. */
  readonly left: SectionLeft | null;
  readonly index: number;
  readonly view: 'question' | 'last look';
  readonly time: TimeView;
  /** The server's time as known here, at the last tick. */
  readonly now: number;
  readonly leftMs: number;
  readonly timed: boolean;
  readonly clockHidden: boolean;
  /** Whether a warning of the time is in view, and since when; it tells what is left just now. */
  readonly warnedAt: number | null;
  readonly saved: SavedState;
  /** What the device could not do: keep an entry, or save a value that is too long. */
  readonly deviceTrouble: NoteTrouble | null;
  readonly handingIn: boolean;
  /** Before this (in the server's time) the device does not hand in by itself: it was told that there is time left. */
  readonly handInFrom: number;
  /** Counts versions brought back: editors start again with each. */
  readonly restored: number;
  /** Handed in without a connection: when. It is sent as soon as there is one. */
  readonly queuedAt: number | null;
  readonly elsewhere: boolean;
  /** There is no sitting any more; the candidate's page knows what is next. */
  readonly gone: boolean;
  /** A stop has ended, and the server has yet to learn that this device knows. */
  readonly toConfirm: boolean;
  /** Answers of which another device has another version, until they were looked at. */
  readonly otherVersions: readonly string[];
  /** Those of them that the candidate has looked at. */
  readonly compared: readonly string[];
  readonly live: LiveView | null;
  /** The last message of the invigilator that was not put away yet. */
  readonly told: string | null;
  readonly receipt: Receipt | null;
  /** What was told before the clock started, once it is here. */
  readonly directions: Directions | null;
  readonly help: DeskBackend['help'];
  readonly files: FileSource;
  readonly recordings: Recordings;
  readonly pages: PageBox | null;
  readonly go: (index: number) => void;
  /** Goes where it was asked to go, or stays. */
  readonly answerAsked: (goOn: boolean) => void;
  readonly lookBack: () => void;
  readonly answer: (target: string, value: unknown) => void;
  /** Brings an earlier version of an answer back. */
  readonly restore: (target: string, value: unknown, from: EntryRef) => void;
  readonly enterSection: (section: string) => Promise<void>;
  readonly compare: (target: string) => void;
  /** Sends what is still held back to be merged. */
  readonly settle: () => void;
  /** What a kind puts down besides answers; the target names part and event. */
  readonly event: (target: string, value: unknown) => void;
  readonly usePlay: (file: string, number: number) => void;
  /** How an aid lies on the desk from now on, beside what it was. */
  readonly setAid: (name: string, change: AidSetting) => void;
  readonly setHighlights: (target: string, value: Highlights) => void;
  readonly setRoughWork: (place: 'text' | 'drawing', value: unknown) => void;
  readonly toggleFlag: () => void;
  readonly toggleClock: () => void;
  readonly dismissWarning: () => void;
  readonly dismissTold: () => void;
  /** Looks up what was told before the clock started, where it is not here yet. */
  readonly lookUpDirections: () => void;
  readonly takeLive: (view: LiveView) => void;
  readonly takeTime: (time: TimeView) => void;
  readonly takePages: () => void;
  readonly handIn: (by: 'candidate' | 'time') => Promise<void>;
}

export interface DeskSession {
  readonly store: StoreApi<DeskState>;
  close(): void;
}

/** What a candidate can agree to. */
const AGREED: readonly Way[] = ['enter', 'leave', 'pass'];

const TICK_MS = 250;
/** A warning goes by itself after this. */
const WARNING_MS = 45_000;
/** What may be read again without a connection is looked up when the desk has settled; not by everybody at once. */
const DIRECTIONS_MS = [4_000, 20_000] as const;
/** A hand-in that came too early is not made again at once, whatever the clocks say. */
const NOT_YET_MS = 500;

/** Sections that have a limit of their own and whose time has run out. */
export const endedSections = ({ time, now }: Pick<DeskState, 'time' | 'now'>): string[] =>
  Object.entries(time.sectionEnds).flatMap(([section, end]) =>
    time.stopped === null && now >= end ? [section] : [],
  );

/** Whether the clock stands still at `now`; a break goes on by itself. */
export const stopAtNow = ({ stopped }: TimeView, now: number): boolean =>
  stopped !== null && (stopped.until === null || now < stopped.until);

type Store = StoreApi<DeskState>;

/** What a candidate does at the desk; each act becomes an entry of the journal and the next state. */
function actsOf(
  store: () => Store,
  backend: DeskBackend,
): Omit<DeskState, keyof ReturnType<typeof firstState>> {
  const get = () => store().getState();
  const set = (change: Partial<DeskState>) => store().setState(change);
  let failures = 0;
  type Written = Pick<DeskState, 'desk' | 'progress'>;
  /** What the desk is after an entry, which is in the journal then. */
  const written = (
    before: Written,
    about: DeviceEntryAbout,
    target: string,
    value: unknown,
    restored?: EntryRef,
  ): Written => {
    backend.note({ about, target, value, ...(restored ? { restored } : {}) });
    const desk = applyChange(before.desk, { about, target, value });
    const moved = about === 'answer' || about === 'flag' || about === 'opened';
    return { desk, progress: moved ? progressAfter(before.progress, desk, target) : before.progress };
  };
  const note = (about: DeviceEntryAbout, target: string, value: unknown, restored?: EntryRef) => {
    const { desk, progress } = written(get(), about, target, value, restored);
    set({ desk, progress });
  };
  const goOn = (index: number) => {
    const { item } = get().paper.questions[index]!;
    const left = sectionLeft(get(), get().index, index);
    backend.settle();
    let after: Written = get();
    if (after.desk.opened[item] !== true) after = written(after, 'opened', item, true);
    if (after.desk.place !== item) after = written(after, 'place', item, null);
    const { desk, progress } = after;
    // In one change: with each, everything that is drawn looks again at what it needs of the state.
    set({ desk, progress, index, view: 'question', left, closed: closedItems(get().turns, desk) });
  };
  /**
   * Pages that joined phones have sent become part of the answers here too, each once. Not while the clock stands still:
   * that would be writing in a stop.
   */
  const takePages = () => {
    const { live, elsewhere, queuedAt, time, toConfirm, paper } = get();
    if (elsewhere || queuedAt !== null || time.stopped !== null || toConfirm) return;
    for (const [target, joined] of Object.entries(live?.pages?.joined ?? {})) {
      const parts = paper.questions.flatMap((question) => question.parts);
      const part = parts.find((one) => one.target === target);
      const kind = part && candidateKindOf(part.kind);
      if (!kind?.takePages) continue;
      const before = responseOrEmpty(part!.kind, part!.shown, get().desk.answers[target]);
      const after = kind.takePages(before, joined);
      if (after !== before) note('answer', target, storeResponse(part!.kind, after));
    }
  };
  const takeTime = (time: TimeView) => {
    set({ time, toConfirm: get().toConfirm || (time.stopped !== null && backend.help !== null) });
    takePages();
  };
  return {
    takeTime,
    takePages,
    go(index) {
      const way = wayTo(get(), index);
      if (way === 'go') goOn(index);
      else if (get().paper.questions[index]) set({ asked: { to: index, way } });
    },
    answerAsked(agreed) {
      const { asked } = get();
      set({ asked: null });
      if (agreed && asked && AGREED.includes(asked.way)) goOn(asked.to);
    },
    lookBack: () => set({ view: 'last look' }),
    answer: (target, value) => note('answer', target, value),
    restore(target, value, from) {
      note('answer', target, value, from);
      set({ restored: get().restored + 1 });
    },
    compare: (target) => set({ compared: [...get().compared, target] }),
    settle: () => backend.settle(),
    async enterSection(section) {
      const opened = await backend.enter(section);
      const paper = withSection(get().paper, opened);
      set({ paper, progress: progressOfPaper(get().desk, paper) });
    },
    event: (target, value) => note('event', target, value),
    usePlay: (file, number) => note('play', file, number),
    setAid: (name, change) => note('aid', name, { ...get().desk.aids[name], ...change }),
    setHighlights: (target, value) => note('highlights', target, value),
    setRoughWork: (place, value) => note('rough-work', place, value),
    toggleFlag() {
      const { item } = get().paper.questions[get().index]!;
      note('flag', item, !get().desk.flags[item]);
    },
    toggleClock: () => set({ clockHidden: !get().clockHidden }),
    dismissWarning: () => set({ warnedAt: null }),
    dismissTold: () => set({ told: null }),
    lookUpDirections() {
      if (get().directions) return;
      void backend.directions?.().then(
        (directions) => set({ directions }),
        () => undefined,
      );
    },
    takeLive(live) {
      const before = get().live?.messages.at(-1)?.id ?? live.messages.at(-1)?.id ?? 0;
      const news = live.messages.filter((m) => m.id > before && m.from === 'invigilator');
      set({ live, ...(news.length > 0 ? { told: news.at(-1)!.text } : {}) });
      if (live.time) takeTime(live.time);
      else takePages();
    },
    async handIn(by) {
      if (get().handingIn) return;
      set({ handingIn: true });
      try {
        const outcome = await backend.handIn(by);
        if ('done' in outcome) set({ receipt: outcome.done, queuedAt: null });
        else if ('queuedAt' in outcome) {
          set({ queuedAt: outcome.queuedAt });
          // Later and later, at least every five seconds while heads still count.
          setTimeout(() => void get().handIn(by), retryAtEndMs(++failures, Math.random()));
        } else set({ queuedAt: null, handInFrom: get().now + outcome.notYetMs + NOT_YET_MS });
      } finally {
        set({ handingIn: false });
      }
    },
  };
}

function firstState({
  paper,
  desk,
  time,
  timed,
  clock,
  backend,
  files,
  pages,
  plays,
  queuedAt,
  otherVersions,
}: OpenedDesk) {
  const place = paper.questions.findIndex((q) => q.item === desk.place);
  const turns = forwardSectionsOf(paper);
  return {
    paper,
    desk,
    progress: progressOfPaper(desk, paper),
    turns,
    closed: closedItems(turns, desk),
    asked: null as DeskState['asked'],
    left: null as SectionLeft | null,
    index: Math.max(place, 0),
    view: 'question' as DeskState['view'],
    time,
    now: clock.now(),
    leftMs: shownLeftMs(time, clock.now()),
    timed,
    clockHidden: false,
    warnedAt: null as number | null,
    saved: { state: 'saved', at: null } as SavedState,
    deviceTrouble: null as NoteTrouble | null,
    handingIn: false,
    handInFrom: 0,
    queuedAt,
    elsewhere: false,
    gone: false,
    restored: 0,
    toConfirm: time.stopped !== null && backend.help !== null,
    otherVersions,
    compared: [] as readonly string[],
    live: null as LiveView | null,
    told: null as string | null,
    receipt: null as Receipt | null,
    directions: null as Directions | null,
    help: backend.help,
    files,
    pages,
    recordings: new Recordings(files, plays ?? undefined),
  };
}

/** One opening of the desk: its state, its clock, and what hands it in at the end. */
export function createDesk(opened: OpenedDesk): DeskSession {
  const { backend, clock, paper, plays, files } = opened;
  const store: Store = createStore<DeskState>(() => ({
    ...firstState(opened),
    ...actsOf(() => store, backend),
  }));
  const act = () => store.getState();

  const { recordings } = act();
  if (backend.help)
    recordings.askForPlay = async (title) =>
      act().takeLive(await backend.help!.say(t('askPlay', { title }), true));
  const end = backend.begin({
    onSaved: (saved) => store.setState({ saved }),
    onTime: (time) => act().takeTime(time),
    onLive(view) {
      act().takeLive(view);
      plays?.takeCounts(view.plays);
    },
    onTrouble: (deviceTrouble) => store.setState({ deviceTrouble }),
    onGone: () => store.setState({ gone: true }),
    onOtherVersions: (targets) => {
      if (targets.join() !== act().otherVersions.join()) store.setState({ otherVersions: targets });
    },
    onElsewhere() {
      store.setState({ elsewhere: true });
      plays?.lose();
    },
    onClosed: () => {
      if (act().queuedAt === null && !act().receipt) void act().handIn('time');
    },
  });

  const tick = () => {
    const { leftMs: before, time, timed, handingIn, receipt, queuedAt, handInFrom } = act();
    if (!timed) return;
    const now = clock.now();
    const leftMs = shownLeftMs(time, now);
    const due = warningsDue(paper.warningMinutes, before, leftMs);
    const { warnedAt } = act();
    const isOld = warnedAt !== null && now - warnedAt > WARNING_MS;
    store.setState({ now, leftMs, ...(due ? { warnedAt: now } : isOld ? { warnedAt: null } : {}) });
    if (leftMs <= 0 && now >= handInFrom && !handingIn && !receipt && queuedAt === null)
      void act().handIn('time');
    goOnAfterStop(now);
  };
  let [confirming, failed] = [false, 0];
  /** The desk is shown again only when the server knows that this device has heard of the end of a stop. */
  const goOnAfterStop = (now: number) => {
    const { toConfirm, time, help } = act();
    if (!toConfirm || confirming || stopAtNow(time, now)) return;
    confirming = true;
    help!
      .goOn()
      .then(() => {
        failed = 0;
        // Another stop may have begun meanwhile.
        store.setState({ toConfirm: act().time.stopped !== null && stopAtNow(act().time, clock.now()) });
        act().takePages();
        confirming = false;
      })
      .catch(() => setTimeout(() => (confirming = false), retryAtEndMs(++failed, Math.random())));
  };
  const timer = setInterval(tick, TICK_MS);
  const [least, more] = DIRECTIONS_MS;
  const looking = setTimeout(() => act().lookUpDirections(), least + Math.random() * more);
  if (opened.queuedAt !== null) void act().handIn('candidate');
  else act().go(act().index);
  if (plays) {
    plays.onUse = (file, number) => act().usePlay(file, number);
    plays.begin();
  }
  return {
    store,
    close() {
      clearInterval(timer);
      clearTimeout(looking);
      act().recordings.close();
      plays?.close();
      end();
      files.close?.();
    },
  };
}
