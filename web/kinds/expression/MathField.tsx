import 'mathlive/fonts.css';
import './field.css';
import { MathfieldElement } from 'mathlive';
import { useEffect, useEffectEvent, useImperativeHandle, useRef, type Ref } from 'react';

/** What the toolbar can do with the field. */
export interface FieldHandle {
  put(latex: string): void;
  focus(): void;
}

// Everything is shipped with the application: nothing is fetched from elsewhere, and nothing makes a sound.
MathfieldElement.fontsDirectory = null;
MathfieldElement.soundsDirectory = null;

interface Props {
  readonly ref: Ref<FieldHandle>;
  readonly latex: string;
  readonly decimal: '.' | ',';
  /** Of the question: its words lie outside of the field's own root. */
  readonly promptId: string;
  readonly describedBy: string;
  readonly onChange: (latex: string) => void;
}

/** The part of the field that hears keys lies behind its own root: what it is called has to be set there. */
function nameSink(field: MathfieldElement, promptId: string): void {
  const name = document.getElementById(promptId)?.textContent ?? '';
  const sink = field.shadowRoot?.querySelector('[part=keyboard-sink]');
  sink?.setAttribute('aria-label', name);
  // The keyboard of the device; the field's own is off.
  sink?.setAttribute('inputmode', 'text');
}

/** The editor of mathematics of a library, set up for a test: its own keyboard, menu and sounds are off. */
export function MathField({ ref, latex, decimal, promptId, describedBy, onChange }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const field = useRef<MathfieldElement | null>(null);
  const changed = useEffectEvent((value: string) => {
    if (value !== latex) onChange(value);
  });
  const begin = useEffectEvent(() => latex);
  useEffect(() => {
    MathfieldElement.decimalSeparator = decimal;
    const made = new MathfieldElement({
      mathVirtualKeyboardPolicy: 'manual',
      mathModeSpace: '\\:',
      popoverPolicy: 'off',
    });
    made.value = begin();
    made.addEventListener('input', () => changed(made.getValue('latex')));
    field.current = made;
    place.current!.replaceChildren(made);
    // Only once it stands in the page.
    made.menuItems = [];
    return () => {
      made.remove();
      field.current = null;
    };
  }, [decimal]);
  useEffect(() => {
    const made = field.current;
    if (!made) return;
    if (made.getValue('latex') !== latex) made.setValue(latex, { silenceNotifications: true });
    nameSink(made, promptId);
  }, [latex, promptId]);
  useImperativeHandle(ref, () => ({
    put: (signs) => {
      field.current?.executeCommand(['insert', signs, { focus: true, feedback: false }]);
      if (field.current) onChange(field.current.getValue('latex'));
    },
    focus: () => field.current?.focus(),
  }));
  return <div ref={place} aria-describedby={describedBy} className="expression-field" />;
}
