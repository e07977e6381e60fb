import type { ReactNode } from 'react';

const TONES = {
  plain: 'bg-shade text-ink',
  good: 'bg-wash text-kelp',
  care: 'bg-marigold-wash text-marigold',
  trouble: 'bg-brick-wash text-brick',
} as const;

export type Tone = keyof typeof TONES;

export function Pill({ tone = 'plain', children }: { tone?: Tone; children: ReactNode }) {
  return (
    <span
      className={`inline-flex items-center gap-1.5 rounded-full px-2.5 py-0.5 text-[0.82rem] desk:whitespace-nowrap ${TONES[tone]}`}
    >
      {children}
    </span>
  );
}
