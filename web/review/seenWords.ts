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
  'missing-entries': 'announced answers never came',
  'out of turn': 'an answer out of its turn',
  'time given back': 'time was given back',
});

/** What was observed, in words. */
export const seenWords = (kind: ObservationKind): string => t(kind);
