import { readNumber, type NumberReading } from '../../numbers/readNumber';
import type { NumberForm } from './response';

const PER_CENT = ['%', 'per cent', 'percent'];

/** What was typed, read by the locale and by what stands beside the box. */
export function readTyped(
  { before, unit, unitSynonyms, scientific, fractions }: NumberForm,
  typed: string,
  locale: string,
): NumberReading {
  const perCent = PER_CENT.includes(unit.trim()) ? PER_CENT : [];
  const units = [before, unit, ...unitSynonyms, ...perCent].filter((one) => one.trim() !== '');
  return readNumber(typed, { locale, scientific, fractions, units });
}

export const withLabels = ({ before, unit }: Pick<NumberForm, 'before' | 'unit'>, text: string): string =>
  [before, text, unit].filter(Boolean).join(' ');
