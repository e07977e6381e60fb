/* What an editor can undo, kept over a reload of the page in this tab alone, and removed with the paper. */
const PREFIX = 'clear-sitting editor ';
const MOST = 400_000;

export function keepEditorState(key: string, state: unknown): void {
  const text = JSON.stringify(state);
  try {
    if (text.length <= MOST) sessionStorage.setItem(PREFIX + key, text);
    else sessionStorage.removeItem(PREFIX + key);
  } catch {
    // No room: undo begins again after a reload.
  }
}

export function keptEditorState(key: string): unknown {
  try {
    return JSON.parse(sessionStorage.getItem(PREFIX + key) ?? 'null');
  } catch {
    return null;
  }
}

export function forgetEditorStates(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
}
