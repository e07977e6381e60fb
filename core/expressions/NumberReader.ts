import { Cursor, isDigit } from './Cursor';
import { missing, refuse } from './refusal';
import { SPACE } from './tokens';
import type { NumberTree } from './tree';

const LONGEST = 60;

interface Separator {
  readonly sign: string;
  readonly tokens: number;
  readonly braced: boolean;
}

/** Reads figures: groups of three digits, decimals by the locale, digits that repeat. */
export abstract class NumberReader extends Cursor {
  private separatorAt(at: number): Separator | null {
    const [first, second, third] = this.tokens.slice(at, at + 3);
    if (first === '{' && /^[.,']$/.test(second ?? '') && third === '}')
      return { sign: second!, tokens: 3, braced: true };
    if (/^[.,']$/.test(first ?? '') || first === SPACE) return { sign: first!, tokens: 1, braced: false };
    return null;
  }

  private digitsAt(at: number): string {
    let found = '';
    while (isDigit(this.tokens[at + found.length])) found += this.tokens[at + found.length]!;
    return found;
  }

  /** After the decimals: another separator with a digit behind it is one too many, unless it parts a list. */
  private checkAfterDecimals(): void {
    const { decimal } = this.options;
    const next = this.separatorAt(this.at);
    if (!next || !isDigit(this.tokens[this.at + next.tokens])) return;
    if (next.sign === ',' && decimal === '.') return;
    refuse('grouping');
  }

  protected number(): NumberTree {
    const { decimal, list } = this.options;
    let whole = this.digitsAt(this.at);
    let decimals: string | null = null;
    let grouped: string | null = null;
    this.at += whole.length;
    for (;;) {
      const separator = this.separatorAt(this.at);
      if (!separator) break;
      const { sign, tokens, braced } = separator;
      const group = this.digitsAt(this.at + tokens);
      const digitFollows = group !== '';
      if (sign === SPACE) {
        if (!digitFollows) break;
        const fits = group.length === 3 && whole !== '' && (whole.length <= 3 || grouped !== null);
        if (!fits || (grouped !== null && grouped !== SPACE)) refuse('grouping');
      } else if (sign === "'") refuse(digitFollows ? 'grouping' : 'prime');
      else if (sign === decimal) {
        if (!digitFollows && this.tokens[this.at + tokens] === '\\overline') decimals = '';
        // A comma that nothing follows parts a list, or ends one.
        else if (!digitFollows && decimal === ',' && !braced && isDigit(this.tokens[this.at - 1])) break;
        else if (!digitFollows) missing('decimals');
        else decimals = group;
        this.at += tokens + group.length;
        if (decimals !== '') this.checkAfterDecimals();
        break;
      } else if (sign === ',' && decimal === '.') {
        if (list && !braced) break;
        if (!digitFollows && !braced) break;
        const fits = whole.length <= 3 && whole !== '' && !whole.startsWith('0');
        if (group.length !== 3 || !(fits || grouped === ',')) {
          if (braced || grouped !== null) refuse('grouping');
          break;
        }
      } else if (sign === '.' && decimal === ',') refuse('grouping');
      else break;
      grouped = sign;
      whole += group;
      this.at += tokens + group.length;
    }
    if (whole === '' && decimals === null) missing('number');
    const repeating = decimals === null ? null : this.repeating();
    if ((whole + (decimals ?? '')).length > LONGEST) refuse('number-too-long');
    const text = (whole || '0') + (decimals === null ? '' : `.${decimals}`);
    return { is: 'number', text, whole: decimals === null, repeating };
  }

  /** Digits under a bar after the decimals. */
  private repeating(): string | null {
    if (this.token !== '\\overline' || this.peek() !== '{') return null;
    const digits = this.digitsAt(this.at + 2);
    if (digits === '' || this.tokens[this.at + 2 + digits.length] !== '}') refuse('unexpected', '\\overline');
    this.at += digits.length + 3;
    return digits;
  }
}
