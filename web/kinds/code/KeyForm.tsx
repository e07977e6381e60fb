import { useState } from 'react';
import type { CodeAsked, CodeKey } from '../../../core/kinds/code/content';
import type { KeyFormProps } from '../keyFormProps';
import { t } from '../shared/keyFormWords';

/** How the marks are divided among the groups of cases. */
export function KeyForm({ content: { key }, onKey }: KeyFormProps<CodeAsked, CodeKey>) {
  const [weights, setWeights] = useState<readonly string[]>(
    key.groups.map(({ weight }) => String(weight ?? 1)),
  );
  const change = (at: number, to: string) => {
    const next = weights.map((one, i) => (i === at ? to : one));
    setWeights(next);
    const complete = next.every((one) => one.trim() !== '' && Number(one) > 0);
    const groups = key.groups.map((group, i) => ({ ...group, weight: Number(next[i]) }));
    onKey(complete ? { ...key, groups } : null);
  };
  return (
    <fieldset className="space-y-2">
      <legend className="font-semibold">{t('groups')}</legend>
      <p className="text-soft">{t('groupHint')}</p>
      {key.groups.map((group, i) => (
        <label key={group.key} className="flex items-center justify-between gap-4">
          <span className="min-w-0 break-words">{group.title}</span>
          <input
            className="min-h-10 w-28 rounded-control border border-edge bg-card px-3"
            type="number"
            min={1}
            value={weights[i]}
            onChange={(event) => change(i, event.target.value)}
          />
        </label>
      ))}
    </fieldset>
  );
}
