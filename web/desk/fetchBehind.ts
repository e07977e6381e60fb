import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { answers } from '../kinds/answers';
import { panels, toolsFor } from '../kit/tools';
import { atRest } from '../ui/atRest';

/** After the first question is drawn, which asks for its own kinds first. */
const BEHIND_MS = 1500;

/** In the order in which it may be wanted. */
function piecesFor(paper: CandidatePaper): (() => Promise<unknown>)[] {
  const kinds = new Set(paper.questions.flatMap((q) => q.parts.map((p) => p.kind)));
  const tools = new Set(
    paper.sections.flatMap((section) => toolsFor(section.aids).map((tool) => tool.panel)),
  );
  return [
    ...[...kinds].map((kind) => () => answers.load([kind])),
    () => import('./BesideSource'),
    () => import('./OpenAids'),
    ...[...tools].map((panel) => () => panels.load([panel])),
    ...(paper.sections.some((section) => section.handouts.length > 0)
      ? [() => import('./HandoutPanel')]
      : []),
    () => import('../ui/ToolPopover'),
    () => import('./RailSheet'),
    () => import('./SectionDoor'),
    () => import('./TurnDialog'),
    () => import('../ui/ReadingChoices'),
    () => import('../live/AskForm'),
    () => import('./VersionsDialog'),
    () => import('./LastLook'),
    () => import('./Covered'),
  ];
}

/**
 * Fetches what the first question does without, before it is wanted: one piece after the other, each when the browser
 * rests, since a piece that is being made ready holds up whoever goes to the next question meanwhile.
 */
async function fetchAll(paper: CandidatePaper): Promise<void> {
  for (const fetchPiece of piecesFor(paper)) {
    await new Promise<void>((rested) => atRest(rested));
    // What did not come is fetched again where it is wanted.
    await fetchPiece().catch(() => undefined);
  }
}

export const fetchBehind = (paper: CandidatePaper): void =>
  void setTimeout(() => void fetchAll(paper), BEHIND_MS);
