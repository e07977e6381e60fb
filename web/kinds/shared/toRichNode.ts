import type { RichNode } from '../../../core/kinds/shared/richText';

interface EditorNode {
  readonly type?: string;
  readonly text?: string;
  readonly marks?: readonly { readonly type: string }[];
  readonly content?: readonly EditorNode[];
}

/** What the editor holds, narrowed to what is stored: no attributes, no empty lists. */
export function toRichNode({ type, text, marks, content }: EditorNode): RichNode {
  return {
    type: type as RichNode['type'],
    ...(text === undefined ? {} : { text }),
    ...(marks?.length ? { marks: marks.map((m) => ({ type: m.type as 'bold' })) } : {}),
    ...(content ? { content: content.map(toRichNode) } : {}),
  };
}
