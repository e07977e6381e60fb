import { Suspense, useState } from 'react';
import { later } from './later';
import { TriggerFace, triggerLook, type ToolPanelProps } from './toolTrigger';

const ToolPopover = later(async () => (await import('./ToolPopover')).ToolPopover);

/**
 * A tool: its button opens a small panel that closes with Esc and is no mode. What places the panel is fetched behind the
 * first view, or when it is first wanted.
 */
export function ToolPanel(props: ToolPanelProps) {
  const [wanted, setWanted] = useState(false);
  const button = (
    <button
      type="button"
      aria-haspopup="dialog"
      aria-expanded={false}
      className={triggerLook(props.look)}
      onClick={() => setWanted(true)}
    >
      <TriggerFace {...props} />
    </button>
  );
  if (!wanted) return button;
  return (
    <Suspense fallback={button}>
      <ToolPopover {...props} />
    </Suspense>
  );
}
