import { plainReading, type ReadOptions } from './Cursor';
import { readExpression } from './readExpression';
import type { Tree } from './tree';

const RELATION_SIGNS: Readonly<Record<string, string>> = {
  '!=': '≠',
  '<=': '≤',
  '>=': '≥',
  '~~': '≈',
  '!~~': '≉',
  cong: '≅',
  '!cong': '≇',
  sim: '∼',
  '!sim': '≁',
  par: '∥',
  '!par': '∦',
  perp: '⊥',
  '!perp': 'not ⊥',
  '===': '≡',
  in: '∈',
  '!in': '∉',
  prop: '∝',
};
const FIGURE_SIGNS: Readonly<Record<string, string>> = {
  angle: '∠',
  measure: 'm∠',
  triangle: '△',
  quadrilateral: '□',
  parallelogram: '▱',
  circle: '⊙',
};
const POWERS = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const LISTS = { or: ' or ', and: ' and ', comma: ', ' } as const;

/** Does it stand alone, so that nothing around it needs brackets? */
const isSimple = (tree: Tree): boolean =>
  ['number', 'letter', 'constant', 'group', 'absolute', 'call', 'infinity'].includes(tree.is);

/** Writes a tree in one line, as people would: 3/4, √(x + 1), x². */
class Writer {
  private readonly decimal: string;
  constructor(decimal: string) {
    this.decimal = decimal;
  }

  /** In brackets unless it stands alone. */
  private closed(tree: Tree): string {
    return isSimple(tree) ? this.write(tree) : `(${this.write(tree)})`;
  }

  private exponent(tree: Tree): string {
    if (tree.is === 'number' && tree.whole)
      return [...tree.text].map((digit) => POWERS[Number(digit)]).join('');
    return `^${this.closed(tree)}`;
  }

  private root(of: Tree, index: Tree | null): string {
    const sign = index ? `${index.is === 'number' ? this.exponent(index) : `(${this.write(index)})`}√` : '√';
    return sign + (isSimple(of) && of.is !== 'number' ? this.write(of) : `(${this.write(of)})`);
  }

  write = (tree: Tree): string => {
    switch (tree.is) {
      case 'number': {
        const text = tree.text.replace('.', this.decimal);
        return tree.repeating === null ? text : `${text}(${tree.repeating} repeating)`;
      }
      case 'mixed':
        return `${this.write(tree.whole)} ${this.write(tree.over)}/${this.write(tree.under)}`;
      case 'letter':
        return tree.name;
      case 'constant':
        return tree.name === 'pi' ? 'π' : 'e';
      case 'infinity':
        return '∞';
      case 'plus':
        return `+${this.write(tree.of)}`;
      case 'negative':
        return `−${this.write(tree.of)}`;
      case 'percent':
        return `${this.closed(tree.of)} %`;
      case 'degrees':
        return `${this.closed(tree.of)}°`;
      case 'factorial':
        return `${this.closed(tree.of)}!`;
      case 'group':
        return tree.invisible ? this.write(tree.of) : `(${this.write(tree.of)})`;
      case 'statement':
        return `(${this.write(tree.of)})`;
      case 'absolute':
        return `|${this.write(tree.of)}|`;
      case 'either':
        return `${tree.sign}${this.write(tree.of)}`;
      case 'sum':
        return tree.terms
          .map(({ sign, of }, i) => {
            const shown = sign === '-' ? '−' : sign;
            if (i === 0) return (sign === '+' ? '' : shown) + this.write(of);
            return ` ${shown} ${this.write(of)}`;
          })
          .join('');
      case 'product': {
        const sign = tree.how === 'cross' ? ' × ' : tree.how === 'dot' ? ' · ' : '';
        return tree.of
          .map((one) => (one.is === 'quotient' ? `(${this.write(one)})` : this.write(one)))
          .join(sign);
      }
      case 'quotient':
        return `${this.closed(tree.over)}/${this.closed(tree.under)}`;
      case 'binomial':
        return `(${this.write(tree.over)} over ${this.write(tree.under)})`;
      case 'power':
        return this.closed(tree.base) + this.exponent(tree.exponent);
      case 'root':
        return this.root(tree.of, tree.index);
      case 'function': {
        const base = tree.base ? `_${this.closed(tree.base)}` : '';
        return `${tree.name}${base}(${this.write(tree.of)})`;
      }
      case 'call':
        return `${tree.name}(${this.write(tree.of)})`;
      case 'currency':
        return `${{ $: '$', euro: '€', pounds: '£', yen: '¥' }[tree.sign] ?? tree.sign}${this.write(tree.of)}`;
      case 'relation':
        return tree.sides
          .map((side, i) => {
            const sign = tree.signs[i];
            return this.write(side) + (sign === undefined ? '' : ` ${RELATION_SIGNS[sign] ?? sign} `);
          })
          .join('');
      case 'list':
        return tree.of.map(this.write).join(LISTS[tree.how]);
      case 'set':
        return `{${tree.of.map(this.write).join(', ')}}`;
      case 'tuple':
        return `(${tree.of.map(this.write).join(', ')})`;
      case 'interval': {
        const [open, close] = [tree.fromOpen ? '(' : '[', tree.toOpen ? ')' : ']'];
        return `${open}${this.write(tree.from)}, ${this.write(tree.to)}${close}`;
      }
      case 'figure':
        return `${FIGURE_SIGNS[tree.figure] ?? `${tree.figure} `}${tree.points.join('')}`;
    }
  };
}

/** An entry in one line, for printouts and for people who listen; what cannot be read as it was entered. */
export function expressionAsText(latex: string, options: Partial<ReadOptions> = {}): string {
  const read = readExpression(latex, options);
  return 'tree' in read ? new Writer(options.decimal ?? plainReading.decimal).write(read.tree) : latex;
}
