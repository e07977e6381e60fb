import i18next from 'i18next';

void i18next.init({ lng: 'en', resources: {}, interpolation: { escapeValue: false }, initAsync: false });

type Base<Key> = Key extends `${infer Stem}_one` | `${infer Stem}_other` ? Stem : Key;

/**
 * The words of one area of the application: `words('desk', { … })` gives the function that looks them up. Plurals are
 * written as `key_one` and `key_other` and asked for as `key` with a `count`.
 */
export function words<Words extends Record<string, string>>(area: string, catalogue: Words) {
  i18next.addResourceBundle('en', area, catalogue);
  // Words without values never change: looked up once, since a screen asks for them at every drawing.
  const plain = new Map<string, string>();
  return (key: Base<keyof Words & string>, values?: Record<string, string | number>): string => {
    if (values) return i18next.t(key, { ...values, ns: area });
    const known = plain.get(key);
    if (known !== undefined) return known;
    const text = i18next.t(key, { ns: area });
    plain.set(key, text);
    return text;
  };
}
