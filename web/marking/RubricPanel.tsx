import { RadioGroup } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import type { Component } from '../../core/kinds/contract';
import { showMarks } from '../../core/marks';
import { markOf, marksBetween, type MarksGiven } from '../../core/marking/marksGiven';
import { say } from '../words';
import { keysOfLevels, keysOfPoints, marksOutOf, readTyped, shownKey, typedMarks } from './markKeys';
import { t } from './words';

type One = number | readonly number[];

interface Props {
  /** The script, where one follows the other. */
  readonly task?: number;
  readonly components: readonly Component[];
  readonly given: MarksGiven;
  /** The component that keys go to; null where keys are switched off. */
  readonly active: string | null;
  /** What was typed for it and is no mark yet. */
  readonly typed: string;
  /** Components whose marks stand from before the script was taken back. */
  readonly toConfirm?: readonly string[];
  readonly onActive: (component: string) => void;
  /** Nothing, where what was typed is no mark. */
  readonly onGive: (component: string, given: One | undefined) => void;
}

export const nameOf = ({ name }: Component): string => (name ? say(name) : t('wholePart'));

interface OneProps extends Omit<Props, 'task' | 'components' | 'given' | 'onActive' | 'toConfirm'> {
  readonly component: Component;
  readonly given: One | undefined;
}

const KEY = 'rounded border border-line px-1 font-mono text-[0.72rem] text-soft';

function Levels({ component, given, active }: OneProps) {
  const levels = component.criterion!.levels!;
  const keys = keysOfLevels(levels);
  const between = marksBetween(component.criterion!);
  return (
    <>
      <div className="flex flex-wrap gap-1.5">
        {levels.map((option, i) => {
          const isMark = keys[i] === typedMarks(option.hundredths);
          return (
            <RadioGroup.Item
              key={i}
              value={String(i)}
              aria-label={`${showMarks(option.hundredths)}, ${option.label}: ${option.says}`}
              title={option.says}
              className={`min-h-12 max-w-full min-w-min flex-1 basis-0 rounded-control border px-1.5 py-1 text-left text-[0.82rem] leading-4 ${given === i ? 'border-kelp bg-wash' : 'border-line bg-card hover:border-edge'}`}
            >
              <b className={isMark && active === component.key ? KEY.replace('text-soft', 'text-ink') : ''}>
                {showMarks(option.hundredths)}
              </b>
              {!isMark && <kbd className={`ml-1 ${KEY}`}>{shownKey(keys[i]!)}</kbd>}
              <span className="mt-0.5 block break-words">{option.label}</span>
            </RadioGroup.Item>
          );
        })}
      </div>
      {between.length > 0 && (
        <div className="mt-1.5 flex flex-wrap items-center gap-1.5 text-[0.82rem]">
          <span className="text-soft">{t('between')}</span>
          {between.map(({ given: value, hundredths }) => {
            const [lower, upper] = [levels[Math.floor(value)]!, levels[Math.ceil(value)]!];
            return (
              <RadioGroup.Item
                key={value}
                value={String(value)}
                aria-label={t('betweenLevels', {
                  marks: showMarks(hundredths),
                  from: lower.label,
                  to: upper.label,
                })}
                title={t('betweenLevels', {
                  marks: showMarks(hundredths),
                  from: lower.label,
                  to: upper.label,
                })}
                className={`min-h-10 min-w-10 rounded-control border px-1.5 ${given === value ? 'border-kelp bg-wash' : 'border-line bg-card hover:border-edge'}`}
              >
                <b>{showMarks(hundredths)}</b>
              </RadioGroup.Item>
            );
          })}
        </div>
      )}
    </>
  );
}

