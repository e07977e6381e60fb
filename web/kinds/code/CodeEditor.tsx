import {
  autocompletion,
  closeBrackets,
  closeBracketsKeymap,
  completionKeymap,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyField, historyKeymap, indentWithTab } from '@codemirror/commands';
import { javascript } from '@codemirror/lang-javascript';
import { python } from '@codemirror/lang-python';
import { sql, SQLite } from '@codemirror/lang-sql';
import {
  bracketMatching,
  HighlightStyle,
  indentOnInput,
  indentUnit,
  syntaxHighlighting,
} from '@codemirror/language';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorSelection, EditorState, RangeSetBuilder, type Extension } from '@codemirror/state';
import {
  Decoration,
  drawSelection,
  EditorView,
  highlightActiveLine,
  keymap,
  lineNumbers,
  ViewPlugin,
  type DecorationSet,
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useEffectEvent, useImperativeHandle, useRef, type Ref } from 'react';
import type { Language } from '../../../core/kinds/code/response';
import { keepEditorState, keptEditorState } from '../../ui/editorStates';

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '0.92rem', backgroundColor: 'var(--color-card)' },
  // Within its frame, which would cut it off.
  '&.cm-focused': { outline: '3px solid var(--color-kelp)', outlineOffset: '-3px' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.55', fontVariantLigatures: 'none' },
  '.cm-gutters': { backgroundColor: 'var(--color-card)', border: 'none', color: 'var(--color-soft)' },
  '.cm-activeLine': { backgroundColor: 'rgb(243 240 231 / 0.55)' },
  '.cm-content': { caretColor: 'var(--color-ink)' },
  '.cm-fixed': { backgroundColor: 'var(--color-shade)' },
  '.cm-panels': { backgroundColor: 'var(--color-paper)', color: 'var(--color-ink)' },
  '.cm-panels button, .cm-panels input': { fontSize: '0.85rem', minHeight: '1.9rem' },
  '.cm-tooltip': { backgroundColor: 'var(--color-card)', border: '1px solid var(--color-edge)' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--color-kelp)',
    color: 'var(--color-card)',
  },
});

const colours = HighlightStyle.define([
  {
    tag: [tags.keyword, tags.controlKeyword, tags.definitionKeyword],
    color: 'var(--color-kelp)',
    fontWeight: '600',
  },
  { tag: [tags.string, tags.docString], color: 'var(--color-marigold)' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--color-slate)' },
  { tag: tags.comment, color: 'var(--color-soft)', fontStyle: 'italic' },
]);

const grammars: Record<Language, () => Extension> = {
  python: () => python(),
  javascript: () => javascript(),
  typescript: () => javascript({ typescript: true }),
  sql: () => sql({ dialect: SQLite }),
};

const fixedLine = Decoration.line({ class: 'cm-fixed' });

/** Lines before and after the candidate's own, which stand fast. */
function fixedParts(head: string, tail: string): Extension {
  if (head === '' && tail === '') return [];
  const paint = ({ state, visibleRanges }: EditorView): DecorationSet => {
    const marks = new RangeSetBuilder<Decoration>();
    const end = state.doc.length - tail.length;
    for (const { from, to } of visibleRanges)
      for (let at = from; at <= to;) {
        const line = state.doc.lineAt(at);
        const fixed = line.to < head.length || (tail !== '' && line.from > end);
        if (fixed) marks.add(line.from, line.from, fixedLine);
        at = line.to + 1;
      }
    return marks.finish();
  };
  const painted = ViewPlugin.define(
    (view) => ({
      marks: paint(view),
      update(update) {
        if (update.docChanged || update.viewportChanged) this.marks = paint(update.view);
      },
    }),
    { decorations: (plugin) => plugin.marks },
  );
  const guard = EditorState.transactionFilter.of((change) => {
    if (!change.docChanged) return change;
    const end = change.startState.doc.length - tail.length;
    let inside = true;
    change.changes.iterChangedRanges((from, to) => {
      if (from < head.length || to > end) inside = false;
    });
    return inside ? change : [];
  });
  return [guard, painted];
}

/** What would make the file longer than it may be is not taken, and said. */
const lengthGuard = (most: () => number, onFull: (full: boolean) => void): Extension =>
  EditorState.transactionFilter.of((change) => {
    if (!change.docChanged) return change;
    const full = change.newDoc.length > most() && change.newDoc.length > change.startState.doc.length;
    onFull(full);
    return full ? [] : change;
  });

