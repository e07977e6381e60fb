import {
  withSection,
  type CandidatePaper,
  type Question,
  type SealedSection,
} from '../../core/papers/candidatePaper';
import { questionsOfToday } from '../../core/papers/questionsOfToday';
import type { Prepared, SealedListing, SittingKeys } from '../../core/sittings/api';
import type { ArrivalView } from '../../core/arrival/api';
import { getBytes, post, problem } from '../api/client';
import { loadNodes } from '../documents/lazyNodes';
import { answers, drawnLike } from '../kinds/answers';
import { bringCandidateKind } from '../kinds/candidates';
import { fetchMedia, type MediaProgress } from './fetchMedia';
import { digestOfBytes } from './journal/digest';
import { findSealed, keepSealed } from './journal/deviceStore';
import { keepForOffline } from './keepForOffline';
import { unseal } from './unseal';

/** A sealed copy: from this device, or fetched, checked by its hash and kept. */
async function sealedCopy({ hash }: SealedListing): Promise<Uint8Array<ArrayBuffer>> {
  const known = await findSealed(hash);
  if (known) return known;
  const bytes = await getBytes(`/sitting/sealed/${hash}`);
  if (digestOfBytes(bytes) !== hash) throw problem('paperBroken');
  await keepSealed(hash, bytes);
  return bytes;
}

/** The hashes of all that was brought onto the device: what the server is shown at the start. */
export const hashesOf = ({ sealed, media }: Prepared): string[] =>
  [...sealed, ...media].map((one) => one.hash);

/** Before the start: fixes the form and brings it, sealed, onto the device, with its media and every component. Costs no time. */
export async function preparePaper(
  { kinds, textNodes }: ArrivalView['cover'],
  onProgress: (progress: MediaProgress) => void,
  signal: AbortSignal,
): Promise<Prepared> {
  const prepared = await post<Prepared>('/sitting/prepare');
  await Promise.all([
    ...prepared.sealed.map(sealedCopy),
    fetchMedia(prepared.media, onProgress, signal),
    answers.load(kinds),
    loadNodes(textNodes),
    keepForOffline([...textNodes, ...drawnLike(kinds)]),
  ]);
  return prepared;
}

/** What reads, counts and checks the answers to these questions; the desk cannot tell its state before it is here. */
const bringKindsOf = (questions: readonly Question[]) =>
  Promise.all(
    [...new Set(questions.flatMap((question) => question.parts.map((part) => part.kind)))].map(
      bringCandidateKind,
    ),
  );

export async function openSection(
  sealed: readonly SealedListing[],
  section: string,
  key: string,
): Promise<SealedSection> {
  const listing = sealed.find((one) => one.section === section);
  if (!listing) throw new Error(`there is no section ${section} to open`);
  const opened = await unseal<SealedSection>(await sealedCopy(listing), key);
  await bringKindsOf(opened.questions);
  return { ...opened, questions: questionsOfToday(opened.questions) };
}

/** The paper with all the sections to which there are keys. */
export async function openPaper(
  sealed: readonly SealedListing[],
  keys: SittingKeys['paper'],
): Promise<CandidatePaper> {
  const whole = sealed.find((one) => one.section === '')!;
  let paper = await unseal<CandidatePaper>(await sealedCopy(whole), keys['']!);
  for (const [section, key] of Object.entries(keys))
    if (section !== '') paper = withSection(paper, await openSection(sealed, section, key));
  await bringKindsOf(paper.questions);
  return { ...paper, questions: questionsOfToday(paper.questions) };
}
