import { speak } from './words';

const ACCENTED = new Map(
  [...'aáàbƀcçdđeéfƒgğhħiíjĵkķlłmɱnñoóqɋrřsštŧuúvṽwŵxẋyýzž']
    .join('')
    .match(/[a-z][^a-z]+/g)!
    .map((pair) => [pair[0]!, pair.slice(1, 2)]),
);

const accented = (letter: string): string => {
  const lower = letter.toLowerCase();
  const found = ACCENTED.get(lower);
  if (found === undefined) return letter;
  return letter === lower ? found : found.toUpperCase();
};

/** A text with accents, 40 % longer, in brackets; what stands in `{{…}}` is left alone. */
export function pseudo(text: string): string {
  const said = text.replace(/\{\{[^{}]*\}\}|[a-z]/gi, (part) => (part.length === 1 ? accented(part) : part));
  return `⟦${said}${'·'.repeat(Math.ceil(text.length * 0.4))}⟧`;
}

/** The language in which a text that nobody translated, or a place too narrow for a longer one, is seen at once. */
export const speakPseudo = (): void => speak('en-XA', pseudo);
