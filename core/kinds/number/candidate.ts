import { message, type Message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { readEntry, withLabels } from './readEntry';
import type { NumberResponse, NumberShown } from './response';

function progress(shown: NumberShown, { typed }: NumberResponse): Progress {
  const entry = readEntry(shown, typed, shown.locale);
  if (entry.is === 'nothing') return { state: 'empty', missing: message('number.empty') };
  return entry.is === 'number'
    ? { state: 'done', missing: null }
    : { state: 'part', missing: entry.complaint };
}

function rule({ demand }: NumberShown): Message | null {
  if (!demand) return null;
  return demand.by === 'places'
    ? message('number.rulePlaces', { count: demand.places })
    : message('number.ruleFigures', { count: demand.figures });
}

export const number: CandidateKind<NumberShown, NumberResponse> = {
  ...plainCandidate,
  name: 'number',
  empty: () => ({ typed: '' }),
  progress,
  rule,
  describe: (shown, { typed }) => ({
    form: 'words',
    text: typed.trim() ? withLabels(shown, typed.trim()) : '',
  }),
};
