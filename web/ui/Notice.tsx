import { CircleAlert, Info, TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';

const TONES = {
  trouble: { look: 'bg-brick-wash text-brick border-brick/30', Icon: CircleAlert },
  care: { look: 'bg-marigold-wash text-marigold border-marigold-line', Icon: TriangleAlert },
  plain: { look: 'bg-card text-ink border-line', Icon: Info },
} as const;

/** Something a person has to know, with a sign and words, spoken when it appears. */
export function Notice({ tone, children }: { tone: keyof typeof TONES; children: ReactNode }) {
  const { look, Icon } = TONES[tone];
  return (
    <div
      role={tone === 'trouble' ? 'alert' : 'status'}
      className={`flex gap-3 rounded-card border px-4 py-3 ${look}`}
    >
      <Icon aria-hidden className="mt-0.5 size-5 flex-none" />
      <div className="min-w-0">{children}</div>
    </div>
  );
}
