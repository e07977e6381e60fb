import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { answers } from '../kinds/answers';
import { panels, toolsFor } from '../kit/tools';

/** After the first question is drawn, which asks for its own kinds first. */
const BEHIND_MS = 1500;

const fetchAll = (paper: CandidatePaper): Promise<unknown> =>
  Promise.all([
    answers.load(paper.questions.flatMap((q) => q.parts.map((p) => p.kind))),
    import('./BesideSource'),
    import('./LastLook'),
    import('./RailSheet'),
    import('./VersionsDialog'),
    import('./OpenAids'),
    paper.sections.some((section) => section.handouts.length > 0) && import('./HandoutPanel'),
    import('./Covered'),
    import('./SectionDoor'),
    import('./TurnDialog'),
    import('../ui/ReadingChoices'),
    import('../live/AskForm'),
    import('../ui/ToolPopover'),
    panels.load(paper.sections.flatMap((section) => toolsFor(section.aids).map((tool) => tool.panel))),
  ]);

/** Fetches what the first question does without, before it is wanted. */
export const fetchBehind = (paper: CandidatePaper): void =>
  void setTimeout(() => void fetchAll(paper).catch(() => undefined), BEHIND_MS);
