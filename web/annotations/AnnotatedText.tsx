import { useEffect, useRef, type ReactNode } from 'react';
import type { RichNode } from '../../core/kinds/shared/richText';
import { piecesOf, type Stretch } from '../../core/marking/notesInText';
import { QUOTE_MOST } from '../../core/marking/marginNote';
import { RichText } from '../ui/RichText';
import { stretchIn, textIn } from '../kit/textScopes';
import { words } from '../words';
import { SIDE_LOOKS, useAnnotations, type Annotations, type ShownNote } from './annotations';

const t = words('annotatedText', {
  label: 'The answer. Arrow keys select words, Shift with arrow keys selects more, N adds a note.',
  read: 'The answer',
});

interface Noted extends Stretch {
  readonly note: ShownNote;
}

const notedIn = (notes: readonly ShownNote[]): Noted[] =>
  notes.flatMap((note) =>
    note.anchor.on === 'text' ? [{ note, start: note.anchor.start, end: note.anchor.end }] : [],
  );

const MARKS = { bold: 'strong', italic: 'em', underline: 'u' } as const;

/** Text of one leaf, with what notes are about marked; the last begun note is on top where they overlap. */
function Leaf({
  node,
  from,
  noted,
  annotations: { active },
}: {
  readonly node: RichNode;
  readonly from: number;
  readonly noted: readonly Noted[];
  readonly annotations: Annotations;
}) {
  const pieces = piecesOf(node.text ?? '', from, noted);
  const inner = pieces.map(({ text, under, ending }, i): ReactNode => {
    const top = under.find(({ note }) => note.id === active) ?? under.at(-1);
    return (
      <span key={i}>
        {top ? (
          <mark
            data-note={top.note.id}
            className={`text-[#1b2733] underline decoration-2 underline-offset-4 ${SIDE_LOOKS[top.note.side]} ${under.length > 1 ? 'shadow-[inset_0_-0.5em_0_rgb(0_0_0/0.1)]' : ''} ${top.note.id === active ? 'outline-2 outline-kelp' : ''}`}
          >
            {text}
          </mark>
        ) : (
          text
        )}
        {ending.map(({ note }) =>
          note.number === null ? null : (
            <sup key={note.id} className="px-0.5 font-sans text-[0.7em] font-semibold select-none">
              {note.number}
            </sup>
          ),
        )}
      </span>
    );
  });
  return (node.marks ?? []).reduce<ReactNode>(
    (content, { type }) => {
      const Mark = MARKS[type];
      return <Mark>{content}</Mark>;
    },
    <span className="wrap-anywhere whitespace-pre-wrap">{inner}</span>,
  );
}

/** Arrow keys choose words and lines of a text that is only read, since it has no caret of its own. */
function chooseByKey(event: KeyboardEvent, root: HTMLElement): void {
  const steps = {
    ArrowRight: ['forward', 'word'],
    ArrowLeft: ['backward', 'word'],
    ArrowDown: ['forward', 'line'],
    ArrowUp: ['backward', 'line'],
  } as const;
  const step = steps[event.key as keyof typeof steps];
  if (!step || event.ctrlKey || event.altKey || event.metaKey) return;
  const selection = document.getSelection()!;
  const inside = selection.rangeCount > 0 && root.contains(selection.getRangeAt(0).startContainer);
  event.preventDefault();
  event.stopPropagation();
  if (!inside) selection.collapse(root, 0);
  if (event.shiftKey) selection.modify('extend', step[0], step[1]);
  else {
    // Another word alone: the one after what is chosen, or before it.
    if (!selection.isCollapsed && step[0] === 'forward') selection.collapseToEnd();
    else if (!selection.isCollapsed) selection.collapseToStart();
    if (inside && (step[1] === 'line' || step[0] === 'backward')) selection.modify('move', step[0], step[1]);
    selection.modify('extend', 'forward', 'word');
  }
  if (!root.contains(selection.focusNode)) selection.modify('move', 'backward', 'character');
}

/** The document node by node; characters of its leaves are counted through, as places of notes are. */
function drawNoted(document: RichNode, noted: readonly Noted[], annotations: Annotations): ReactNode {
  let passed = 0;
  const draw = (one: RichNode, key: number): ReactNode => {
    const children = () => (one.content ?? []).map(draw);
    switch (one.type) {
      case 'text': {
        const from = passed;
        passed += one.text?.length ?? 0;
        return <Leaf key={key} node={one} from={from} noted={noted} annotations={annotations} />;
      }
      case 'hardBreak':
        return <br key={key} />;
      case 'paragraph':
        return (
          <p key={key} className="mb-3 min-h-4 last:mb-0">
            {children()}
          </p>
        );
      case 'bulletList':
        return (
          <ul key={key} className="mb-3 list-disc pl-6">
            {children()}
          </ul>
        );
      case 'orderedList':
        return (
          <ol key={key} className="mb-3 list-decimal pl-6">
            {children()}
          </ol>
        );
      case 'listItem':
        return <li key={key}>{children()}</li>;
      case 'doc':
        return <div key={key}>{children()}</div>;
    }
  };
  return draw(document, 0);
}

/** What was written, with the notes on it. Where notes can be made, words are chosen by pointer or by keys. */
export function AnnotatedText({ node }: { readonly node: RichNode }) {
  const annotations = useAnnotations();
  const { notes, onPlace } = annotations;
  const root = useRef<HTMLDivElement>(null);
  const place = useRef(onPlace);
  useEffect(() => {
    place.current = onPlace;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'n' || event.ctrlKey || event.altKey || event.metaKey) return;
      const writing = event.target instanceof HTMLTextAreaElement || event.target instanceof HTMLInputElement;
      const own = root.current;
      const selection = document.getSelection();
      if (writing || !own || !place.current || !selection || selection.rangeCount === 0) return;
      const range = selection.getRangeAt(0);
      const inside = !range.collapsed && own.contains(range.commonAncestorContainer);
      const found = inside ? stretchIn(own, range) : null;
      if (!found) return;
      event.preventDefault();
      const quote = textIn(own).slice(found.start, found.end).slice(0, QUOTE_MOST);
      place.current({ on: 'text', ...found, quote });
      selection.removeAllRanges();
    };
    const choose = (event: KeyboardEvent) => {
      if (place.current && root.current) chooseByKey(event, root.current);
    };
    const own = root.current;
    own?.addEventListener('keydown', choose);
    window.addEventListener('keydown', press);
    return () => {
      own?.removeEventListener('keydown', choose);
      window.removeEventListener('keydown', press);
    };
  }, []);
  const noted = notedIn(notes);
  if (noted.length === 0 && !onPlace) return <RichText node={node} />;
  return (
    <div
      ref={root}
      data-annotated
      {...(onPlace ? { 'data-to-notes': '' } : {})}
      role="group"
      aria-label={onPlace ? t('label') : t('read')}
      tabIndex={onPlace ? 0 : undefined}
      className="outline-offset-8"
    >
      {drawNoted(node, noted, annotations)}
    </div>
  );
}
