/** The right of one tab of this browser to write: of two tabs with the same store only one may. */
export interface TabLock {
  /** Gives the lock back. */
  readonly release: () => void;
  /** Resolves when another tab has taken it. */
  readonly lost: Promise<void>;
}

/** A page that is loaded again may come before the lock of the one before it is given back. */
const PATIENCE_MS = 2500;

/** Takes the lock of a sitting; null where another tab has it and it is not to be taken from it. */
export async function takeTabLock(sitting: string, steal: boolean): Promise<TabLock | null> {
  const locks = (navigator as { locks?: LockManager }).locks;
  if (!locks) return { release: () => undefined, lost: new Promise(() => undefined) };
  return new Promise((resolve, reject) => {
    let release: () => void = () => undefined;
    let taken = false;
    const options: LockOptions = steal ? { steal: true } : { signal: AbortSignal.timeout(PATIENCE_MS) };
    const over = locks.request(`clear-sitting ${sitting}`, options, () => {
      taken = true;
      return new Promise<void>((end) => {
        release = end;
        resolve({ release: () => release(), lost });
      });
    });
    // A lock that is taken away rejects the request; one that is given back resolves it.
    const lost = new Promise<void>((gone) => void over.catch(() => taken && gone()));
    over.catch((error: unknown) => {
      if (taken) return;
      if (error instanceof DOMException && error.name === 'TimeoutError') resolve(null);
      else reject(error instanceof Error ? error : new Error(String(error)));
    });
  });
}
