import type { ObservationKind } from '../../core/observations/observation';
import { words } from '../words';

const t = words('seen', {
  silence: 'no contact around the end or a pause',
  'connection gap': 'no connection',
  'second hold': 'the desk was opened elsewhere',
  reload: 'the page was loaded again',
  'device changed': 'another kind of browser',
  'restored writing': 'an earlier version was brought back',
  check: 'a readiness check was not good',
  mismatch: 'entries contradict each other',
  'missing-entries': 'announced answers never arrived',
  'out of turn': 'an answer to a question that was not open',
  'time given back': 'time was given back',
});

/** What was observed, in words. */
export const seenWords = (kind: ObservationKind): string => t(kind);
