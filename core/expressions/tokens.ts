import { refuse } from './refusal';

/** Signs as people paste them, in the notation that is read. */
const SIGNS: Readonly<Record<string, string>> = {
  '×': '\\times ',
  '⋅': '\\cdot ',
  '·': '\\cdot ',
  '∙': '\\cdot ',
  '÷': '\\div ',
  '−': '-',
  '–': '-',
  '≤': '\\le ',
  '≥': '\\ge ',
  '≠': '\\ne ',
  '≈': '\\approx ',
  '±': '\\pm ',
  '∓': '\\mp ',
  '°': '\\degree ',
  π: '\\pi ',
  '≅': '\\cong ',
  '∼': '\\sim ',
  '∥': '\\parallel ',
  '⊥': '\\perp ',
  '∠': '\\angle ',
  '△': '\\triangle ',
  '€': '\\euro ',
  '£': '\\pounds ',
  '∞': '\\infty ',
  '∨': '\\lor ',
  '∧': '\\land ',
  '\u00a0': '\\,',
  '\u202f': '\\,',
  '\u2009': '\\,',
  '½': '\\frac12 ',
  '¼': '\\frac14 ',
  '¾': '\\frac34 ',
  '⅓': '\\frac13 ',
  '⅔': '\\frac23 ',
  '²': '^{2}',
  '³': '^{3}',
};

const SPACES = new Set(
  ['\\,', '\\:', '\\;', '\\ ', '\\>', '\\quad', '\\qquad', '\\enspace', '\\thinspace', '\\medspace'].concat([
    '\\thickspace',
    '\\space',
  ]),
);
/** What changes the look alone. */
const WITHOUT_MEANING = new Set(
  ['\\!', '\\displaystyle', '\\textstyle', '\\limits', '\\nolimits', '\\big', '\\Big', '\\bigl'].concat([
    '\\bigr',
    '\\negthinspace',
    '\\middle',
  ]),
);
const WORDS = new Set(['\\text', '\\textrm', '\\mathrm', '\\operatorname', '\\mbox', '\\mathit', '\\textit']);

/** The functions that are read, each under one name. */
export const FUNCTIONS: Readonly<Record<string, string>> = {
  sin: 'sin',
  cos: 'cos',
  tan: 'tan',
  cot: 'cot',
  sec: 'sec',
  csc: 'csc',
  cosec: 'csc',
  arcsin: 'asin',
  arccos: 'acos',
  arctan: 'atan',
  asin: 'asin',
  acos: 'acos',
  atan: 'atan',
  sinh: 'sinh',
  cosh: 'cosh',
  tanh: 'tanh',
  ln: 'ln',
  log: 'log',
  lg: 'lg',
  lb: 'lb',
  exp: 'exp',
};

export const SPACE = ' ';

/** A word set as text: “or” and “and”, Euler's number, a function; anything else is no mathematics. */
function wordToken(command: string, word: string): string | null {
  if (/^(or|oder|ou|o)$/i.test(word)) return '\\lor';
  if (/^(and|und|et|y)$/i.test(word)) return '\\land';
  if (word === 'e' && command === '\\mathrm') return '\\exponentialE';
  if (Object.hasOwn(FUNCTIONS, word)) return `\\${word}`;
  return word === '' ? null : refuse('text', word);
}

/** LaTeX as its tokens: commands, single signs, and one token for any space. */
export function tokensOf(latex: string): string[] {
  const source = [...latex].map((sign) => SIGNS[sign] ?? sign).join('');
  const tokens: string[] = [];
  let at = 0;
  while (at < source.length) {
    const sign = source[at]!;
    if (/\s/.test(sign)) at++;
    else if (sign === '\\') {
      const command = /^\\[a-zA-Z]+/.exec(source.slice(at))?.[0] ?? source.slice(at, at + 2);
      at += command.length;
      if (command === '\\') refuse('unexpected', command);
      if (WORDS.has(command)) {
        const found = /^\s*\*?\{([^}]*)\}/.exec(source.slice(at));
        if (!found) return refuse('text');
        at += found[0].length;
        const token = wordToken(command, found[1]!.trim());
        if (token) tokens.push(token);
      } else if (!WITHOUT_MEANING.has(command)) tokens.push(SPACES.has(command) ? SPACE : command);
    } else if (sign === '~') {
      tokens.push(SPACE);
      at++;
    }
    // Not escaped it begins a comment.
    else if (sign === '%') refuse('comment');
    else if (/[A-Za-z0-9+\-*/^_{}()[\]|<>=,;.:!'&$]/.test(sign)) {
      tokens.push(sign);
      at++;
    } else refuse('unknown-character', sign);
  }
  return tokens;
}
