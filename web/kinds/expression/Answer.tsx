import { convertAsciiMathToLatex } from 'mathlive';
import { useRef, useState } from 'react';
import { expressionAsText } from '../../../core/expressions/toText';
import { isBlank } from '../../../core/kinds/expression/candidate';
import type { ExpressionResponse, ExpressionShown } from '../../../core/kinds/expression/response';
import type { AnswerProps } from '../answerProps';
import { ClearButton } from '../shared/ClearButton';
import { MathField, type FieldHandle } from './MathField';
import { Toolbar } from './Toolbar';
import { Typeset } from './Typeset';
import { t } from './words';

type Props = AnswerProps<ExpressionShown, ExpressionResponse>;

/** One line of plain signs, for who would rather type; what it is read as stands below it. */
function Line({
  shown,
  response,
  onChange,
  promptId,
  needId,
}: Pick<Props, 'shown' | 'response' | 'onChange' | 'promptId' | 'needId'>) {
  const [line, setLine] = useState(() => expressionAsText(response.latex, shown));
  return (
    <>
      <input
        type="text"
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        maxLength={400}
        aria-labelledby={promptId}
        aria-describedby={needId}
        value={line}
        onChange={(event) => {
          setLine(event.target.value);
          onChange({ latex: convertAsciiMathToLatex(event.target.value) });
        }}
        className="min-h-12 w-full rounded-lg border border-edge bg-card px-3.5 font-mono"
      />
      <p className="mt-1 text-[0.85rem] text-soft">{t('lineHint')}</p>
      <p className="mt-1">
        <span className="text-[0.88rem] text-soft">{t('read')}: </span>
        {isBlank(response.latex) ? (
          <span className="text-soft">{t('nothing')}</span>
        ) : (
          <Typeset latex={response.latex} spoken={expressionAsText(response.latex, shown)} />
        )}
      </p>
    </>
  );
}

/** An expression in a field for mathematics with its signs, or typed in one line. */
export function Answer({ shown, response, onChange, promptId, needId, target }: Props) {
  const field = useRef<FieldHandle>(null);
  const [byLine, setByLine] = useState(false);
  return (
    <div role="group" aria-labelledby={promptId}>
      {byLine ? (
        <Line shown={shown} response={response} onChange={onChange} promptId={promptId} needId={needId} />
      ) : (
        <>
          <div className="flex items-center gap-2.5">
            {shown.before && <span className="flex-none">{shown.before}</span>}
            <div className="min-w-0 flex-1">
              <MathField
                key={target}
                ref={field}
                latex={response.latex}
                decimal={shown.decimal}
                promptId={promptId}
                describedBy={needId}
                onChange={(latex) => onChange({ latex })}
              />
            </div>
            {shown.after && <span className="flex-none">{shown.after}</span>}
          </div>
          <Toolbar tools={shown.tools} onPut={(latex) => field.current?.put(latex)} />
        </>
      )}
      <div className="mt-1 flex flex-wrap gap-x-3">
        <button
          type="button"
          onClick={() => setByLine(!byLine)}
          className="min-h-11 rounded-control px-2 text-[0.85rem] text-slate underline underline-offset-4"
        >
          {t(byLine ? 'byField' : 'byLine')}
        </button>
        <ClearButton shown={!isBlank(response.latex)} onClear={() => onChange({ latex: '' })} />
      </div>
    </div>
  );
}
