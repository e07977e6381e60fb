import { useState } from 'react';
import type { Component } from '../../core/kinds/contract';
import { showMarks } from '../../core/marks';
import { markOf, type MarksGiven } from '../../core/marking/marksGiven';
import { say } from '../words';
import { t } from './words';

interface Props {
  readonly components: readonly Component[];
  readonly given: MarksGiven;
  /** The component that number keys go to. */
  readonly active: string;
  /** Nothing, where what was typed is no mark. */
  readonly onGive: (component: string, given: number | undefined) => void;
}

/** The letter that chooses a component by keyboard. */
export const letterOf = ({ key }: Component): string => key[0]!;

export const nameOf = ({ name }: Component): string => (name ? say(name) : t('wholePart'));

type OneProps = Omit<Props, 'components' | 'given'> & {
  readonly component: Component;
  readonly given: number | undefined;
};

function Levels({ component, given, onGive }: OneProps) {
  return (
    <div className="grid auto-cols-fr grid-flow-col gap-1.5">
      {component.criterion!.levels!.map((option, i) => (
        <button
          key={option.label}
          type="button"
          role="radio"
          aria-checked={given === i}
          aria-label={`${showMarks(option.hundredths)}, ${option.label}: ${option.says}`}
          title={option.says}
          onClick={() => onGive(component.key, i)}
          className={`min-h-12 rounded-control border px-1.5 py-1 text-left text-[0.82rem] leading-4 ${given === i ? 'border-kelp bg-wash' : 'border-line bg-card hover:border-edge'}`}
        >
          <b>{showMarks(option.hundredths)}</b> <span className="text-[0.68rem] text-soft">{i + 1}</span>
          <span className="mt-0.5 block break-words">{option.label}</span>
        </button>
      ))}
    </div>
  );
}

/** Marks typed where there are no levels: what is no mark from 0 to the maximum is none, also where there was one. */
function Typed({ component, onGive }: OneProps) {
  const [text, setText] = useState('');
  const take = (typed: string) => {
    setText(typed);
    const marks = Number(typed.replace(',', '.'));
    const hundredths = Math.round(marks * 100);
    const isMark = typed.trim() !== '' && hundredths >= 0 && hundredths <= component.of;
    onGive(component.key, isMark ? hundredths : undefined);
  };
  return (
    <input
      inputMode="decimal"
      value={text}
      onChange={(event) => take(event.target.value)}
      aria-label={t('typedMarks', { name: nameOf(component), all: showMarks(component.of) })}
      className="min-h-11 w-28 rounded-control border border-edge bg-card px-3"
    />
  );
}

/** What people decide, as levels to press or marks to type; letters choose the component, numbers its level. */
export function RubricPanel({ components, given, active, onGive }: Props) {
  return (
    <div role="group" aria-label={t('rubric')} className="space-y-4">
      {components.map((component) => {
        const own = given[component.key];
        const levels = component.criterion?.levels ?? null;
        const One = levels ? Levels : Typed;
        return (
          <div key={component.key} role={levels ? 'radiogroup' : 'group'} aria-label={nameOf(component)}>
            <p className="mb-1.5 flex items-center gap-2.5">
              <kbd
                className={`rounded border px-1.5 font-mono text-[0.72rem] ${active === component.key ? 'border-kelp bg-kelp text-on' : 'border-line text-soft'}`}
              >
                {letterOf(component).toUpperCase()}
              </kbd>
              <b className="flex-1">{nameOf(component)}</b>
              <span className="text-soft">
                {own === undefined ? '–' : showMarks(markOf(component, own).hundredths)} /{' '}
                {showMarks(component.of)}
              </span>
            </p>
            <One {...{ component, active, onGive, given: own }} />
          </div>
        );
      })}
    </div>
  );
}