export interface EditorHandle {
  /** Puts the cursor at the beginning of a line, and brings it into view. */
  readonly goTo: (line: number) => void;
  /** Puts signs in the place of what is selected. */
  readonly insert: (text: string) => void;
}

interface Props {
  readonly language: Language;
  readonly file: { readonly head: string; readonly text: string; readonly tail: string };
  readonly readOnly: boolean;
  readonly label: string;
  readonly help: string;
  /** Under which what can be undone is kept over a reload. */
  readonly stateKey: string;
  readonly onChange: (text: string) => void;
  /** Characters that the file may have. */
  readonly most: number;
  readonly onFull: (full: boolean) => void;
  readonly handle: Ref<EditorHandle>;
}

const KEEP_AFTER_MS = 500;

interface Kept {
  readonly doc: string;
}

/** The text of a file. Tab indents; Esc, then Tab, leaves the editor (said to screen readers by `help`). */
export function CodeEditor(props: Props) {
  const { language, file, readOnly, label, help, stateKey, handle } = props;
  const { head, tail } = file;
  const place = useRef<HTMLDivElement>(null);
  const editor = useRef<EditorView>(null);
  const whole = useEffectEvent(() => `${head}${file.text}${tail}`);
  /** Writing down what can be undone takes long in a long file: at a pause, and when the page goes. */
  const keeping = useRef<{ readonly key: string; readonly state: EditorState }>(null);
  const timer = useRef(0);
  const keep = useEffectEvent(() => {
    window.clearTimeout(timer.current);
    const { current } = keeping;
    keeping.current = null;
    if (current) keepEditorState(current.key, current.state.toJSON({ history: historyField }));
  });
  const changed = useEffectEvent((state: EditorState) => {
    const text = state.doc.toString();
    keeping.current = { key: stateKey, state };
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(keep, KEEP_AFTER_MS);
    props.onChange(text.slice(head.length, text.length - tail.length));
  });
  const most = useEffectEvent(() => head.length + props.most + tail.length);
  const full = useEffectEvent((is: boolean) => props.onFull(is));
  useEffect(() => {
    const extensions: Extension[] = [
      lineNumbers(),
      history(),
      drawSelection(),
      indentOnInput(),
      bracketMatching(),
      closeBrackets(),
      autocompletion({ activateOnTyping: true, icons: false }),
      search({ top: true }),
      highlightSelectionMatches(),
      highlightActiveLine(),
      grammars[language](),
      syntaxHighlighting(colours),
      look,
      indentUnit.of(language === 'python' ? '    ' : '  '),
      keymap.of([
        ...closeBracketsKeymap,
        ...completionKeymap,
        ...searchKeymap,
        ...defaultKeymap,
        ...historyKeymap,
        indentWithTab,
      ]),
      EditorView.contentAttributes.of({ 'aria-label': label, 'aria-description': help, tabindex: '0' }),
      EditorView.updateListener.of((update) => update.docChanged && changed(update.state)),
      fixedParts(head, tail),
      lengthGuard(most, full),
      EditorState.readOnly.of(readOnly),
    ];
    const kept = keptEditorState(stateKey) as Kept | null;
    const doc = whole();
    // Another device, or an earlier version brought back, has changed it meanwhile: undo begins again.
    const state =
      kept?.doc === doc
        ? EditorState.fromJSON(kept, { extensions }, { history: historyField })
        : EditorState.create({ doc, extensions });
    const view = new EditorView({ parent: place.current!, state });
    editor.current = view;
    window.addEventListener('pagehide', keep);
    return () => {
      window.removeEventListener('pagehide', keep);
      keep();
      editor.current = null;
      view.destroy();
    };
  }, [language, label, help, head, tail, readOnly, stateKey]);
  useImperativeHandle(handle, () => ({
    goTo(number) {
      const view = editor.current;
      if (!view) return;
      const { from } = view.state.doc.line(Math.min(Math.max(1, number), view.state.doc.lines));
      view.dispatch({ selection: EditorSelection.cursor(from), scrollIntoView: true });
      view.focus();
    },
    insert(text) {
      const view = editor.current;
      if (!view) return;
      view.dispatch(view.state.replaceSelection(text));
      view.focus();
    },
  }));
  return <div ref={place} className="min-h-44 flex-1 overflow-hidden" />;
}
