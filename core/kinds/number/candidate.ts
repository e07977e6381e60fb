import { message, type Message } from '../../messages/message';
import type { NumberRead } from '../../numbers/readNumber';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { readTyped, withLabels } from './readTyped';
import { responseSchema, type Demand, type NumberResponse, type NumberShown } from './response';

function demandBroken(demand: Demand, { places, figures }: NumberRead): Message | null {
  if (demand.by === 'places') {
    if (places === demand.places) return null;
    return message('number.placesAsked', { count: demand.places, has: places ?? 0 });
  }
  if (figures !== null && figures.least <= demand.figures && demand.figures <= figures.most) return null;
  return message('number.figuresAsked', { count: demand.figures, has: figures?.most ?? 0 });
}

function complaint(shown: NumberShown, typed: string): Message | null {
  const reading = readTyped(shown, typed, shown.locale);
  if ('problem' in reading) return message(`figure.${reading.problem}`);
  if (reading.read.value.over < 0n && !shown.minusPossible) return message('figure.noMinus');
  return shown.demand && demandBroken(shown.demand, reading.read);
}

function progress(shown: NumberShown, { typed }: NumberResponse): Progress {
  if (typed.trim() === '') return { state: 'empty', missing: message('number.empty') };
  const missing = complaint(shown, typed);
  return { state: missing ? 'part' : 'done', missing };
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
  response: responseSchema,
  empty: () => ({ typed: '' }),
  progress,
  rule,
  describe: (shown, { typed }) => ({
    form: 'words',
    text: typed.trim() ? withLabels(shown, typed.trim()) : '',
  }),
};
