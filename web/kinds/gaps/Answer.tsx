import type { GapShown, GapsResponse, GapsShown } from '../../../core/kinds/gaps/response';
import { cutAtGaps } from '../../../core/kinds/gaps/pieces';
import { sentenceAround } from '../../../core/kinds/gaps/sentence';
import { useId } from 'react';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { GapText, type InTable } from './GapText';

const t = words('gaps', {
  gap: 'Gap {{position}}',
  blank: 'gap {{position}}',
  oneWord: 'one word',
  choose: 'choose …',
});

interface GapProps {
  readonly gap: GapShown;
  readonly position: number;
  readonly value: string;
  readonly needId: string;
  /** What stands around it, for people who listen. */
  readonly sentence: string;
  readonly onChange: (value: string) => void;
}

const FIELD = 'mx-1 my-0.5 min-h-11 rounded-control border border-edge bg-card px-2.5 align-baseline';

function Gap(props: GapProps) {
  const id = useId();
  return (
    <>
      <Field {...props} sentenceId={id} />
      <span id={id} hidden>
        {props.sentence}
      </span>
    </>
  );
}

function Field({
  gap,
  position,
  value,
  needId,
  sentenceId,
  onChange,
}: GapProps & { readonly sentenceId: string }) {
  const common = {
    'aria-label': t('gap', { position }),
    'aria-describedby': `${sentenceId} ${needId}`,
    value,
  };
  if (gap.by === 'list')
    return (
      <select {...common} onChange={(e) => onChange(e.target.value)} className={`${FIELD} max-w-full`}>
        <option value="">{t('choose')}</option>
        {gap.options.map((option) => (
          <option key={option} value={option}>
            {option}
          </option>
        ))}
      </select>
    );
  const width = `${Math.min(26, Math.max(gap.oneWord ? 12 : 8, value.length + 4))}ch`;
  return (
    <input
      {...common}
      type="text"
      autoComplete="off"
      autoCapitalize="off"
      spellCheck={false}
      maxLength={200}
      placeholder={gap.oneWord ? t('oneWord') : ''}
      onChange={(e) => onChange(e.target.value)}
      style={{ width }}
      className={`${FIELD} placeholder:text-soft`}
    />
  );
}

/** A text with its blanks in place, typed into or filled from a list. */
export function Answer({
  shown,
  response,
  onChange,
  promptId,
  needId,
}: AnswerProps<GapsShown, GapsResponse>) {
  const pieces = cutAtGaps(shown);
  const fill = (key: string, value: string) => onChange({ filled: { ...response.filled, [key]: value } });
  const sentenceOf = (position: number, where: InTable) => {
    const at = pieces.findIndex((piece) => 'gap' in piece && piece.position === position);
    const around = sentenceAround(pieces, at, (n) => t('blank', { position: n }));
    return where ? [where.row, where.column, around].filter((one) => one !== '').join(', ') : around;
  };
  return (
    <div role="group" aria-labelledby={promptId}>
      <GapText
        shown={shown}
        leading="leading-[2.6]"
        gap={(gap, position, where) => (
          <Gap
            key={gap.key}
            gap={gap}
            position={position}
            value={response.filled[gap.key] ?? ''}
            needId={needId}
            sentence={sentenceOf(position, where)}
            onChange={(value) => fill(gap.key, value)}
          />
        )}
      />
    </div>
  );
}
