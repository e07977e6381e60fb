/** The right of one tab of this browser to write: of two tabs with the same store only one may. */
export interface TabLock {
  /** Gives the lock back. */
  readonly release: () => void;
  /** Resolves when another tab has taken it. */
  readonly lost: Promise<void>;
}

/** Takes the lock of a sitting; null where another tab has it and it is not to be taken from it. */
export async function takeTabLock(sitting: string, steal: boolean): Promise<TabLock | null> {
  const locks = (navigator as { locks?: LockManager }).locks;
  if (!locks) return { release: () => undefined, lost: new Promise(() => undefined) };
  return new Promise((resolve, reject) => {
    let release: () => void = () => undefined;
    const options: LockOptions = steal ? { steal: true } : { ifAvailable: true };
    const over = locks.request(`clear-sitting ${sitting}`, options, (lock) => {
      if (!lock) return resolve(null);
      return new Promise<void>((end) => {
        release = end;
        resolve({ release: () => release(), lost });
      });
    });
    // A lock that is taken away rejects the request; one that is given back resolves it.
    const lost = new Promise<void>((taken) => void over.catch(() => taken()));
    over.catch(reject);
  });
}
