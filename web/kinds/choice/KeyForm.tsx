import { useId, useState } from 'react';
import type { ChoiceAsked, ChoiceKey } from '../../../core/kinds/choice/content';
import type { KeyFormProps } from '../keyFormProps';
import { t } from '../shared/keyFormWords';

/** Which options are right. */
export function KeyForm({ content: { asked, key }, onKey }: KeyFormProps<ChoiceAsked, ChoiceKey>) {
  const name = useId();
  const [right, setRight] = useState(key.right);
  const several = asked.mode === 'several';
  const choose = (option: string) => {
    const others = right.filter((one) => one !== option);
    const next = !several ? [option] : others.length < right.length ? others : [...right, option];
    setRight(next);
    onKey(next.length === 0 ? null : { right: next });
  };
  return (
    <fieldset className="space-y-1">
      <legend className="pb-1 font-semibold">{t(several ? 'rightSeveral' : 'right')}</legend>
      {asked.options.map((option) => (
        <label key={option.key} className="flex min-h-9 items-baseline gap-2.5">
          <input
            type={several ? 'checkbox' : 'radio'}
            name={name}
            checked={right.includes(option.key)}
            onChange={() => choose(option.key)}
          />
          <span className="min-w-0 break-words">{option.text}</span>
        </label>
      ))}
    </fieldset>
  );
}
