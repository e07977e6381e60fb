import type { Document } from '../../documents/document';
import { phrasesIn } from '../../documents/phrasesIn';
import { message } from '../../messages/message';
import type { Issue, Place } from '../contract';
import { severe } from './issues';

interface SourceTexts {
  readonly tabs: readonly { readonly body: Document }[];
}

/** An issue for each of these keys that is no phrase of the item's source. */
export function issuesOfPhrases(keys: readonly string[], place: Place, path: Issue['path']): Issue[] {
  const tabs = (place.source as SourceTexts | null)?.tabs ?? [];
  const known = phrasesIn(tabs.map((tab) => tab.body)).map((phrase) => phrase.name);
  return keys
    .filter((key) => !known.includes(key))
    .map((key) => severe(path, message('author.noPhrase', { key })));
}
