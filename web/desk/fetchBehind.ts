import type { KindName } from '../../core/kinds/kindNames';
import type { AidName } from '../../core/kit/aids';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { answers } from '../kinds/answers';
import { panels, toolsFor } from '../kit/tools';
import { atRest } from '../ui/atRest';
import { fetchLater, fetchLaterByTurns } from '../ui/later';

/** After the first question is drawn, which asks for its own kinds first. */
const BEHIND_MS = 1500;
/** How long the cover waits for what the desk can also begin without. */
const PATIENCE_MS = 8000;

/** What of a paper says which pieces of the desk it needs. */
interface Needs {
  readonly kinds: readonly KindName[];
  /** By section. */
  readonly aids: readonly (readonly AidName[])[];
}

/** Of each kind what is answered in, and of each aid its panel. */
function piecesFor({ kinds, aids }: Needs): (() => Promise<unknown>)[] {
  const tools = new Set(aids.flatMap((own) => toolsFor(own).map((tool) => tool.panel)));
  return [
    ...kinds.map((kind) => () => answers.load([kind])),
    ...[...tools].map((panel) => () => panels.load([panel])),
  ];
}

/** A font that comes late has every text laid out again that was laid out with another. */
async function loadFonts(): Promise<void> {
  const style = getComputedStyle(document.documentElement);
  const families = ['--font-sans', '--font-serif', '--font-mono'].map((name) => style.getPropertyValue(name));
  await Promise.all(families.map((family) => document.fonts.load(`1em ${family}`)));
}

/**
 * Fetches all that the desk may need, as fast as it comes, where the clock does not run yet; not for ever, since a
 * request that hangs must keep nobody from the start. What does not come is fetched where it is wanted.
 */
export async function fetchDesk(needs: Needs): Promise<void> {
  const all = [...piecesFor(needs), fetchLater, loadFonts].map((fetchPiece) => fetchPiece());
  await Promise.race([Promise.allSettled(all), new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
}

/**
 * Fetches what the first question does without, before it is wanted: one piece after the other, each when the browser
 * rests, since a piece that is being made ready holds up whoever goes to the next question meanwhile.
 */
async function fetchAll({ questions, sections }: CandidatePaper): Promise<void> {
  const kinds = [...new Set(questions.flatMap((q) => q.parts.map((p) => p.kind)))];
  const rested = () => new Promise<void>((rest) => atRest(rest));
  for (const fetchPiece of piecesFor({ kinds, aids: sections.map((s) => s.aids) })) {
    await rested();
    // What did not come is fetched again where it is wanted.
    await fetchPiece().catch(() => undefined);
  }
  await fetchLaterByTurns(rested);
  await loadFonts().catch(() => undefined);
}

export const fetchBehind = (paper: CandidatePaper): void =>
  void setTimeout(() => void fetchAll(paper), BEHIND_MS);
