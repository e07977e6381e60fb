import { inlineAsText } from './documentAsText';
import type { Document } from './document';
import { everyNode } from './everyNode';

/** A phrase of a source that can be chosen or picked up. */
export interface SourcePhrase {
  readonly name: string;
  readonly text: string;
}

/** The phrases of some texts, in their order. */
export const phrasesIn = (documents: Iterable<Document>): SourcePhrase[] =>
  [...documents].flatMap((document) =>
    [...everyNode(document)].flatMap(([node]) =>
      node.type === 'phrase' ? [{ name: node.key, text: inlineAsText(node.children) }] : [],
    ),
  );
