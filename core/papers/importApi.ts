import type { Message } from '../messages/message';
import type { AdaptiveView } from './adaptiveApi';
import type { CandidatePaper } from './candidatePaper';

/** Something about a paper that is to be imported, and where in the file: `sections.0.items.2.title`. */
export interface ImportIssue {
  readonly path: string;
  /** `severe` keeps the paper from being published; `advice` does not. */
  readonly severity: 'severe' | 'advice';
  readonly message: Message;
}

export interface ImportReport {
  readonly issues: readonly ImportIssue[];
  /** The paper as candidates will see it; null where something severe is wrong. */
  readonly preview: CandidatePaper | null;
  /** Its sections that choose their questions: for staff alone. */
  readonly adaptive: readonly AdaptiveView[];
  /** Files that the preview shows, as data addresses, by the hash that its texts name them by. */
  readonly media: Readonly<Record<string, string>>;
  /** Items that are new or changed, by their titles; what the bank has already stays as it is. */
  readonly changed: readonly string[];
  /** The published version; null in a dry run, or where something severe is wrong. */
  readonly published: number | null;
}

export interface PaperRow {
  readonly id: number;
  readonly key: string;
  readonly version: number;
  readonly title: string;
  /** Rounds that use this version. */
  readonly rounds: number;
}
