import type { DeskBackend } from '../desk/backend';

/** Nothing stands behind a rehearsal: nothing is sent and nothing is kept. */
export const rehearsalBackend: DeskBackend = {
  begin: (events) => {
    events.onSaved({ state: 'not saved' });
    return () => undefined;
  },
  note: () => undefined,
  settle: () => undefined,
  handIn: () =>
    Promise.resolve({
      done: {
        code: '',
        handedInAt: 0,
        claimedAt: null,
        earlier: [],
        usedMs: 0,
        closedBy: 'candidate',
        answered: 0,
        parts: 0,
      },
    }),
  directions: null,
  help: null,
};
