import i18next from 'i18next';
import { kindMessages } from '../kinds/messages.en';
import type { Message, Say } from './message';
import { messages as author } from './author.en';
import { document } from './documents.en';
import { component, progress, sheet, stored, verdict } from './results.en';

/** The words of the whole application, by area. Codes are `area.key`. */
const language = i18next.createInstance();
void language.init({
  ...{
    lng: 'en',
    resources: { en: { ...kindMessages, author, component, document, progress, sheet, stored, verdict } },
  },
  ...{ interpolation: { escapeValue: false }, initAsync: false, keySeparator: false, nsSeparator: false },
});

type Base<Key> = Key extends `${infer Stem}_one` | `${infer Stem}_other` ? Stem : Key;

/** Puts a message into words. A code that no catalogue knows is given as it is. */
export const say: Say = ({ code, values }: Message) => {
  const dot = code.indexOf('.');
  return language.t(code.slice(dot + 1), { ...values, ns: code.slice(0, dot) });
};

/**
 * The words of one area: `words('desk', { … })` gives the function that looks them up. Plurals are written as `key_one`
 * and `key_other` and asked for as `key` with a `count`.
 */
export function words<Words extends Record<string, string>>(area: string, catalogue: Words) {
  for (const [key, text] of Object.entries(catalogue)) {
    const before = language.getResource('en', area, key) as string | undefined;
    if (before !== undefined && before !== text) throw new Error(`two texts for ${area}.${key}`);
  }
  language.addResourceBundle('en', area, catalogue, true);
  // Words without values never change: looked up once, since a screen asks for them at every drawing.
  const plain = new Map<string, string>();
  return (key: Base<keyof Words & string>, values?: Record<string, string | number>): string => {
    if (values) return language.t(key, { ...values, ns: area });
    const known = plain.get(key);
    if (known !== undefined) return known;
    const text = language.t(key, { ns: area });
    plain.set(key, text);
    return text;
  };
}
