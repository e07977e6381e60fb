import { createContext } from 'react';
import type { SourcePhrase } from '../../core/documents/phrasesIn';
import type { PhraseUse } from '../documents/phrases';

/** The source beside a question, as its parts work with it. */
export interface PhraseDesk {
  readonly phrases: readonly SourcePhrase[];
  readonly use: (target: string, use: PhraseUse | null) => void;
  /** A part was pressed or came into focus. */
  readonly touch: (target: string) => void;
}

/** Where no source stands beside the question, there is nothing to work with. */
export const PhraseDeskContext = createContext<PhraseDesk>({
  phrases: [],
  use: () => undefined,
  touch: () => undefined,
});
