import type { Node } from '@tiptap/pm/model';
import { Plugin } from '@tiptap/pm/state';
import { Extension, type JSONContent } from '@tiptap/react';
import { wordsOf } from '../../../core/kinds/shared/richText';
import { toRichNode } from './toRichNode';

const wordsIn = (doc: Node): number => wordsOf(toRichNode(doc.toJSON() as JSONContent));

/** Keeps out what would make more words than the limit; taking away is always possible. */
export const wordLimit = (most: number, onRefused: () => void) =>
  Extension.create({
    name: 'wordLimit',
    addProseMirrorPlugins: () => [
      new Plugin({
        filterTransaction: (change, { doc }) => {
          if (!change.docChanged) return true;
          const words = wordsIn(change.doc);
          const taken = words <= most || words <= wordsIn(doc);
          if (!taken) onRefused();
          return taken;
        },
      }),
    ],
  });
