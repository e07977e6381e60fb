import { Delete, Pi, Radical } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import { words } from '../words';
import { calculate, type Angle, type CalculatorKind, type Outcome } from './calculate';
import { fieldToFill, typeInto } from './fieldInUse';
import { Panel } from './Panel';
import { useAid } from './useAid';

const t = words('calculator', {
  title: 'Calculator',
  entry: 'Calculation',
  result: 'Result',
  history: 'History',
  noHistory: 'No calculation yet',
  take: 'Use {{value}} again',
  put: 'Put into the answer',
  putNone: 'First press the box of the answer where the number goes.',
  clear: 'C',
  clearName: 'Clear',
  back: 'Delete the last character',
  equals: 'Equals',
  root: 'Square root',
  cubeRoot: 'Cube root',
  square: 'Squared',
  power: 'To the power of',
  exponential: 'e to the power of',
  absolute: 'Absolute value',
  factorial: 'Factorial',
  pi: 'Pi',
  degrees: 'Degrees',
  radians: 'Radians',
  angle: 'Angles in',
  'trouble unfinished': 'This is not finished yet.',
  'trouble unreadable': 'This cannot be calculated. Check the symbols and brackets.',
  'trouble by-zero': 'Nothing can be divided by 0.',
  'trouble no-value': 'This has no value.',
  'trouble too-large': 'This is too large to be calculated.',
});

const BASIC = ['7', '8', '9', '÷', '4', '5', '6', '×', '1', '2', '3', '−', '0', '.', '%', '+'];
const SCIENTIFIC = [
  'sin(',
  'cos(',
  'tan(',
  '^',
  'asin(',
  'acos(',
  'atan(',
  '^2',
  'ln(',
  'log(',
  'exp(',
  '!',
  'π',
  'e',
  'cbrt(',
  'abs(',
];
/**
 * What stands on a key in place of what it types, and its name. Drawn, where the fonts of the desk lack the sign: to look
 * for another font takes longer than to open the panel.
 */
const FACES: Readonly<Record<string, { readonly drawn: ReactNode; readonly name: Parameters<typeof t>[0] }>> =
  {
    '√(': { drawn: <Radical aria-hidden className="size-4" />, name: 'root' },
    'cbrt(': {
      drawn: (
        <span className="flex items-center">
          <span className="-mt-2 -mr-0.5 text-[0.62rem] leading-none">3</span>
          <Radical aria-hidden className="size-4" />
        </span>
      ),
      name: 'cubeRoot',
    },
    '^2': { drawn: 'x²', name: 'square' },
    '^': {
      drawn: (
        <span>
          x<sup>y</sup>
        </span>
      ),
      name: 'power',
    },
    'exp(': {
      drawn: (
        <span>
          e<sup>x</sup>
        </span>
      ),
      name: 'exponential',
    },
    'abs(': { drawn: '|x|', name: 'absolute' },
    '!': { drawn: '!', name: 'factorial' },
    π: { drawn: <Pi aria-hidden className="size-4" />, name: 'pi' },
  };
const MOST_KEPT = 30;

interface Done {
  readonly text: string;
  readonly value: string;
}

function Key({
  onPress,
  children,
  name,
  strong,
  wide,
}: {
  onPress: () => void;
  children: React.ReactNode;
  name?: string;
  strong?: boolean;
  wide?: boolean;
}) {
  return (
    <button
      type="button"
      aria-label={name}
      onClick={onPress}
      className={`grid min-h-8 place-items-center rounded-control border border-line font-mono text-[0.88rem] hover:border-edge ${wide ? 'col-span-3' : ''} ${strong ? 'bg-wash text-kelp' : 'bg-card'}`}
    >
      {children}
    </button>
  );
}

/** A key that types: a sign, or the name of a function. */
function TypingKey({
  types,
  onPress,
}: {
  readonly types: string;
  readonly onPress: (types: string) => void;
}) {
  const face = FACES[types];
  const text = types.replace('(', types.length > 1 ? '' : '(');
  return (
    <Key name={face && t(face.name)} onPress={() => onPress(types)} strong={'÷×−+'.includes(types)}>
      {face?.drawn ?? <span className={text.length > 3 ? 'text-[0.76rem] tracking-tight' : ''}>{text}</span>}
    </Key>
  );
}

