import { useMemo, useState } from 'react';
import type { MarkingScript } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import type { Anchor, MarginNote } from '../../core/marking/marginNote';
import { fittingMarks, marksGiven, type MarksGiven } from '../../core/marking/marksGiven';
import { emptyDraft, keepDraft, localDraft } from './draftStore';
import { HALF_KEY, halfUp, marksPossible, pressKey } from './markKeys';

/** A mark while it is made. */
interface Making {
  /** Which making of which script this is: one that was taken back begins anew. */
  readonly of: string;
  readonly draft: MarkDraft;
  /** The component that keys go to. */
  readonly active: string;
  /** What was typed for it and is no mark yet. */
  readonly typed: string;
  /** The criterion that was given a mark last: *half up* is about it. */
  readonly last: string | null;
  /** After taking back: the criteria whose marks still stand as they were, and nobody has looked at again. */
  readonly toConfirm: readonly string[];
  /** Why the last key gave nothing; null where it did. */
  readonly refused: string | null;
  /** The margin note that is open. */
  readonly note: string | null;
  /** Whether the server has the newest draft; null: nothing was changed yet. */
  readonly kept: boolean | null;
}

const makingOf = ({ task, seen, takenBack }: MarkingScript): string => `${task} ${seen} ${takenBack}`;

function begin(script: MarkingScript): Making {
  const { components, task, draft: known, takenBack } = script;
  const kept = localDraft(task) ?? known ?? emptyDraft;
  const draft = { ...kept, given: fittingMarks(components, kept.given) };
  const open = components.find((c) => draft.given[c.key] === undefined);
  // Taken back, it is gone through from its first criterion on.
  const active = (takenBack ? components[0] : (open ?? components[0]))!.key;
  const toConfirm = takenBack
    ? components.flatMap(({ key }) => (draft.given[key] === undefined ? [] : [key]))
    : [];
  return {
    of: makingOf(script),
    draft,
    active,
    typed: '',
    last: null,
    toConfirm,
    refused: null,
    note: null,
    kept: null,
  };
}

/**
 * The mark of the script that is shown: every change is kept, here and on the server. It starts again with each script, so
 * that the rubric may stay on the page from one to the next: drawing it again took most of the time between two.
 */
export function useMark(script: MarkingScript) {
  const { components, task } = script;
  const [changed, setChanged] = useState<Making | null>(null);
  const of = makingOf(script);
  // A script that is fetched once more while it is being marked is the same making.
  // oxlint-disable-next-line react-hooks/exhaustive-deps
  const begun = useMemo(() => begin(script), [of]);
  const making = changed?.of === of ? changed : begun;
  const { draft, active, typed, last, toConfirm, refused, note, kept } = making;
  const set = (part: Partial<Making>) =>
    setChanged((before) => ({ ...(before?.of === of ? before : begun), ...part }));
  const setActive = (component: string) => set({ active: component, refused: null });
  const setTyped = (text: string) => set({ typed: text, refused: null });
  const setNote = (id: string | null) => set({ note: id });
  const change = (part: Partial<MarkDraft>) => {
    const next = { ...draft, ...part };
    set({ draft: next });
    // The reply may come when another script is shown.
    keepDraft(task, next, (isKept) =>
      setChanged((before) => (before?.of === of ? { ...before, kept: isKept } : before)),
    );
  };
  /** The criterion after one, in their order; from the last on the first that is still to be decided. */
  const after = (component: string, given: MarksGiven, waiting: readonly string[]): string => {
    const at = components.findIndex(({ key }) => key === component);
    const isOpen = ({ key }: { readonly key: string }) => given[key] === undefined || waiting.includes(key);
    return (components[at + 1] ?? components.find(isOpen) ?? components[at]!).key;
  };
  const give = (component: string, value: number | readonly number[] | undefined) => {
    const { [component]: _, ...others } = draft.given;
    const next = value === undefined ? others : { ...others, [component]: value };
    change({ given: next });
    // Points are ticked one after the other; anything else is decided at once.
    const stays = value === undefined || Array.isArray(value);
    const waiting = toConfirm.filter((one) => one !== component);
    set({
      typed: '',
      refused: null,
      last: component,
      toConfirm: waiting,
      active: stays ? component : after(component, next, waiting),
    });
  };
  /** The mark of the criterion stands as it was before the script was taken back. */
  const confirm = () => {
    const waiting = toConfirm.filter((one) => one !== active);
    set({ toConfirm: waiting, typed: '', refused: null, active: after(active, draft.given, waiting) });
  };
  const confirmAll = () => set({ toConfirm: [], typed: '', refused: null });
  const step = (by: 1 | -1) => {
    const at = components.findIndex((c) => c.key === active);
    setActive(components[Math.min(components.length - 1, Math.max(0, at + by))]!.key);
    setTyped('');
  };
  /** The level that was given last goes half way up, where nothing else is being typed. */
  const pressHalf = (): boolean => {
    const key = last ?? active;
    const component = components.find((c) => c.key === key);
    const before = draft.given[key];
    if (!component || typed !== '' || typeof before !== 'number' || !component.criterion?.levels)
      return false;
    const half = halfUp(component, before);
    if (half === null) return false;
    change({ given: { ...draft.given, [key]: half } });
    set({ refused: null });
    return true;
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
    if (key === HALF_KEY && pressHalf()) return true;
    const pressed = pressKey(component, key, { typed, ticked });
    if (pressed) {
      if (pressed.given === undefined) setTyped(pressed.typed);
      else give(active, pressed.given);
      return true;
    }
    // A figure is always meant as a mark: it is said what is possible.
    const isMark = /^[\d.,]$/.test(key) || (key === 'Enter' && typed !== '');
    if (isMark) set({ typed: '', refused: marksPossible(component, key === 'Enter' ? typed : typed + key) });
    return isMark;
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
    refused,
    toConfirm,
    confirm,
    confirmAll,
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
