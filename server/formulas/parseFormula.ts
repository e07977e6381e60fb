import { create, parseDependencies, type MathNode } from 'mathjs/number';
import type { Parsed } from '../../core/documents/withParsed';
import type { Comparison, Condition, Formula, Operation } from '../../core/formulas/formula';
import { message, type Message } from '../../core/messages/message';

const { parse } = create({ ...parseDependencies }) as { parse: (text: string) => MathNode };

const LONGEST = 500;

const OPERATIONS: Readonly<Record<string, Operation>> = {
  add: 'plus',
  subtract: 'minus',
  multiply: 'times',
  divide: 'over',
};

const COMPARISONS: Readonly<Record<string, Comparison>> = {
  equal: 'same',
  unequal: 'other',
  smaller: 'below',
  larger: 'above',
  smallerEq: 'upTo',
  largerEq: 'from',
};

const LISTS = { sum: 'sum', min: 'least', max: 'most' } as const;

/** What the parser of the library gives, as far as it is looked at. */
interface Node {
  readonly type: string;
  readonly name?: string;
  readonly value?: unknown;
  readonly fn?: string | { readonly name?: string };
  readonly args?: readonly Node[];
  readonly implicit?: boolean;
  readonly content?: Node;
  readonly object?: Node;
  readonly index?: { readonly dimensions: readonly Node[] };
  readonly condition?: Node;
  readonly trueExpr?: Node;
  readonly falseExpr?: Node;
}

/** The name of an operator or a function, as the library calls it. */
const calledOf = ({ fn }: Node): string => (typeof fn === 'string' ? fn : (fn?.name ?? ''));

class Refused extends Error {
  readonly why: Message;
  constructor(code: string, values?: Message['values']) {
    super(code);
    this.why = message(`formula.${code}`, values);
  }
}

function refuse(code: string, values?: Message['values']): never {
  throw new Refused(code, values);
}

function condition(node: Node): Condition {
  const inner = node.type === 'ParenthesisNode' ? node.content! : node;
  const is = inner.type === 'OperatorNode' ? COMPARISONS[calledOf(inner)] : undefined;
  if (!is) return refuse('noCondition');
  return { is, left: formula(inner.args![0]!), right: formula(inner.args![1]!) };
}

function fromOperator(node: Node): Formula {
  const { args = [], implicit } = node;
  const fn = calledOf(node);
  if (fn === 'unaryMinus') return { is: 'negative', of: formula(args[0]!) };
  if (fn === 'unaryPlus') return formula(args[0]!);
  // `2x` is a slip more often than a product.
  const is = implicit ? undefined : OPERATIONS[fn];
  if (!is) return refuse('operator', { operator: implicit ? 'ab' : fn });
  return { is, left: formula(args[0]!), right: formula(args[1]!) };
}

function fromFunction(node: Node): Formula {
  const { args = [] } = node;
  const name = calledOf(node);
  if (name === 'abs' && args.length === 1) return { is: 'absolute', of: formula(args[0]!) };
  if (Object.hasOwn(LISTS, name) && args.length > 0)
    return { is: LISTS[name as keyof typeof LISTS], of: args.map(formula) };
  if (name === 'round' && args.length === 2) {
    const places = args[1]!;
    if (places.type !== 'ConstantNode' || typeof places.value !== 'number') return refuse('places');
    return { is: 'round', of: formula(args[0]!), places: places.value };
  }
  return refuse('function', { name });
}

/** The library reads figures in binary; up to fifteen digits come back as they were written. */
function constant(value: unknown): Formula {
  const text = String(value);
  return typeof value === 'number' && /^\d+(\.\d+)?$/.test(text)
    ? { is: 'figure', text }
    : refuse('figure', { text });
}

/** Only these few nodes of the library's trees count; anything else is refused by name. */
function formula(node: Node): Formula {
  switch (node.type) {
    case 'ParenthesisNode':
      return formula(node.content!);
    case 'SymbolNode':
      return { is: 'named', name: node.name! };
    case 'AccessorNode': {
      const [step, more] = node.index!.dimensions;
      const plain = node.object?.type === 'SymbolNode' && step?.type === 'ConstantNode' && !more;
      if (!plain || typeof step.value !== 'string') return refuse('function', { name: '.' });
      return { is: 'sibling', part: node.object.name!, name: step.value };
    }
    case 'ConstantNode':
      return constant(node.value);
    case 'OperatorNode':
      return fromOperator(node);
    case 'FunctionNode':
      return fromFunction(node);
    case 'ConditionalNode':
      return {
        is: 'if',
        when: condition(node.condition!),
        then: formula(node.trueExpr!),
        otherwise: formula(node.falseExpr!),
      };
    default:
      return refuse('function', { name: node.type });
  }
}

const TOO_MANY_DIGITS = /\d(?:\.?\d){15}/;

const isComparison = (node: Node) =>
  node.type === 'OperatorNode' && Object.hasOwn(COMPARISONS, calledOf(node));

/** A formula or a condition of an author as a tree, or why it is none. */
export function parseFormula(text: string): Parsed {
  try {
    if (text.length > LONGEST) refuse('tooLong', { most: LONGEST });
    if (TOO_MANY_DIGITS.test(text)) refuse('figure', { text });
    const node = parse(text) as unknown as Node;
    return { value: isComparison(node) ? condition(node) : formula(node), issues: [] };
  } catch (error) {
    // What the library refuses it tells in words of its own, which are no sentences for authors.
    const why = error instanceof Refused ? error.why : message('formula.unreadable', { text });
    return { value: null, issues: [{ severity: 'severe', message: why }] };
  }
}
