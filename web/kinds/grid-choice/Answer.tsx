import { useId } from 'react';
import {
  chosenIn,
  type GridChoiceResponse,
  type GridChoiceShown,
} from '../../../core/kinds/grid-choice/response';
import type { AnswerProps } from '../answerProps';
import { ClearButton } from '../shared/ClearButton';
import { FIELD_RING, OptionMark } from '../shared/OptionMark';
import { columnsFor } from './columnsFor';

type Props = AnswerProps<GridChoiceShown, GridChoiceResponse>;

interface RowProps {
  readonly shown: GridChoiceShown;
  readonly statement: GridChoiceShown['statements'][number];
  readonly chosen: readonly string[];
  readonly needId: string;
  readonly onChoose: (chosen: string[]) => void;
}

/** One statement: a line of a table where there is room, a group of its own where there is not. */
function Row({ shown, statement, chosen, needId, onChoose }: RowProps) {
  const id = useId();
  const one = shown.mode === 'one';
  const press = (key: string) => {
    if (one) onChoose([key]);
    else onChoose(chosen.includes(key) ? chosen.filter((k) => k !== key) : [...chosen, key]);
  };
  return (
    <div
      role={one ? 'radiogroup' : 'group'}
      aria-labelledby={id}
      aria-describedby={needId}
      style={columnsFor(shown)}
      className="border-b border-line py-2 last:border-0 @xl:grid @xl:items-center @xl:gap-x-1 @xl:py-0.5"
    >
      <p id={id} className="py-1 @xl:pr-3">
        {statement.text}
      </p>
      {shown.categories.map(({ key, text }) => {
        const on = chosen.includes(key);
        return (
          <label
            key={key}
            className={`relative flex min-h-11 cursor-pointer items-center gap-3 rounded-lg px-3 @xl:justify-center @xl:px-1 ${FIELD_RING} ${on ? 'bg-wash' : 'hover:bg-shade'}`}
          >
            <input
              type={one ? 'radio' : 'checkbox'}
              name={`${id} ${one ? '' : key}`}
              checked={on}
              onChange={() => press(key)}
              className="absolute size-px opacity-0"
            />
            <OptionMark round={one} on={on} />
            <span className="@xl:sr-only">{text}</span>
          </label>
        );
      })}
    </div>
  );
}

/** Statements against categories. Nothing scrolls sideways: without room each statement is a small group. */
export function Answer({ shown, response, onChange, promptId, needId }: Props) {
  const choose = (statement: string, chosen: string[]) =>
    onChange({ rows: { ...response.rows, [statement]: chosen } });
  return (
    <div role="group" aria-labelledby={promptId} className="@container">
      <div className="rounded-lg border border-line bg-card px-3 py-1">
        <div
          aria-hidden
          style={columnsFor(shown)}
          className="hidden border-b border-line py-2 text-[0.88rem] font-semibold text-soft @xl:grid @xl:items-end @xl:gap-x-1"
        >
          <span />
          {shown.categories.map(({ key, text }) => (
            <span key={key} className="text-center break-words hyphens-auto">
              {text}
            </span>
          ))}
        </div>
        {shown.statements.map((statement) => (
          <Row
            key={statement.key}
            shown={shown}
            statement={statement}
            chosen={chosenIn(response, statement.key)}
            needId={needId}
            onChoose={(chosen) => choose(statement.key, chosen)}
          />
        ))}
      </div>
      <ClearButton
        shown={Object.values(response.rows).some((chosen) => chosen.length > 0)}
        onClear={() => onChange({ rows: {} })}
      />
    </div>
  );
}
