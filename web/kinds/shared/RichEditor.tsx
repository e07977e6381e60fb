import { CharacterCount } from '@tiptap/extensions';
import { EditorContent, useEditor, useEditorState, type Editor, type JSONContent } from '@tiptap/react';
import { StarterKit } from '@tiptap/starter-kit';
import { Bold, Italic, List, ListOrdered, Redo2, Underline, Undo2 } from 'lucide-react';
import { withoutFormat, type RichNode } from '../../../core/kinds/shared/richText';
import { words } from '../../words';
import { toRichNode } from './toRichNode';
import { wordLimit } from './wordLimit';

const t = words('richEditor', {
  tools: 'Text tools',
  bold: 'Bold',
  italic: 'Italic',
  underline: 'Underline',
  list: 'List',
  numbered: 'Numbered list',
  undo: 'Undo',
  redo: 'Redo',
});

const LONGEST = 30_000;

/** A paragraph to write in: without one there is no cursor that a format could be chosen for. */
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] };

interface Tool {
  readonly name: Parameters<typeof t>[0];
  readonly Icon: typeof Bold;
  readonly press: (editor: Editor) => void;
  readonly on?: (editor: Editor) => boolean;
}

const TOOLS: Tool[] = [
  {
    name: 'bold',
    Icon: Bold,
    press: (e) => e.chain().focus().toggleBold().run(),
    on: (e) => e.isActive('bold'),
  },
  {
    name: 'italic',
    Icon: Italic,
    press: (e) => e.chain().focus().toggleItalic().run(),
    on: (e) => e.isActive('italic'),
  },
  {
    name: 'underline',
    Icon: Underline,
    press: (e) => e.chain().focus().toggleUnderline().run(),
    on: (e) => e.isActive('underline'),
  },
  {
    name: 'list',
    Icon: List,
    press: (e) => e.chain().focus().toggleBulletList().run(),
    on: (e) => e.isActive('bulletList'),
  },
  {
    name: 'numbered',
    Icon: ListOrdered,
    press: (e) => e.chain().focus().toggleOrderedList().run(),
    on: (e) => e.isActive('orderedList'),
  },
  { name: 'undo', Icon: Undo2, press: (e) => e.chain().focus().undo().run() },
  { name: 'redo', Icon: Redo2, press: (e) => e.chain().focus().redo().run() },
];

function Toolbar({ editor }: { editor: Editor }) {
  const pressed = useEditorState({
    editor,
    selector: ({ editor: e }) => TOOLS.map((tool) => tool.on?.(e) ?? null),
  });
  return (
    <div
      role="toolbar"
      aria-label={t('tools')}
      // It stays in view however long the text becomes.
      className="sticky top-0 z-[5] flex flex-wrap gap-0.5 rounded-t-lg border-b border-line bg-card px-1.5 py-1"
    >
      {TOOLS.map(({ name, Icon, press }, i) => (
        <button
          key={name}
          type="button"
          title={t(name)}
          aria-label={t(name)}
          aria-pressed={pressed[i] ?? undefined}
          onClick={() => press(editor)}
          className={`grid size-9 place-items-center rounded-control ${pressed[i] ? 'bg-wash text-kelp' : 'text-soft hover:bg-shade hover:text-ink'}`}
        >
          <Icon aria-hidden className="size-[1.1rem]" />
        </button>
      ))}
    </div>
  );
}

interface Props {
  readonly text: RichNode;
  readonly onChange: (text: RichNode) => void;
  /** With tools for bold, lists and so on. */
  readonly rich: boolean;
  /** Height before anything is written, as a class. */
  readonly height: string;
  /** No more words than this can be written; null for no such limit. */
  readonly most?: number | null;
  readonly onRefused?: () => void;
  readonly labelledBy: string;
  readonly describedBy: string;
  /** An editor starts again with another. */
  readonly target: string;
}

/** A sheet to write on; it grows with the text. Tab leaves it, so that no one is caught by the keyboard. */
export function RichEditor(props: Props) {
  const { text, onChange, rich, height, labelledBy, describedBy, target, most = null, onRefused } = props;
  const editor = useEditor(
    {
      extensions: [
        StarterKit.configure({
          // A plain field takes no bold and no list, neither by keys nor by paste.
          ...(rich
            ? {}
            : {
                bold: false,
                italic: false,
                underline: false,
                bulletList: false,
                orderedList: false,
                listItem: false,
                listKeymap: false,
              }),
          heading: false,
          blockquote: false,
          code: false,
          codeBlock: false,
          horizontalRule: false,
          link: false,
          strike: false,
        }),
        CharacterCount.configure({ limit: LONGEST }),
        ...(most === null ? [] : [wordLimit(most, () => onRefused?.())]),
      ],
      content: ((text.content ?? []).length === 0 ? EMPTY : rich ? text : withoutFormat(text)) as JSONContent,
      immediatelyRender: true,
      editorProps: {
        // The line that is written stays clear of the tools above and the count below.
        scrollThreshold: 60,
        scrollMargin: 60,
        attributes: {
          role: 'textbox',
          'aria-multiline': 'true',
          // Nobody's device corrects what is judged.
          spellcheck: 'false',
          autocorrect: 'off',
          autocapitalize: 'off',
          'aria-labelledby': labelledBy,
          'aria-describedby': describedBy,
          class: `${height} px-5 py-4 font-serif text-[1.03rem] leading-relaxed outline-none! [&_p]:mb-3 [&_ul]:list-disc [&_ul]:pl-6 [&_ol]:list-decimal [&_ol]:pl-6`,
        },
      },
      onUpdate: ({ editor: e }) => onChange(toRichNode(e.getJSON())),
    },
    [target],
  );
  return (
    <div className="rounded-lg border border-edge bg-card focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-kelp">
      {rich && <Toolbar editor={editor} />}
      <EditorContent editor={editor} />
    </div>
  );
}
