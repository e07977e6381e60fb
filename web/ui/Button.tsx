import type { ButtonHTMLAttributes, ReactNode } from 'react';

const LOOKS = {
  first:
    'border-kelp bg-kelp text-on font-semibold hover:bg-kelp-deep disabled:bg-kelp/50 disabled:border-transparent',
  plain: 'border-line bg-card text-ink hover:border-edge disabled:text-soft',
  quiet: 'border-transparent bg-transparent text-ink hover:bg-shade',
} as const;

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: keyof typeof LOOKS;
  readonly large?: boolean;
  readonly children: ReactNode;
}

/** A button says what happens: its words are a verb, never just “OK”. */
export function Button({ look = 'plain', large = false, className = '', ...rest }: Props) {
  const size = large ? 'px-6 py-3 text-[1.12rem]' : 'px-3.5 py-1.5 min-h-10';
  return (
    <button
      type="button"
      className={`inline-flex items-center justify-center gap-2 rounded-control border desk:whitespace-nowrap transition-colors duration-100 disabled:cursor-default aria-disabled:cursor-default aria-disabled:opacity-40 ${LOOKS[look]} ${size} ${className}`}
      {...rest}
    />
  );
}
