import { useState } from 'react';
import type { GapRule, GapsAsked, GapsKey } from '../../../core/kinds/gaps/content';
import { LongText } from '../../ui/LongText';
import type { KeyFormProps } from '../keyFormProps';
import { t } from '../shared/keyFormWords';

const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');

/** What is right in each gap. Words with a part of the marks stay as they are. */
export function KeyForm({ content: { asked, key }, onKey }: KeyFormProps<GapsAsked, GapsKey>) {
  const [rules, setRules] = useState<Readonly<Record<string, GapRule>>>(key.gaps);
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(
      Object.entries(key.gaps).flatMap(([gap, rule]) =>
        rule.by === 'typing'
          ? [[gap, rule.accepted.flatMap((one) => (one.percent === 100 ? [one.text] : [])).join('\n')]]
          : [],
      ),
    ),
  );
  const change = (gap: string, rule: GapRule) => {
    const next = { ...rules, [gap]: rule };
    setRules(next);
    const empty = Object.values(next).some(
      (one) => one.by === 'typing' && !one.accepted.some(({ percent }) => percent === 100),
    );
    onKey(empty ? null : { gaps: next });
  };
  return (
    <div className="space-y-3">
      {asked.gaps.map((gap, i) => {
        const rule = rules[gap.key]!;
        if (rule.by === 'list' && gap.by === 'list')
          return (
            <label key={gap.key} className="block">
              {t('gap', { number: i + 1 })}
              <select
                className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3"
                value={rule.right}
                onChange={(event) => change(gap.key, { ...rule, right: event.target.value })}
              >
                {gap.options.map((option) => (
                  <option key={option}>{option}</option>
                ))}
              </select>
            </label>
          );
        if (rule.by !== 'typing') return null;
        return (
          <LongText
            key={gap.key}
            label={t('gapWords', { number: i + 1 })}
            value={texts[gap.key]!}
            onChange={(text) => {
              setTexts({ ...texts, [gap.key]: text });
              const partly = rule.accepted.filter(({ percent }) => percent !== 100);
              const whole = linesOf(text).map((one) => ({ text: one, percent: 100 }));
              change(gap.key, { ...rule, accepted: [...whole, ...partly] });
            }}
          />
        );
      })}
    </div>
  );
}
