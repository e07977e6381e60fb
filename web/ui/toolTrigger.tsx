import type { LucideIcon } from 'lucide-react';
import type { ReactNode } from 'react';

const TRIGGERS = {
  quiet: 'min-h-10 px-2 py-1 hover:bg-shade',
  framed: 'min-h-11 border border-line bg-card px-1.5 @[17rem]:px-3',
  framedRaised: 'min-h-11 border border-marigold-line bg-marigold-wash px-1.5 text-marigold @[17rem]:px-3',
  raised: 'min-h-10 bg-marigold-wash px-2.5 py-1 text-marigold',
} as const;

const BRIEF = {
  short: 'sr-only @[20rem]:not-sr-only',
  long: 'sr-only @[26rem]:not-sr-only',
} as const;

export interface ToolPanelProps {
  readonly icon: LucideIcon;
  readonly name: string;
  /** What the panel is, for those who hear it. */
  readonly title: string;
  readonly look?: keyof typeof TRIGGERS;
  /** Where the icon stands alone: on a narrow screen, or in a row that has no room for a short or a long name (a container). */
  readonly brief?: keyof typeof BRIEF | boolean;
  /** Whether it closes when something in it is switched on or off. */
  readonly closing?: boolean;
  /** Where the panel opens; above or below where nothing is said. */
  readonly side?: 'right';
  /** Of the panel: how much room it takes and leaves. */
  readonly className: string;
  readonly children: ReactNode;
}

export const triggerLook = (look: keyof typeof TRIGGERS = 'quiet') =>
  `inline-flex items-center gap-1.5 rounded-control desk:whitespace-nowrap ${TRIGGERS[look]}`;

/** What the button of a tool shows. */
export function TriggerFace({ icon: Icon, name, brief }: Pick<ToolPanelProps, 'icon' | 'name' | 'brief'>) {
  return (
    <>
      <Icon aria-hidden className="size-5 flex-none" />
      <span className={brief === true ? 'sr-only desk:not-sr-only' : brief ? BRIEF[brief] : ''}>{name}</span>
    </>
  );
}