/** Points that are ticked where the answer has them. */
function Points({ component, given, onGive }: OneProps) {
  const points = component.criterion!.points!;
  const ticked = Array.isArray(given) ? (given as readonly number[]) : [];
  const keys = keysOfPoints(points);
  const toggle = (at: number) =>
    onGive(
      component.key,
      ticked.includes(at) ? ticked.filter((one) => one !== at) : [...ticked, at].sort((a, b) => a - b),
    );
  return (
    <ul className="space-y-1">
      {points.map((point, i) => (
        <li key={i}>
          <label className="flex min-h-11 items-start gap-2 rounded-control border border-line bg-card px-2 py-2.5 text-[0.88rem]">
            <input type="checkbox" checked={ticked.includes(i)} onChange={() => toggle(i)} className="mt-1" />
            <span className="min-w-0 flex-1 break-words">{point.says}</span>
            <span className="text-soft">{showMarks(point.hundredths)}</span>
            {keys[i] !== '' && <kbd className={KEY}>{shownKey(keys[i]!)}</kbd>}
          </label>
        </li>
      ))}
      {given === undefined && (
        <li>
          <button
            type="button"
            onClick={() => onGive(component.key, [])}
            className="min-h-11 text-[0.88rem] text-slate underline underline-offset-4"
          >
            {t('noPoint')}
          </button>
        </li>
      )}
    </ul>
  );
}

/** Marks typed where there are no levels: what is no mark from 0 to the maximum is none, also where there was one. */
function Typed({ component, given, active, typed, onGive }: OneProps) {
  const [own, setOwn] = useState<string | null>(null);
  const shown =
    active === component.key && typed !== ''
      ? typed
      : (own ?? (typeof given === 'number' ? typedMarks(given) : ''));
  const take = (text: string) => {
    setOwn(text);
    onGive(component.key, readTyped(component, text) ?? undefined);
  };
  return (
    <input
      inputMode="decimal"
      value={shown}
      onChange={(event) => take(event.target.value)}
      onBlur={() => setOwn(null)}
      aria-label={t('typedMarks', { name: nameOf(component), all: showMarks(component.of) })}
      className="min-h-11 w-28 rounded-control border border-edge bg-card px-3"
    />
  );
}

/** What people decide, as levels to press, points to tick, or marks to type. */
export function RubricPanel({
  task,
  components,
  given,
  active,
  typed,
  toConfirm = [],
  onActive,
  onGive,
}: Props) {
  const panel = useRef<HTMLDivElement>(null);
  // A long rubric scrolls: what keys go to is in view. What has the focus is so by itself, or is being pressed.
  useEffect(() => {
    const criterion = panel.current?.querySelector('[aria-current]');
    if (!criterion?.contains(document.activeElement)) criterion?.scrollIntoView?.({ block: 'nearest' });
  }, [active]);
  return (
    <div ref={panel} role="group" aria-label={t('rubric')} className="space-y-3.5">
      {components.map((component) => {
        const own = given[component.key];
        const { levels = null, points = null } = component.criterion ?? {};
        const Kind = points ? Points : levels ? Levels : Typed;
        const isActive = active === component.key;
        const frame = {
          'aria-label': nameOf(component),
          'aria-current': isActive ? ('step' as const) : undefined,
          // What is pressed becomes active; Tab moves the focus alone.
          onPointerDown: () => onActive(component.key),
          className: `border-l-4 pl-2.5 ${isActive ? 'border-kelp' : 'border-transparent'}`,
        };
        // Marks that are being typed belong to their script.
        const field = Kind === Typed ? task : undefined;
        const inside = (
          <>
            <p className="mb-1 flex items-baseline gap-2.5">
              <b className="min-w-0 flex-1 break-words">{nameOf(component)}</b>
              {isActive && typed !== '' && <span className="font-mono text-kelp">{typed}_</span>}
              {toConfirm.includes(component.key) && (
                <span className="text-[0.82rem] whitespace-nowrap text-marigold">
                  {t('standsFromBefore')}
                </span>
              )}
              <span className="whitespace-nowrap text-soft">
                {marksOutOf(own === undefined ? null : markOf(component, own).hundredths, component.of)}
              </span>
            </p>
            <Kind key={field} {...{ component, active, typed, onGive, given: own }} />
          </>
        );
        if (Kind !== Levels)
          return (
            <div key={component.key} role="group" {...frame}>
              {inside}
            </div>
          );
        // Keys up and down go from criterion to criterion, left and right from level to level.
        return (
          <RadioGroup.Root
            key={component.key}
            orientation="horizontal"
            value={typeof own === 'number' ? String(own) : ''}
            onValueChange={(level) => onGive(component.key, Number(level))}
            {...frame}
          >
            {inside}
          </RadioGroup.Root>
        );
      })}
    </div>
  );
}
