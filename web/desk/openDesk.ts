import { applyEntry, type Desk } from '../../core/journal/fold';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import type { SittingOpened, TimeView } from '../../core/sittings/api';
import { ApiProblem, get, getText, post } from '../api/client';
import { answers } from '../kinds/answers';
import type { DeskBackend } from './backend';
import { keepForOffline } from './keepForOffline';
import { DeviceJournal } from './journal/deviceJournal';
import {
  acknowledgedEntries,
  storeSitting,
  storedHandIn,
  storedSitting,
  type StoredSitting,
} from './journal/deviceStore';
import { ServerClock } from './serverClock';
import { SittingBackend } from './sittingBackend';

export interface OpenedDesk {
  readonly paper: CandidatePaper;
  readonly desk: Desk;
  readonly time: TimeView;
  readonly clock: { now(): number };
  readonly backend: DeskBackend;
  /** A rehearsal can be taken without the clock. */
  readonly timed: boolean;
  /** A hand-in made without a connection, from before the page was loaded. */
  readonly queuedAt: number | null;
  /** Another window or device holds the desk. */
  readonly elsewhere: boolean;
}

async function sha256(text: string): Promise<string> {
  const bytes = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
  return [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

const BEHIND_MS = 1500;

const papers = new Map<string, string>();

const kindsOf = (paper: CandidatePaper) => paper.questions.flatMap((q) => q.parts.map((p) => p.kind));

/** Brings the paper onto the device and checks by hash that it is whole. */
async function fetchPaper(hash: string): Promise<string> {
  const known = papers.get(hash);
  if (known) return known;
  const text = await getText(`/sitting/paper/${hash}`);
  if ((await sha256(text)) !== hash)
    throw new Error('The paper did not arrive whole. Load this page again; no time is lost.');
  papers.set(hash, text);
  return text;
}

/** Before the start: fixes the form, fetches the paper and every component it needs. Costs no time. */
export async function preparePaper(): Promise<{ hash: string; paper: CandidatePaper }> {
  const { paperHash } = await post<{ paperHash: string }>('/sitting/prepare');
  const paper = JSON.parse(await fetchPaper(paperHash)) as CandidatePaper;
  await Promise.all([answers.load(kindsOf(paper)), keepForOffline()]);
  return { hash: paperHash, paper };
}

export const startSitting = (paperHash: string): Promise<SittingOpened> =>
  post('/sitting/start', { paperHash });

/** This window, as long as it is open, whatever is loaded in it. */
function thisOpening(): string {
  const known = sessionStorage.getItem('clear-sitting-opening') ?? crypto.randomUUID();
  sessionStorage.setItem('clear-sitting-opening', known);
  return known;
}

/** Takes the desk for this window, whoever holds it. */
export async function takeDesk(): Promise<void> {
  await post('/sitting/hold', { opening: thisOpening(), takeOver: true });
}

interface Found {
  readonly opened: SittingOpened;
  readonly paperText: string;
  readonly clock: ServerClock;
  readonly elsewhere: boolean;
}

async function fromServer(link: string, opening: string): Promise<Found> {
  await post('/arrival/open', { link });
  const clock = new ServerClock();
  const opened = await clock.learn(() => get<SittingOpened>('/sitting'));
  const paperText = await fetchPaper(opened.paperHash);
  const { holder } = await post<{ holder: string }>('/sitting/hold', { opening, takeOver: false });
  const moment = { serverAt: opened.now, deviceAt: Date.now() };
  await storeSitting({ link, opened, paperText, ...moment }).catch(() => undefined);
  return { opened, paperText, clock, elsewhere: holder !== opening };
}

/** Without the network: as the device last had it, with all that was put down since. */
async function fromDevice({ opened, paperText, ...moment }: StoredSitting): Promise<Found> {
  const clock = new ServerClock();
  clock.resume(moment);
  const since = await acknowledgedEntries(opened.sitting);
  const desk = since.reduce(applyEntry, opened.desk);
  return { opened: { ...opened, desk }, paperText, clock, elsewhere: false };
}

async function find(link: string, opening: string): Promise<Found> {
  try {
    return await fromServer(link, opening);
  } catch (error) {
    const away = error instanceof ApiProblem && (error.status === 0 || error.status >= 500);
    const stored = away ? await storedSitting(link) : undefined;
    if (!stored) throw error;
    return fromDevice(stored);
  }
}

/** The desk as it was left: what the server holds, and over it what this device has not been able to send. */
export async function openDesk(link: string): Promise<OpenedDesk> {
  const opening = thisOpening();
  const { opened, paperText, clock, elsewhere } = await find(link, opening);
  const { sitting } = opened;
  const paper = JSON.parse(paperText) as CandidatePaper;
  const journal = new DeviceJournal(sitting, () => clock.now());
  // The question in view asks for its own kinds first; the others follow behind it.
  setTimeout(() => void answers.load(kindsOf(paper)).catch(() => undefined), BEHIND_MS);
  const unsent = await journal.unsent();
  const handIn = await storedHandIn(sitting);
  return {
    ...{ paper, clock, elsewhere, timed: true, time: opened.time, queuedAt: handIn?.at ?? null },
    backend: new SittingBackend({ link, sitting, opening, journal, clock }),
    desk: unsent.reduce(applyEntry, opened.desk),
  };
}
