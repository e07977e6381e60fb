import { Popover } from 'radix-ui';
import { TriggerFace, triggerLook, type ToolPanelProps } from './toolTrigger';

/** The panel of a tool beside its button; open as it comes, for it comes when it is wanted. */
export function ToolPopover({ title, className, children, ...face }: ToolPanelProps) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={triggerLook(face.look)}>
        <TriggerFace {...face} />
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
