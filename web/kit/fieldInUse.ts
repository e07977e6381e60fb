import type { Place } from './place';

const FIELDS =
  'input:not([type=radio]):not([type=checkbox]), textarea, select, [contenteditable=true], math-field';

/** A field of the question: of panels and of the kit it is none. */
export const isField = (element: Element | null): element is HTMLElement =>
  element instanceof HTMLElement && element.closest('[data-desk]') !== null && element.matches(FIELDS);

/** A tall field is worked in at its caret. */
const TALL_PX = 120;

/** Where the field that is worked in lies; in a tall one, the line of the caret. Null where none is. */
export function fieldInUse(): Place | null {
  const field = document.activeElement;
  if (!isField(field)) return null;
  const { x, y, width, height } = field.getBoundingClientRect();
  if (height <= TALL_PX) return { x, y, width, height };
  const selection = window.getSelection();
  const caret =
    selection && selection.rangeCount > 0 ? selection.getRangeAt(0).getBoundingClientRect() : null;
  const top = caret && caret.height > 0 ? caret.y : y;
  return { x, y: top - 8, width, height: 48 };
}

let last: HTMLElement | null = null;

/** Remembers the field that was worked in last, for what can be put into the answer. */
export function watchFields(): () => void {
  const look = () => {
    if (isField(document.activeElement)) last = document.activeElement;
  };
  document.addEventListener('focusin', look);
  return () => document.removeEventListener('focusin', look);
}

const shows = (element: HTMLElement): boolean =>
  element.isConnected &&
  element.closest('[inert]') === null &&
  element.checkVisibility({ visibilityProperty: true, contentVisibilityAuto: true });

/** The field of the question in view that was worked in last, or its only one. */
export function fieldToFill(): HTMLElement | null {
  if (last && shows(last)) return last;
  const all = [...document.querySelectorAll<HTMLElement>(FIELDS)].filter((one) => isField(one) && shows(one));
  return all.length === 1 ? all[0]! : null;
}

/** Types a text into a field, as if by keys; what it held is replaced where the field holds one figure. */
export function typeInto(field: HTMLElement, text: string): void {
  field.focus();
  if (field instanceof HTMLInputElement) field.select();
  // The one way that every editor and every bound field takes up as typing, undo included.
  document.execCommand('insertText', false, text);
}
