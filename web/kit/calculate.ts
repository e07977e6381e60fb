import {
  bignumberDependencies,
  create,
  eDependencies,
  parseDependencies,
  piDependencies,
  type BigNumber,
  type FactoryFunctionMap,
  type MathNode,
} from 'mathjs';

// What is typed is read by the library; its decimals work it out.
const math = create(
  { bignumberDependencies, eDependencies, parseDependencies, piDependencies } as FactoryFunctionMap,
  { number: 'BigNumber', precision: 40 },
);

/** Decimal places beyond this many digits are rounding of the calculator's own. */
const DIGITS = 12;
const LONGEST = 200;
const LARGEST_POWER = 1000;
const LARGEST_FACTORIAL = 170;

export type CalculatorKind = 'basic' | 'scientific';
export type Angle = 'degrees' | 'radians';

export type Trouble = 'unfinished' | 'unreadable' | 'by-zero' | 'no-value' | 'too-large';
export type Outcome = { readonly value: string } | { readonly trouble: Trouble };

const BASIC = new Set(['add', 'subtract', 'multiply', 'divide', 'unaryMinus', 'unaryPlus']);
const SCIENTIFIC = new Set([...BASIC, 'pow', 'factorial']);
const FUNCTIONS = new Set([
  'sin',
  'cos',
  'tan',
  'asin',
  'acos',
  'atan',
  'sqrt',
  'cbrt',
  'ln',
  'log',
  'abs',
  'exp',
]);
const NAMES = new Set(['pi', 'e']);

/** What is typed or pressed, in the notation of the library. */
function translated(text: string): string {
  return text
    .replace(/[×·]/g, '*')
    .replace(/[÷:]/g, '/')
    .replace(/[−–]/g, '-')
    .replace(/√/g, 'sqrt')
    .replace(/π/g, 'pi')
    .replace(/,/g, '.')
    .replace(/(\d|\))\s*%/g, '$1/100');
}

interface Read {
  readonly type: string;
  readonly fn?: { readonly name?: string } | string;
  readonly name?: string;
  readonly value?: unknown;
}

/** Only what has a key here is worked out; everything else the library could do stays shut. */
function isAllowed(node: MathNode, kind: CalculatorKind): boolean {
  let allowed = true;
  node.traverse((each, path, parent) => {
    const read = each as unknown as Read;
    const of = kind === 'basic' ? BASIC : SCIENTIFIC;
    if (read.type === 'ConstantNode') allowed &&= typeof read.value === 'object';
    else if (read.type === 'ParenthesisNode') return;
    else if (read.type === 'OperatorNode') allowed &&= of.has(read.fn as string);
    else if (read.type === 'FunctionNode')
      allowed &&=
        kind === 'scientific'
          ? FUNCTIONS.has((read.fn as { name: string }).name)
          : (read.fn as { name: string }).name === 'sqrt';
    else if (read.type === 'SymbolNode')
      allowed &&=
        (path === 'fn' && parent?.type === 'FunctionNode') ||
        (kind === 'scientific' && NAMES.has(read.name!));
    else allowed = false;
  });
  return allowed;
}

class Impossible extends Error {
  readonly trouble: Trouble;

  constructor(trouble: Trouble) {
    super(trouble);
    this.trouble = trouble;
  }
}

const big = (value: BigNumber | number | string) => math.bignumber(value);
const HALF_TURN = big(180);
const constant = (name: string) => math.parse(name).evaluate() as BigNumber;

/** Half a turn is not known exactly, so that what should be nothing comes out as next to nothing. */
const exactly = (x: BigNumber): BigNumber => x.toDecimalPlaces(30);

