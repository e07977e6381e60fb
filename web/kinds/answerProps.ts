import type { SourcePhrase } from '../../core/documents/phrasesIn';
import type { PhraseUse } from '../documents/phrases';
import type { Document } from '../../core/documents/document';
import type { PageBox } from '../pages/pageBox';
import type { AidName } from '../../core/kit/aids';
import type { Credit, RunAsked } from '../../core/kinds/contract';
import type { EvidenceFound } from '../../core/kinds/evidence';

/** What a kind can do with the source beside its question. */
export interface SourceHandle {
  /** The phrases that can be chosen or picked up, in their order; empty without a source. */
  readonly phrases: readonly SourcePhrase[];
  /** Says how this part uses them from now on; null where it does not any more. */
  readonly use: (use: PhraseUse | null) => void;
}

export const noSource: SourceHandle = { phrases: [], use: () => undefined };

/** A phone that photographs pages for a part. */
/** The address for the QR code, and an address and a code that can be typed instead. */
export interface PhoneWay {
  readonly address: string;
  readonly typed: string;
  readonly code: string;
}

export interface PhoneHandle {
  /** The one that is joined now; null for none, or for another part. */
  readonly open: { readonly until: number; readonly joined: boolean } | null;
  /** The server's time as known here. */
  readonly now: number;
  /** Gives what brings a phone here; one that was joined before is joined no longer. */
  readonly join: () => Promise<PhoneWay>;
  readonly end: () => Promise<void>;
}

/** What every answering component is given; it draws that and says what happened. */
export interface AnswerProps<Shown, Response> {
  readonly shown: Shown;
  readonly response: Response;
  readonly onChange: (next: Response) => void;
  /** The last value of each event of the kind, by name. */
  readonly events: Readonly<Record<string, unknown>>;
  readonly onEvent: (name: string, value: unknown) => void;
  /** Ids of the prompt and of the line that says what is missing. */
  readonly promptId: string;
  readonly needId: string;
  /** For kinds that take the whole desk and show the prompt themselves. */
  readonly prompt: Document;
  /** The aids of the part's section. */
  readonly aids: readonly AidName[];
  /** The source beside the question, for kinds that work with its phrases. */
  readonly source: SourceHandle;
  /** Keeps the pages of an answer on this device and sends them; null where no part of the paper takes any. */
  readonly files: PageBox | null;
  /** Joins a phone to this part; null where that is not possible. */
  readonly phone: PhoneHandle | null;
  /** The part's own draft key, so that an editor starts again with another part. */
  readonly target: string;
}

/** What was found of a component, as far as it is drawn at its place. */
export type Found = Pick<Credit, 'component' | 'verdict'>;

/** What a reading component is given, at the marking table and on the result sheet. */
export interface ReadingProps<Shown, Response> {
  readonly shown: Shown;
  readonly response: Response;
  /** The right answer, to be drawn beside or within what was given; null where it is not told. */
  readonly right: Response | null;
  /** What was found, component by component; empty where it is not told. */
  readonly credits: readonly Found[];
}

/** What is given to the component in which those who mark see what was run, and run it again. */
export interface TrialProps<Shown, Response> extends Pick<
  ReadingProps<Shown, Response>,
  'shown' | 'response'
> {
  /** What the kind's half on the server tells of what was found; null where nothing was run. */
  readonly found: unknown;
  /** Runs the answer again with an input, on the server; null where the answer cannot be run from here. */
  readonly onRun: ((asked: RunAsked) => Promise<EvidenceFound>) | null;
}
