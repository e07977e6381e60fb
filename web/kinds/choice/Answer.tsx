import { Strikethrough, Undo2 } from 'lucide-react';
import { useId, useState } from 'react';
import { directionOf } from '../../../core/kinds/choice/candidate';
import type { ChoiceResponse, ChoiceShown } from '../../../core/kinds/choice/response';
import { Listen } from '../../kit/Listen';
import { say, words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { ClearButton } from '../shared/ClearButton';
import { FIELD_RING, OptionMark } from '../shared/OptionMark';
import { OptionBody } from './OptionBody';

const t = words('choice', {
  strike: 'Strike out',
  back: 'Restore',
  strikeOf: 'Strike out {{option}}',
  backOf: 'Restore {{option}}',
  full_one: 'You can choose only {{count}}. Remove your choice first.',
  full_other: 'You can choose only {{count}}. Remove one choice first.',
});

type Props = AnswerProps<ChoiceShown, ChoiceResponse>;

interface RowProps {
  readonly name: string;
  readonly option: ChoiceShown['options'][number];
  readonly one: boolean;
  readonly on: boolean;
  readonly out: boolean;
  /** Whether it can be read aloud by itself. */
  readonly listens: boolean;
  readonly onChoose: () => void;
  /** Null where the section does not allow it. */
  readonly onStrike: (() => void) | null;
}

function OptionRow({ name, option, one, on, out, listens, onChoose, onStrike }: RowProps) {
  const Icon = out ? Undo2 : Strikethrough;
  return (
    <div
      className={`flex items-stretch rounded-lg border ${FIELD_RING} ${on ? 'border-kelp bg-wash' : 'border-line bg-card'}`}
    >
      <label className="relative flex min-h-11 flex-1 cursor-pointer items-center gap-3 py-1.5 pl-3">
        <input
          type={one ? 'radio' : 'checkbox'}
          name={name}
          checked={on}
          onChange={onChoose}
          className="absolute size-px opacity-0"
        />
        <OptionMark round={one} on={on} />
        <span className={out ? 'text-soft line-through' : ''}>
          <OptionBody option={option} />
        </span>
      </label>
      {listens && option.text !== '' && <Listen text={option.text} />}
      {onStrike && (
        <button
          type="button"
          onClick={onStrike}
          aria-label={t(out ? 'backOf' : 'strikeOf', { option: option.text })}
          className={`inline-flex items-center gap-1.5 rounded-lg px-3 text-[0.8rem] ${out ? 'text-ink' : 'text-soft'} hover:text-ink`}
        >
          <Icon aria-hidden className="size-4" />
          <span className="hidden desk:inline">{t(out ? 'back' : 'strike')}</span>
        </button>
      )}
    </div>
  );
}

/** Round boxes for one, square ones for several; “choose 2” is kept to and counted for the candidate. */
export function Answer({ shown, response, onChange, events, onEvent, aids, promptId, needId }: Props) {
  const canStrike = aids.includes('strike-out');
  const struck = (canStrike ? (events.strike ?? []) : []) as readonly string[];
  const onStrike = (keys: readonly string[]) => onEvent('strike', keys);
  const name = useId();
  const [refused, setRefused] = useState(false);
  const one = shown.mode === 'one';
  const most = one ? 1 : (shown.choose ?? shown.options.length);

  const choose = (key: string) => {
    const on = response.chosen.includes(key);
    const full = !one && !on && response.chosen.length >= most;
    setRefused(full);
    if (full) return;
    const others = response.chosen.filter((k) => k !== key);
    onChange({ chosen: one ? [key] : on ? others : [...others, key] });
    if (!on && struck.includes(key)) onStrike(struck.filter((k) => k !== key));
  };
  const strike = (key: string) => {
    setRefused(false);
    const out = struck.includes(key);
    onStrike(out ? struck.filter((k) => k !== key) : [...struck, key]);
    if (!out && response.chosen.includes(key)) onChange({ chosen: response.chosen.filter((k) => k !== key) });
  };

  return (
    <div
      role={one ? 'radiogroup' : 'group'}
      aria-labelledby={promptId}
      aria-describedby={needId}
      className="space-y-1.5"
    >
      <p className="text-[0.9rem] text-soft">{say(directionOf(shown))}</p>
      {shown.options.map((option) => (
        <OptionRow
          key={option.key}
          name={name}
          option={option}
          one={one}
          on={response.chosen.includes(option.key)}
          out={struck.includes(option.key)}
          listens={aids.includes('read-aloud')}
          onChoose={() => choose(option.key)}
          onStrike={canStrike ? () => strike(option.key) : null}
        />
      ))}
      <p role="status" className="text-[0.88rem] text-marigold empty:hidden">
        {refused ? t('full', { count: most }) : ''}
      </p>
      <ClearButton
        shown={response.chosen.length > 0}
        onClear={() => {
          setRefused(false);
          onChange({ chosen: [] });
        }}
      />
    </div>
  );
}
