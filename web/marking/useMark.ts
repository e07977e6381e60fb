import { useMemo, useState } from 'react';
import type { MarkingScript } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import type { Anchor, MarginNote } from '../../core/marking/marginNote';
import { fittingMarks, marksGiven } from '../../core/marking/marksGiven';
import { emptyDraft, keepDraft, localDraft } from './draftStore';
import { pressKey } from './markKeys';

/** A mark while it is made. */
interface Making {
  readonly task: number;
  readonly draft: MarkDraft;
  /** The component that keys go to. */
  readonly active: string;
  /** What was typed for it and is no mark yet. */
  readonly typed: string;
  /** The margin note that is open. */
  readonly note: string | null;
  /** Whether the server has the newest draft; null: nothing was changed yet. */
  readonly kept: boolean | null;
}

function begin({ components, task, draft: known }: MarkingScript): Making {
  const kept = localDraft(task) ?? known ?? emptyDraft;
  const draft = { ...kept, given: fittingMarks(components, kept.given) };
  const active = (components.find((c) => draft.given[c.key] === undefined) ?? components[0])!.key;
  return { task, draft, active, typed: '', note: null, kept: null };
}

/**
 * The mark of the script that is shown: every change is kept, here and on the server. It starts again with each script, so
 * that the rubric may stay on the page from one to the next: drawing it again took most of the time between two.
 */
export function useMark(script: MarkingScript) {
  const { components, task } = script;
  const [changed, setChanged] = useState<Making | null>(null);
  const begun = useMemo(() => begin(script), [script]);
  const { draft, active, typed, note, kept } = changed?.task === task ? changed : begun;
  const set = (part: Partial<Making>) =>
    setChanged((before) => ({ ...(before?.task === task ? before : begun), ...part }));
  const setActive = (component: string) => set({ active: component });
  const setTyped = (text: string) => set({ typed: text });
  const setNote = (id: string | null) => set({ note: id });
  const change = (part: Partial<MarkDraft>) => {
    const next = { ...draft, ...part };
    set({ draft: next });
    // The reply may come when another script is shown.
    keepDraft(task, next, (isKept) =>
      setChanged((before) => (before?.task === task ? { ...before, kept: isKept } : before)),
    );
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
