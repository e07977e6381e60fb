import { useState } from 'react';
import type { MarkingScript } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import type { Anchor, MarginNote } from '../../core/marking/marginNote';
import { marksGiven } from '../../core/marking/marksGiven';
import { emptyDraft, keepDraft, localDraft } from './draftStore';
import { pressKey } from './markKeys';

/** The mark of one script while it is made: every change is kept, here and on the server. */
export function useMark(script: MarkingScript) {
  const { components, task } = script;
  const [draft, setDraft] = useState<MarkDraft>(() => localDraft(task) ?? script.draft ?? emptyDraft);
  const [active, setActive] = useState(
    () => (components.find((c) => draft.given[c.key] === undefined) ?? components[0])!.key,
  );
  const [typed, setTyped] = useState('');
  const [note, setNote] = useState<string | null>(null);
  /** Null: nothing was changed yet. */
  const [kept, setKept] = useState<boolean | null>(null);
  const change = (part: Partial<MarkDraft>) => {
    const next = { ...draft, ...part };
    setDraft(next);
    keepDraft(task, next, setKept);
  };
  const give = (component: string, value: number | readonly number[] | undefined) => {
    const { [component]: _, ...others } = draft.given;
    const next = value === undefined ? others : { ...others, [component]: value };
    change({ given: next });
    setTyped('');
    // Points are ticked one after the other; anything else is decided at once.
    const stays = value === undefined || Array.isArray(value);
    const open = components.find((c) => next[c.key] === undefined);
    setActive(stays ? component : (open?.key ?? component));
  };
  const step = (by: 1 | -1) => {
    const at = components.findIndex((c) => c.key === active);
    setActive(components[Math.min(components.length - 1, Math.max(0, at + by))]!.key);
    setTyped('');
  };
  /** A key of the rubric; false where it means nothing there. */
  const press = (key: string): boolean => {
    const component = components.find((c) => c.key === active)!;
    const before = draft.given[active];
    const ticked = Array.isArray(before) ? (before as readonly number[]) : [];
    if (key === 'Backspace' && typed !== '') {
      setTyped(typed.slice(0, -1));
      return true;
    }
    const pressed = pressKey(component, key, { typed, ticked });
    if (!pressed) return false;
    if (pressed.given === undefined) setTyped(pressed.typed);
    else give(active, pressed.given);
    return true;
  };
  const addNote = (anchor: Anchor) => {
    const id = `n-${crypto.randomUUID().slice(0, 13)}`;
    const added: MarginNote = { id, anchor, component: components.length > 1 ? active : null, text: '' };
    change({ notes: [...draft.notes, added] });
    setNote(id);
  };
  return {
    draft,
    change,
    active,
    setActive,
    typed,
    note,
    setNote,
    kept,
    give,
    step,
    press,
    addNote,
    mark: marksGiven(components, draft.given),
  };
}

export type Marking = ReturnType<typeof useMark>;
