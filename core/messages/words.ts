import i18next from 'i18next';
import type { Message, Say } from './message';
import { aid, navigation } from './aids.en';
import { messages as author } from './author.en';
import { error } from './errors.en';
import { figure } from './figures.en';
import { component, progress, sheet, stored, verdict } from './results.en';

type Catalogue = Readonly<Record<string, string>>;

/**
 * The words of the whole application, by area. Codes are `area.key`. What candidates never read is added by the modules
 * that say it, so that it is not on their devices.
 */
const areas = new Map<string, Record<string, string>>();
const language = i18next.createInstance();
void language.init({
  lng: 'en',
  resources: {},
  interpolation: { escapeValue: false },
  initAsync: false,
  keySeparator: false,
  nsSeparator: false,
});

/** How a text is said in the language that is spoken; English as it is written. */
let translate = (text: string): string => text;

function add(area: string, catalogue: Catalogue): void {
  const known = areas.get(area) ?? {};
  for (const [key, text] of Object.entries(catalogue))
    if (known[key] !== undefined && known[key] !== text) throw new Error(`two texts for ${area}.${key}`);
  areas.set(area, { ...known, ...catalogue });
  const said = Object.entries(catalogue).map(([key, text]) => [key, translate(text)]);
  language.addResourceBundle(language.language, area, Object.fromEntries(said), true, true);
}

/** Says everything in another language, made from the English texts. To be called before anything is said. */
export function speak(code: string, by: (text: string) => string): void {
  translate = by;
  void language.changeLanguage(code);
  const known = [...areas];
  areas.clear();
  for (const [area, catalogue] of known) add(area, catalogue);
}

const own = { aid, author, component, error, figure, navigation, progress, sheet, stored, verdict };
for (const [area, catalogue] of Object.entries<Catalogue>(own)) add(area, catalogue);

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
  add(area, catalogue);
  // Texts without values never change: looked up once, since a screen asks for them each time it is drawn.
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
