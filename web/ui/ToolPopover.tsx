import { Popover } from 'radix-ui';
import { useState } from 'react';
import { TriggerFace, triggerLook, type ToolPanelProps } from './toolTrigger';

/** The panel of a tool beside its button; open as it comes, for it comes when it is wanted. */
export function ToolPopover({ title, className, side, closing = false, children, ...face }: ToolPanelProps) {
  const [open, setOpen] = useState(true);
  /** What was pressed has the focus from now on, not the button of this panel. */
  const [given, setGiven] = useState(false);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setGiven(false);
      }}
    >
      <Popover.Trigger className={triggerLook(face.look)}>
        <TriggerFace {...face} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          {...(side ? { side, align: 'end' as const } : {})}
          sideOffset={6}
          collisionPadding={8}
          aria-label={title}
          onCloseAutoFocus={(event) => given && event.preventDefault()}
          onClick={(event) => {
            if (!closing || !(event.target as Element).closest('button[aria-pressed]')) return;
            setGiven(true);
            setOpen(false);
          }}
          className={`z-30 rounded-card border border-line bg-card shadow-float ${className}`}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
