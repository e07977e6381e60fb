import { BriefcaseBusiness } from 'lucide-react';
import { Suspense, useContext, useEffect, useMemo } from 'react';
import { DeskContext, useDesk } from './DeskContext';
import { HandoutsTool, OpenHandouts } from './Handouts';
import { HelpTools } from './HelpTools';
import { ReadingControls } from '../ui/ReadingControls';
import { ToolPanel } from '../ui/ToolPanel';
import { triggerLook } from '../ui/toolTrigger';
import { useNarrow } from '../ui/useNarrow';
import { watchFields } from '../kit/fieldInUse';
import { keysTool, toolsFor, type Tool } from '../kit/tools';
import { lastTouched, toggleAid, useAid, useAidsOf } from '../kit/useAid';
import { useDrawnHighlights } from '../kit/useHighlights';
import { t } from '../kit/words';

/** The aids of the section in view. */
const useAids = () => useAidsOf(useDesk((s) => s.paper.questions[s.index]!.item));

function useTools(): Tool[] {
  const aids = useAids();
  return useMemo(() => [...toolsFor(aids), keysTool], [aids]);
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

/** Esc closes the aid that was touched last, from anywhere but a field that has a use for the key. */
function useEscape(tools: readonly Tool[]): void {
  const store = useContext(DeskContext)!;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const field = (event.target as Element | null)?.closest(
        'input, textarea, [contenteditable=true], [role=dialog]',
      );
      if (event.key !== 'Escape' || event.defaultPrevented || field) return;
      const { desk, setAid } = store.getState();
      const last = lastTouched(tools.map(({ id }) => id).filter((id) => desk.aids[id]?.open === true));
      if (last) setAid(last, { open: false });
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [store, tools]);
}

/** The open aids of the section in view, and what is drawn by them. */
export function OpenAids() {
  const tools = useTools();
  const aids = useDesk((s) => s.desk.aids);
  const canHighlight = useAids().includes('highlight');
  useDrawnHighlights(canHighlight);
  useEscape(tools);
  useEffect(watchFields, []);
  return (
    <>
      {tools
        .filter(({ id }) => aids[id]?.open === true)
        .map(({ id, Panel }) => (
          <Suspense key={id}>
            <Panel />
          </Suspense>
        ))}
      <OpenHandouts />
    </>
  );
}
