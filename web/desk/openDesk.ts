import { applyEntry, type Desk } from '../../core/journal/fold';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import type { SittingOpened } from '../../core/sittings/api';
import { get, getText, post } from '../api/client';
import { answers } from '../kinds/answers';
import { DeviceJournal } from './journal/deviceJournal';
import { ServerClock } from './serverClock';

export interface OpenedDesk {
  readonly opened: SittingOpened;
  readonly paper: CandidatePaper;
  readonly desk: Desk;
  readonly journal: DeviceJournal;
  readonly clock: ServerClock;
}

async function sha256(text: string): Promise<string> {
  const bytes = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
  return [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

const BEHIND_MS = 1500;

const papers = new Map<string, CandidatePaper>();

const kindsOf = (paper: CandidatePaper) => paper.questions.flatMap((q) => q.parts.map((p) => p.kind));

/** Brings the paper onto the device and checks by hash that it is whole. */
async function fetchPaper(hash: string): Promise<CandidatePaper> {
  const known = papers.get(hash);
  const text = known ? '' : await getText(`/sitting/paper/${hash}`);
  if (!known && (await sha256(text)) !== hash)
    throw new Error('The paper did not arrive whole. Load this page again; no time is lost.');
  const paper = known ?? (JSON.parse(text) as CandidatePaper);
  papers.set(hash, paper);
  return paper;
}

/** Before the start: fixes the form, fetches the paper and every component it needs. Costs no time. */
export async function preparePaper(): Promise<{ hash: string; paper: CandidatePaper }> {
  const { paperHash } = await post<{ paperHash: string }>('/sitting/prepare');
  const paper = await fetchPaper(paperHash);
  await answers.load(kindsOf(paper));
  return { hash: paperHash, paper };
}

export const startSitting = (paperHash: string): Promise<SittingOpened> =>
  post('/sitting/start', { paperHash });

/** The desk as it was left: what the server holds, and over it what this device has not been able to send. */
export async function openDesk(): Promise<OpenedDesk> {
  const clock = new ServerClock();
  const opened = await clock.learn(() => get<SittingOpened>('/sitting'));
  const paper = await fetchPaper(opened.paperHash);
  const journal = new DeviceJournal(opened.sitting, () => clock.now());
  // The question in view asks for its own kinds first; the others follow behind it.
  setTimeout(() => void answers.load(kindsOf(paper)).catch(() => undefined), BEHIND_MS);
  const unsent = await journal.unsent();
  return { opened, paper, journal, clock, desk: unsent.reduce(applyEntry, opened.desk) };
}
