import i18next from 'i18next';

void i18next.init({ lng: 'en', resources: {}, interpolation: { escapeValue: false }, initAsync: false });

type Base<Key> = Key extends `${infer Stem}_one` | `${infer Stem}_other` ? Stem : Key;

/**
 * The words of one area of the application: `words('desk', { … })` gives the function that looks them up. Plurals are
 * written as `key_one` and `key_other` and asked for as `key` with a `count`.
 */
export function words<Words extends Record<string, string>>(area: string, catalogue: Words) {
  i18next.addResourceBundle('en', area, catalogue);
  return (key: Base<keyof Words & string>, values: Record<string, string | number> = {}): string =>
    i18next.t(key, { ...values, ns: area });
}
