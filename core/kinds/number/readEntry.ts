import { message, type Message } from '../../messages/message';
import { showExact } from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import { readNumber, type NumberRead } from '../../numbers/readNumber';
import type { Demand, NumberForm } from './response';

const PER_CENT = ['%', 'per cent', 'percent'];

/**
 * What an entry is, for the page that is told of it and for scoring alike: nothing; not readable as a number; a number in
 * a form that is not asked for here; or a number. The complaint says what to change.
 */
export type Entry =
  | { readonly is: 'nothing' }
  | { readonly is: 'unreadable'; readonly complaint: Message }
  | { readonly is: 'other-form'; readonly complaint: Message; readonly read: NumberRead }
  | { readonly is: 'number'; readonly read: NumberRead };

/** Why a number has not the places or significant figures that are asked for; null where it has. */
function demandBroken(demand: Demand, { places, figures }: NumberRead): Message | null {
  if (demand.by === 'places') {
    if (places === demand.places) return null;
    return message('number.placesAsked', { count: demand.places, has: places ?? 0 });
  }
  // Noughts at the end of a whole number may only hold the place: 1200 is 1234 to two figures.
  if (figures !== null && figures.least <= demand.figures && demand.figures <= figures.most) return null;
  return message('number.figuresAsked', { count: demand.figures, has: figures?.most ?? 0 });
}

/**
 * How a number was read, as the locale writes it with its groups apart (“1 234.5”); null where it was typed so, or with
 * no groups.
 */
export function readAs({ value, places }: NumberRead, typed: string, locale: string): string | null {
  const { decimal } = numberFormatOf(locale);
  const plain = showExact(value, decimal, places ?? undefined);
  const sign = plain.startsWith('−') ? '−' : '';
  const [whole = '', rest] = plain.slice(sign.length).split(decimal);
  const first = whole.length % 3;
  const groups = Array.from({ length: Math.floor(whole.length / 3) }, (_, i) =>
    whole.slice(first + 3 * i, first + 3 * i + 3),
  );
  const grouped = [...(first > 0 ? [whole.slice(0, first)] : []), ...groups].join('\u202F');
  const shown = `${sign}${grouped}${rest === undefined ? '' : `${decimal}${rest}`}`;
  const bare = (text: string) => text.replace(/\s/g, '').replace('-', '−');
  return bare(typed) === bare(plain) ? null : shown;
}

/** Reads what was typed by the locale and by what stands beside the box. */
export function readEntry(form: NumberForm, typed: string, locale: string): Entry {
  const { before, unit, unitSynonyms, scientific, fractions, minusPossible, demand } = form;
  const perCent = PER_CENT.includes(unit.trim()) ? PER_CENT : [];
  const units = [before, unit, ...unitSynonyms, ...perCent].filter((one) => one.trim() !== '');
  const reading = readNumber(typed, { locale, scientific, fractions, units });
  if ('problem' in reading)
    return reading.problem === 'empty'
      ? { is: 'nothing' }
      : { is: 'unreadable', complaint: message(`figure.${reading.problem}`) };
  const { read } = reading;
  const complaint =
    read.value.over < 0n && !minusPossible ? message('figure.noMinus') : demand && demandBroken(demand, read);
  return complaint ? { is: 'other-form', complaint, read } : { is: 'number', read };
}

export const withLabels = ({ before, unit }: Pick<NumberForm, 'before' | 'unit'>, text: string): string =>
  [before, text, unit].filter(Boolean).join(' ');
