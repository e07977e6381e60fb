import { BriefcaseBusiness } from 'lucide-react';
import { useContext, useMemo } from 'react';
import { DeskContext, useDesk } from './DeskContext';
import { HandoutsTool } from './Handouts';
import { HelpTools } from './HelpTools';
import { ReadingControls } from '../ui/ReadingControls';
import { ToolPanel } from '../ui/ToolPanel';
import { triggerLook } from '../ui/toolTrigger';
import { useNarrow } from '../ui/useNarrow';
import { toolsFor, type Tool } from '../kit/tools';
import { toggleAid, useAid, useAidsOf } from '../kit/useAid';
import { t } from '../kit/words';

/** The aids of the section in view. */
export const useAids = () => useAidsOf(useDesk((s) => s.paper.questions[s.index]!.item));

export function useTools(): Tool[] {
  const aids = useAids();
  return useMemo(() => toolsFor(aids), [aids]);
}

function ToolButton({ tool: { id, icon: Icon } }: { readonly tool: Tool }) {
  const store = useContext(DeskContext)!;
  const { open } = useAid(id);
  const narrow = useNarrow();
  return (
    <button
      type="button"
      aria-pressed={open}
      onClick={() => toggleAid(store, id, narrow)}
      className={`${triggerLook()} ${open ? 'bg-wash text-kelp' : ''}`}
    >
      <Icon aria-hidden className="size-5 flex-none" />
      {t(id)}
    </button>
  );
}

/** The aids of the section in one row. */
export function Kit() {
  const tools = useTools();
  return (
    <>
      <ReadingControls />
      {tools.map((tool) => (
        <ToolButton key={tool.id} tool={tool} />
      ))}
      <HandoutsTool />
    </>
  );
}

/** On a narrow screen the aids wait behind one button. */
export function KitTray() {
  return (
    <ToolPanel
      icon={BriefcaseBusiness}
      name={t('kit')}
      title={t('kit')}
      look="framed"
      brief="tight"
      closing
      className="max-h-[60dvh] w-[min(24rem,calc(100vw-1rem))] overflow-y-auto p-2"
    >
      <div data-kit className="flex flex-wrap gap-1">
        <Kit />
        <HelpTools />
      </div>
    </ToolPanel>
  );
}
