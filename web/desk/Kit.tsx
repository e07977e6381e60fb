import { BriefcaseBusiness } from 'lucide-react';
import { Fragment, useContext } from 'react';
import { DeskContext } from './DeskContext';
import { HandoutsTool, useHandouts } from './Handouts';
import { DirectionsTool } from './DirectionsTool';
import { BreakTool } from './HelpTools';
import { ColourControl, ReadingControls, TextControl } from '../ui/ReadingControls';
import { FittingRow } from '../ui/FittingRow';
import { ToolPanel } from '../ui/ToolPanel';
import { triggerLook } from '../ui/toolTrigger';
import { useNarrow } from '../ui/useNarrow';
import type { Tool } from '../kit/tools';
import { toggleAid, useAid } from '../kit/useAid';
import { t } from '../kit/words';
import { useTools } from './useTools';

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

const TRAY = 'max-h-[60dvh] w-[min(24rem,calc(100vw-1rem))] overflow-y-auto p-2';

/** The aids of the section in one row; those that have no room in it wait behind *Kit*. */
export function Kit() {
  const tools = useTools();
  const { handouts } = useHandouts();
  const entries = [
    { key: 'text', shown: <TextControl /> },
    { key: 'colours', shown: <ColourControl /> },
    // What belongs to the questions themselves is never behind the others.
    ...(handouts.length > 0 ? [{ key: 'handouts', shown: <HandoutsTool /> }] : []),
    ...tools.map((tool) => ({ key: tool.id, shown: <ToolButton tool={tool} /> })),
  ];
  return (
    <FittingRow
      entries={entries}
      className="min-h-12 px-1.5 text-[0.9rem]"
      rest={(hidden) => (
        <span data-kit-opener>
          <ToolPanel icon={BriefcaseBusiness} name={t('kit')} title={t('kitRest')} closing className={TRAY}>
            <div data-kit className="flex flex-wrap gap-1">
              {hidden.map(({ key, shown }) => (
                <Fragment key={key}>{shown}</Fragment>
              ))}
            </div>
          </ToolPanel>
        </span>
      )}
    />
  );
}

/** On a narrow screen the aids wait behind one button. */
export function KitTray() {
  const tools = useTools();
  return (
    <span data-kit-opener className="contents">
      <ToolPanel
        icon={BriefcaseBusiness}
        name={t('kit')}
        title={t('kit')}
        look="framed"
        brief="short"
        closing
        className={TRAY}
      >
        <div data-kit className="flex flex-wrap gap-1">
          <DirectionsTool />
          <ReadingControls />
          {tools.map((tool) => (
            <ToolButton key={tool.id} tool={tool} />
          ))}
          <HandoutsTool />
          <BreakTool />
        </div>
      </ToolPanel>
    </span>
  );
}
