import { Popover } from 'radix-ui';
import type { Inline } from '../../core/documents/document';
import type { NodeProps } from './nodeProps';
import { t } from './words';

/** A word whose meaning is shown by press or key, and put away by Esc. */
export function Meaning({ node, children }: NodeProps<Extract<Inline, { type: 'meaning' }>>) {
  return (
    <Popover.Root>
      <Popover.Trigger className="cursor-help underline decoration-slate decoration-dotted underline-offset-4">
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          sideOffset={6}
          collisionPadding={12}
          aria-label={t('meaning')}
          className="z-40 max-w-[22rem] rounded-control border border-line bg-card px-3.5 py-2.5 font-sans text-[0.95rem] leading-snug shadow-float outline-none"
        >
          {node.says}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