function History({
  done,
  onTake,
}: {
  readonly done: readonly Done[];
  readonly onTake: (value: string) => void;
}) {
  return (
    <details className="text-[0.88rem]">
      <summary className="min-h-8 py-1 text-slate">{t('history')}</summary>
      {done.length === 0 && <p className="text-soft">{t('noHistory')}</p>}
      <ul className="max-h-28 overflow-y-auto">
        {done.map(({ text, value }, i) => (
          <li key={i} className="flex items-center justify-between gap-2">
            <span className="min-w-0 truncate text-soft">{text} =</span>
            <button
              type="button"
              aria-label={t('take', { value })}
              onClick={() => onTake(value)}
              className="min-h-8 px-1 font-semibold text-slate"
            >
              {value}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The keys of the panel, and what is typed into its field. */
function useCalculation(kind: CalculatorKind, angle: Angle) {
  const [text, setText] = useState('');
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [done, setDone] = useState<readonly Done[]>([]);
  const field = useRef<HTMLInputElement>(null);
  const change = (next: string) => {
    setText(next);
    setOutcome(null);
  };
  const press = (key: string) => {
    const input = field.current!;
    // After a result, an operator goes on with it and anything else starts again.
    const result = outcome && 'value' in outcome ? outcome.value : null;
    if (result !== null) {
      change(/^[÷×−+%^!]/.test(key) ? result + key : key);
      return;
    }
    const [from, to] = [input.selectionStart ?? text.length, input.selectionEnd ?? text.length];
    change(text.slice(0, from) + key + text.slice(to));
    requestAnimationFrame(() => input.setSelectionRange(from + key.length, from + key.length));
  };
  const work = () => {
    const found = calculate(text, kind, angle);
    setOutcome(found);
    if ('value' in found) setDone((before) => [{ text, value: found.value }, ...before].slice(0, MOST_KEPT));
    return 'value' in found ? found.value : null;
  };
  return { text, outcome, done, field, change, press, work };
}

/** Works by its keys and by the keyboard; its result can be put into the field that was worked in last. */
export function Calculator({ kind }: { readonly kind: CalculatorKind }) {
  const { setting, set } = useAid('calculator');
  const angle: Angle = setting.angle === 'radians' ? 'radians' : 'degrees';
  const { text, outcome, done, field, change, press, work } = useCalculation(kind, angle);
  const [noField, setNoField] = useState(false);
  const value = outcome && 'value' in outcome ? outcome.value : null;
  const put = () => {
    // What stands in the entry is worked out first, where that was not done yet.
    const result = value ?? work();
    const target = fieldToFill();
    setNoField(!target);
    if (target && result !== null) typeInto(target, result);
  };
  const scientific = kind === 'scientific';
  return (
    <Panel
      id="calculator"
      title={t('title')}
      first={{ corner: 'right', width: scientific ? 470 : 276, height: 420 }}
      least={{ width: 236, height: 300 }}
      tall
    >
      <div className="min-h-0 flex-1 space-y-1.5 overflow-y-auto px-3 py-2">
        <input
          ref={field}
          value={text}
          aria-label={t('entry')}
          onChange={(event) => change(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== '=') return;
            event.preventDefault();
            work();
          }}
          inputMode="decimal"
          autoComplete="off"
          spellCheck={false}
          maxLength={200}
          className="w-full rounded-control border border-edge bg-card px-2 py-1 text-right font-mono"
        />
        <p
          role="status"
          aria-label={t('result')}
          className="min-h-8 text-right text-[1.35rem] font-semibold break-all"
        >
          {outcome && 'trouble' in outcome ? (
            <span className="text-[0.9rem] font-normal text-brick">{t(`trouble ${outcome.trouble}`)}</span>
          ) : (
            value
          )}
        </p>
        <div className="flex flex-wrap justify-between gap-1">
          {scientific && (
            <button
              type="button"
              onClick={() => set({ angle: angle === 'degrees' ? 'radians' : 'degrees' })}
              className="min-h-8 text-[0.88rem] text-slate"
            >
              {t('angle')} {t(angle).toLowerCase()}
            </button>
          )}
          <button
            type="button"
            disabled={value === null && text.trim() === ''}
            onClick={put}
            className="ml-auto min-h-8 text-[0.88rem] text-slate disabled:text-soft"
          >
            {t('put')}
          </button>
        </div>
        {noField && (
          <p role="alert" className="text-[0.88rem] text-marigold">
            {t('putNone')}
          </p>
        )}
        <div className="flex gap-3">
          {scientific && (
            <div className="grid flex-1 grid-cols-4 content-start gap-1.5">
              {SCIENTIFIC.map((key) => (
                <TypingKey key={key} types={key} onPress={press} />
              ))}
            </div>
          )}
          <div className="grid flex-1 grid-cols-4 gap-1.5">
            <Key name={t('clearName')} onPress={() => change('')}>
              {t('clear')}
            </Key>
            {['(', ')'].map((key) => (
              <TypingKey key={key} types={key} onPress={press} />
            ))}
            <Key name={t('back')} onPress={() => change(text.slice(0, -1))}>
              <Delete aria-hidden className="size-5" />
            </Key>
            {BASIC.map((key) => (
              <TypingKey key={key} types={key} onPress={press} />
            ))}
            <TypingKey types="√(" onPress={press} />
            <Key name={t('equals')} strong wide onPress={work}>
              =
            </Key>
          </div>
        </div>
        <History done={done} onTake={press} />
      </div>
    </Panel>
  );
}

export const BasicCalculator = () => <Calculator kind="basic" />;
export const ScientificCalculator = () => <Calculator kind="scientific" />;
