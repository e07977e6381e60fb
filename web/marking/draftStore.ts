import type { MarkDraft } from '../../core/marking/mark';
import { ApiProblem, put } from '../api/client';

/*
 * A half-made mark is kept on this device at once, and on the server a moment later: it is there after a reload, without
 * a connection, and on another device.
 */

const keyOf = (task: number) => `marking draft ${task}`;
const WAIT_MS = 700;

export const emptyDraft: MarkDraft = { given: {}, comment: '', notes: [], overrides: {} };

const isEmpty = ({ given, comment, notes, overrides }: MarkDraft) =>
  Object.keys({ ...given, ...overrides }).length === 0 && comment === '' && notes.length === 0;

/** What this device has of a script: newer than what the server knows. */
export function localDraft(task: number): MarkDraft | null {
  try {
    const text = localStorage.getItem(keyOf(task));
    // Whatever lies there: what a draft has must be there.
    return text === null ? null : { ...emptyDraft, ...(JSON.parse(text) as MarkDraft) };
  } catch {
    return null;
  }
}

export function dropDraft(task: number): void {
  waiting.delete(task);
  try {
    localStorage.removeItem(keyOf(task));
  } catch {
    // Without storage there was nothing to drop.
  }
}

const waiting = new Map<number, ReturnType<typeof setTimeout>>();

/** Keeps a draft here, and sends it when there was a moment's rest; gives whether the server has it. */
export function keepDraft(task: number, draft: MarkDraft, onKept: (kept: boolean) => void): void {
  try {
    if (isEmpty(draft)) localStorage.removeItem(keyOf(task));
    else localStorage.setItem(keyOf(task), JSON.stringify(draft));
  } catch {
    // A device without room or storage sends all the same.
  }
  clearTimeout(waiting.get(task));
  const timer = setTimeout(() => {
    put(`/marking/tasks/${task}/draft`, draft).then(
      () => {
        // What was written since is newer than what has arrived.
        if (waiting.get(task) === timer) dropDraft(task);
        onKept(true);
      },
      (problem: unknown) => onKept(problem instanceof ApiProblem && problem.status === 409),
    );
  }, WAIT_MS);
  waiting.set(task, timer);
}

/** What was written but not sent yet is not sent any more: the mark itself goes. */
export function stopKeeping(task: number): void {
  clearTimeout(waiting.get(task));
  waiting.delete(task);
}
