import type { Document } from '../../core/documents/document';
import type { Credit } from '../../core/kinds/contract';

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
  /** The part's own draft key, so that an editor starts anew with another part. */
  readonly target: string;
}

/** What a reading component is given, at the marking table and on the result sheet. */
export interface ReadingProps<Shown, Response> {
  readonly shown: Shown;
  readonly response: Response;
  /** What the machine found, component by component; empty where it is not told. */
  readonly credits: readonly Credit[];
}
