import { closeBrackets } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { javascript } from '@codemirror/lang-javascript';
import { python } from '@codemirror/lang-python';
import {
  bracketMatching,
  HighlightStyle,
  indentOnInput,
  indentUnit,
  syntaxHighlighting,
} from '@codemirror/language';
import { EditorState } from '@codemirror/state';
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useEffectEvent, useRef } from 'react';
import type { Language } from '../../../core/kinds/code/response';

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '0.92rem', backgroundColor: 'var(--color-card)' },
  // Within its frame, which would cut it off.
  '&.cm-focused': { outline: '3px solid var(--color-kelp)', outlineOffset: '-3px' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.55', fontVariantLigatures: 'none' },
  '.cm-gutters': { backgroundColor: 'transparent', border: 'none', color: 'var(--color-soft)' },
  '.cm-activeLine': { backgroundColor: 'rgb(243 240 231 / 0.55)' },
  '.cm-content': { caretColor: 'var(--color-ink)' },
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

const grammars = { python: () => python(), javascript: () => javascript() };

interface Props {
  readonly language: Language;
  readonly program: string;
  readonly label: string;
  readonly help: string;
  readonly onChange: (program: string) => void;
}

/** The program. Tab indents; Esc, then Tab, leaves the editor (said to screen readers by `help`). */
export function CodeEditor({ language, program, label, help, onChange }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const changed = useEffectEvent(onChange);
  const first = useEffectEvent(() => program);
  useEffect(() => {
    const view = new EditorView({
      parent: place.current!,
      state: EditorState.create({
        doc: first(),
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          indentOnInput(),
          bracketMatching(),
          closeBrackets(),
          highlightActiveLine(),
          grammars[language](),
          syntaxHighlighting(colours),
          look,
          indentUnit.of(language === 'python' ? '    ' : '  '),
          keymap.of([...defaultKeymap, ...historyKeymap, indentWithTab]),
          EditorView.contentAttributes.of({ 'aria-label': label, 'aria-description': help, tabindex: '0' }),
          EditorView.updateListener.of((update) => update.docChanged && changed(update.state.doc.toString())),
        ],
      }),
    });
    return () => view.destroy();
  }, [language, label, help]);
  return <div ref={place} className="h-full min-h-56 overflow-hidden" />;
}
