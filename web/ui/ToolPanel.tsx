import type { LucideIcon } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

const TRIGGERS = {
  quiet: 'min-h-10 px-2.5 py-1 hover:bg-shade',
  framed: 'min-h-11 border border-line bg-card px-3',
  raised: 'min-h-10 bg-marigold-wash px-2.5 py-1 text-marigold',
} as const;

interface Props {
  readonly icon: LucideIcon;
  readonly name: string;
  /** What the panel is, for those who hear it. */
  readonly title: string;
  readonly look?: keyof typeof TRIGGERS;
  /** On a narrow screen the icon stands alone. */
  readonly brief?: boolean;
  /** Of the panel: how much room it takes and leaves. */
  readonly className: string;
  readonly children: ReactNode;
}

/** A tool: its button opens a small panel that closes with Esc and is no mode. */
export function ToolPanel({ icon: Icon, name, title, look = 'quiet', brief, className, children }: Props) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`inline-flex items-center gap-2 rounded-control whitespace-nowrap ${TRIGGERS[look]}`}
      >
        <Icon aria-hidden className="size-5 flex-none" />
        <span className={brief ? 'sr-only desk:not-sr-only' : ''}>{name}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={8}
          aria-label={title}
          className={`z-30 rounded-card border border-line bg-card shadow-float ${className}`}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
