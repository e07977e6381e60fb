/** How figures are written in a locale. */
export interface NumberFormat {
  readonly decimal: '.' | ',';
  /** The sign between groups of digits; a space stands for every kind of space. */
  readonly group: '.' | ',' | ' ' | "'";
  /** Indian grouping: three digits at the end, two in each group before. */
  readonly indian: boolean;
}

const known = new Map<string, NumberFormat>();

/** The format of a locale (a BCP 47 tag), by the Unicode data that comes with the machine. */
export function numberFormatOf(locale: string): NumberFormat {
  const cached = known.get(locale);
  if (cached) return cached;
  const parts = new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(-12_345_678.5);
  const decimal = parts.find((p) => p.type === 'decimal')?.value === ',' ? ',' : '.';
  const sign = parts.find((p) => p.type === 'group')?.value ?? '';
  const group = sign === '.' || sign === ',' ? sign : /['’]/.test(sign) ? "'" : ' ';
  const whole = parts.filter((p) => p.type === 'integer').map((p) => p.value.length);
  const format = { decimal, group, indian: whole.at(-2) === 2 } as const;
  known.set(locale, format);
  return format;
}