function functionsFor(angle: Angle): Record<string, (x: BigNumber) => BigNumber> {
  const pi = constant('pi');
  const isDegrees = angle === 'degrees';
  const into = (x: BigNumber) => (isDegrees ? x.times(pi).div(HALF_TURN) : x);
  const outOf = (x: BigNumber) => (isDegrees ? x.times(HALF_TURN).div(pi) : x);
  const inside = (x: BigNumber) => {
    if (x.abs().gt(1)) throw new Impossible('no-value');
    return x;
  };
  const above = (x: BigNumber) => {
    if (x.lte(0)) throw new Impossible('no-value');
    return x;
  };
  return {
    sin: (x) => exactly(into(x).sin()),
    cos: (x) => exactly(into(x).cos()),
    tan(x) {
      // At a right angle it has no value; the cosine there is not exactly nothing.
      if (exactly(into(x).cos()).isZero()) throw new Impossible('no-value');
      return into(x).tan();
    },
    asin: (x) => outOf(inside(x).asin()),
    acos: (x) => outOf(inside(x).acos()),
    atan: (x) => outOf(x.atan()),
    ln: (x) => above(x).ln(),
    log: (x) => above(x).log(10),
    sqrt(x) {
      if (x.lt(0)) throw new Impossible('no-value');
      return x.sqrt();
    },
    cbrt: (x) => x.cbrt(),
    abs: (x) => x.abs(),
    exp(x) {
      if (x.abs().gt(LARGEST_POWER)) throw new Impossible('too-large');
      return x.exp();
    },
  };
}

interface Working {
  readonly functions: Record<string, (x: BigNumber) => BigNumber>;
}

const OPERATIONS: Readonly<Record<string, (a: BigNumber, b: BigNumber) => BigNumber>> = {
  add: (a, b) => a.plus(b),
  subtract: (a, b) => a.minus(b),
  multiply: (a, b) => a.times(b),
  divide(a, b) {
    if (b.isZero()) throw new Impossible('by-zero');
    return a.div(b);
  },
  pow(a, b) {
    if (b.abs().gt(LARGEST_POWER)) throw new Impossible('too-large');
    if (a.isZero() && b.lt(0)) throw new Impossible('by-zero');
    const power = a.pow(b);
    if (power.isNaN()) throw new Impossible('no-value');
    return power;
  },
  unaryMinus: (a) => a.neg(),
  unaryPlus: (a) => a,
  factorial(a) {
    if (!a.isInteger() || a.lt(0)) throw new Impossible('no-value');
    if (a.gt(LARGEST_FACTORIAL)) throw new Impossible('too-large');
    let product = big(1);
    for (let i = 2; a.gte(i); i++) product = product.times(i);
    return product;
  },
};

/** The value of what was read, step by step, so that what has no value is told as such. */
function valueOf(node: MathNode, working: Working): BigNumber {
  const read = node as unknown as Read & { args?: MathNode[]; content?: MathNode };
  if (read.type === 'ConstantNode') return big(read.value as string);
  if (read.type === 'SymbolNode') return constant(read.name!);
  if (read.type === 'ParenthesisNode') return valueOf(read.content!, working);
  const args = read.args!.map((one) => valueOf(one, working));
  if (read.type === 'FunctionNode') {
    if (args.length !== 1) throw new Impossible('unreadable');
    return working.functions[(read.fn as { name: string }).name]!(args[0]!);
  }
  return OPERATIONS[read.fn as string]!(args[0]!, args[1]!);
}

/** A value as it is shown: up to twelve digits, without the zeros that say nothing. */
function shown(value: BigNumber): Outcome {
  if (!value.isFinite()) return { trouble: 'too-large' };
  const rounded = value.toSignificantDigits(DIGITS);
  const plain = rounded.isZero() || (rounded.abs().gte('1e-9') && rounded.abs().lt('1e15'));
  const text = plain
    ? rounded.toFixed()
    : rounded.toExponential().replace('e+', '×10^').replace('e-', '×10^-');
  return { value: text.replace('-', '−') };
}

/** Works out what was typed; what cannot be worked out is told as a code. Powers bind more than the sign: −2^2 is −4. */
export function calculate(text: string, kind: CalculatorKind, angle: Angle = 'degrees'): Outcome {
  if (text.trim() === '') return { trouble: 'unfinished' };
  if (text.length > LONGEST) return { trouble: 'too-large' };
  let node: MathNode;
  try {
    node = math.parse(translated(text));
  } catch {
    const open = (text.match(/\(/g) ?? []).length > (text.match(/\)/g) ?? []).length;
    return { trouble: open || /[-+×÷*/^(−]\s*$/.test(text) ? 'unfinished' : 'unreadable' };
  }
  if (!isAllowed(node, kind)) return { trouble: 'unreadable' };
  try {
    return shown(valueOf(node, { functions: functionsFor(angle) }));
  } catch (error) {
    return { trouble: error instanceof Impossible ? error.trouble : 'unreadable' };
  }
}
