import type { Desk } from '../../core/journal/desk';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import type { HoldReply, Prepared, SittingOpened, TimeView } from '../../core/sittings/api';
import { ApiProblem, post } from '../api/client';
import { openLink } from '../api/openLink';
import type { FileSource } from '../media/fileSource';
import type { PageBox } from '../pages/pageBox';
import type { DeskBackend } from './backend';
import { DeskFiles } from './deskFiles';
import { PlayBook } from './playBook';
import { DeviceJournal } from './journal/deviceJournal';
import {
  keepMoment,
  keepSitting,
  storedHandIn,
  storedMoment,
  storedPlays,
  storedSitting,
  storeName,
  type StoredSitting,
} from './journal/deviceStore';
import { hashesOf, openPaper } from './sealedPaper';
import { ServerClock } from './serverClock';
import { SittingBackend } from './sittingBackend';
import { takeTabLock } from './tabLock';
import { takesPages } from './takesPages';

export interface OpenedDesk {
  readonly paper: CandidatePaper;
  readonly desk: Desk;
  readonly time: TimeView;
  readonly clock: { now(): number };
  readonly backend: DeskBackend;
  readonly files: FileSource & { close?(): void };
  /** Null where the paper takes none. */
  readonly pages: PageBox | null;
  /** Null where plays are counted by nobody but this page. */
  readonly plays: PlayBook | null;
  /** A rehearsal can be taken without the clock. */
  readonly timed: boolean;
  /** A hand-in made without a connection, from before the page was loaded. */
  readonly queuedAt: number | null;
  readonly otherVersions: readonly string[];
}

/** The desk, or that it is open elsewhere: then it can be taken from there. */
export type DeskOpening = { readonly opened: OpenedDesk } | { readonly elsewhere: true };

/** This page, from when it is loaded until it is left. */
const opening = crypto.randomUUID();

const asking = async (takeOver: boolean) => ({ store: await storeName(), opening, takeOver });

/** Keeps what was granted; from now on this store can go on by itself. */
async function keepOpened(
  link: string,
  { opened }: { readonly opened: SittingOpened },
): Promise<StoredSitting> {
  const { sitting, sealed, media, keys, hold, desk, plays, now, time } = opened;
  const stored = { link, sitting, sealed, media, keys, hold, plays, base: desk };
  await keepMoment({ sitting, serverAt: now, deviceAt: Date.now(), time });
  await keepSitting(stored, now);
  return stored;
}

/** Starts the clock: the key comes with the answer, and with it the right to write. */
export async function startSitting(link: string, prepared: Prepared): Promise<void> {
  const body = { ...(await asking(false)), sealed: hashesOf(prepared) };
  const reply = await post<HoldReply>('/sitting/start', body);
  if (reply.granted) await keepOpened(link, reply);
}

/** The right to write for a store that has none; null where another device has it. */
async function askForHold(link: string, takeOver: boolean): Promise<StoredSitting | null> {
  await openLink(link);
  const reply = await post<HoldReply>('/sitting/hold', await asking(takeOver));
  return reply.granted ? keepOpened(link, reply) : null;
}

/** The server's time as this device last had it, until the first answer puts it right. */
async function resumed({ sitting }: StoredSitting): Promise<{ clock: ServerClock; time: TimeView }> {
  const clock = new ServerClock();
  const moment = await storedMoment(sitting);
  if (moment) clock.resume(moment);
  const now = clock.now();
  const unknown = { startedAt: now, leftMs: 1, deadlineAt: now + 1, stopped: null };
  const nothing = { breakLeftMs: 0, extraPercent: 0, sectionEnds: {} };
  return { clock, time: moment?.time ?? { ...unknown, ...nothing } };
}

async function openPages(sitting: string, link: string): Promise<PageBox> {
  return (await import('../pages/sittingPages')).pagesOfSitting(sitting, link);
}

const unreachable = (error: unknown) =>
  error instanceof ApiProblem && (error.status === 0 || error.status >= 500);

/**
 * Whether the server still has this sitting running. Without the network the device goes on by itself; a page that is
 * loaded after the hand-in must not show the desk again.
 */
async function isRunning(link: string): Promise<boolean> {
  try {
    const { stage } = await openLink(link);
    return stage.at === 'running';
  } catch (error) {
    if (unreachable(error)) return true;
    throw error;
  }
}

/**
 * The desk as it was left. A store that has the right to write goes on by itself, also without the network; an empty
 * one asks for it.
 */
export async function openDesk(link: string, takeOver = false): Promise<DeskOpening> {
  const known = await storedSitting(link);
  const waiting = known && (await storedHandIn(known.sitting));
  const own = known && (waiting || (await isRunning(link))) ? known : null;
  const stored = own ?? (await askForHold(link, takeOver));
  if (!stored) return { elsewhere: true };
  const lock = await takeTabLock(stored.sitting, takeOver);
  if (!lock) return { elsewhere: true };
  const { clock, time } = await resumed(stored);
  const journal = await DeviceJournal.open(stored, () => clock.sure());
  const { desk } = journal;
  const { sitting, sealed, keys } = stored;
  const paper = await openPaper(sealed, keys.paper);
  const files = new DeskFiles(stored.media, keys.media);
  files.complete();
  const pages = takesPages(paper) ? await openPages(sitting, link) : null;
  const backend = new SittingBackend({ link, sitting, opening, sealed, files, pages, journal, clock, lock });
  const plays = new PlayBook({
    sitting,
    counts: stored.plays,
    stored: await storedPlays(sitting),
    ask: (file) => backend.help.play(file),
    giveBack: (file) => backend.help.returnPlay(file),
  });
  return {
    opened: {
      paper,
      clock,
      time,
      desk,
      timed: true,
      queuedAt: waiting?.claimedAt ?? null,
      otherVersions: [],
      backend,
      files,
      pages,
      plays,
    },
  };
}
