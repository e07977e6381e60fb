import type { AidSetting, Highlights } from '../kit/notes';
import type { Entry } from './entry';

/** Everything a candidate has put down, by target. */
export interface Desk {
  readonly answers: Readonly<Record<string, unknown>>;
  readonly flags: Readonly<Record<string, boolean>>;
  /** By part and name, as `item/A/strike`. */
  readonly events: Readonly<Record<string, unknown>>;
  readonly opened: Readonly<Record<string, boolean>>;
  /** Plays used of each recording, by file. */
  readonly plays: Readonly<Record<string, number>>;
  readonly place: string | null;
  /** By question or source. */
  readonly highlights: Readonly<Record<string, Highlights>>;
  /** By place: `text`, `drawing`. */
  readonly roughWork: Readonly<Record<string, unknown>>;
  /** How each aid lies on the desk, by its name. */
  readonly aids: Readonly<Record<string, AidSetting>>;
}

export const emptyDesk: Desk = {
  answers: {},
  flags: {},
  events: {},
  opened: {},
  plays: {},
  place: null,
  highlights: {},
  roughWork: {},
  aids: {},
};

/** One change, with its whole value. */
export type Change = Pick<Entry, 'about' | 'target'> & { readonly value: unknown };

/** One change laid on the desk. */
export function applyChange(desk: Desk, { about, target, value }: Change): Desk {
  switch (about) {
    case 'answer':
      return { ...desk, answers: { ...desk.answers, [target]: value } };
    case 'flag':
      return { ...desk, flags: { ...desk.flags, [target]: value === true } };
    case 'event':
      return { ...desk, events: { ...desk.events, [target]: value } };
    case 'opened':
      return { ...desk, opened: { ...desk.opened, [target]: true } };
    case 'play':
      // Counted: what was used stays used, whatever order it comes in.
      return {
        ...desk,
        plays: { ...desk.plays, [target]: Math.max(desk.plays[target] ?? 0, Number(value)) },
      };
    case 'place':
      return { ...desk, place: target };
    case 'highlights':
      return { ...desk, highlights: { ...desk.highlights, [target]: value as Highlights } };
    case 'rough-work':
      return { ...desk, roughWork: { ...desk.roughWork, [target]: value } };
    case 'aid':
      return { ...desk, aids: { ...desk.aids, [target]: value as AidSetting } };
  }
}
