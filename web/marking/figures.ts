import { showMarks } from '../../core/marks';
import type { Estimate } from '../../core/measures/estimate';
import { t } from './words';

const MINUS = '−';
const signed = (text: string) => text.replace('-', MINUS);

/** A kappa or a correlation, to two places; “–” where it is not defined. */
export const showEstimate = ({ value }: Estimate): string =>
  value === null ? '–' : signed(value.toFixed(2));

/** A share in per cent. */
export const showShare = ({ value }: Estimate): string =>
  value === null ? '–' : `${Math.round(100 * value)} %`;

/** Marks with a sign, to a tenth: `+0.4`, `−1.3`. */
export const showDifference = (hundredths: number): string => {
  const tenths = Math.round(hundredths / 10) / 10;
  return `${tenths > 0 ? '+' : ''}${signed(tenths.toFixed(1))}`;
};

/** Marks without a sign, to a hundredth: `0.45`. */
export const showSize = (hundredths: number): string => (Math.round(hundredths) / 100).toFixed(2);

type Show = (value: number) => string;

/** The interval of a figure, within what it can be; the reason where there is no figure. */
export function showInterval(
  estimate: Estimate,
  show: Show,
  [least, most]: readonly [number, number],
): string {
  if (estimate.value === null) return t(`undefined ${estimate.reason}`);
  if (estimate.interval === null) return t('undefined too few');
  const [low, high] = estimate.interval.map((one) => Math.min(most, Math.max(least, one)));
  return t('interval', { low: show(low!), high: show(high!) });
}

export const twoPlaces: Show = (value) => signed(value.toFixed(2));
export const perCent: Show = (value) => `${Math.round(100 * value)} %`;

export { showMarks };
