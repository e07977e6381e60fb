import { Activity, useContext, useEffect, useState } from 'react';
import { watchFields } from '../kit/fieldInUse';
import { panels, type Tool } from '../kit/tools';
import { atRest } from '../ui/atRest';
import { useReady } from '../ui/ComponentShelf';
import { Guard, partInstead } from '../ui/Guard';
import { lastTouched } from '../kit/useAid';
import { useDrawnHighlights } from '../kit/useHighlights';
import { DeskContext, useDesk } from './DeskContext';
import { OpenHandouts } from './OpenHandouts';
import { useAids, useTools } from './useTools';

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
      if (!last) return;
      setAid(last, { open: false });
      // An aid that waited behind *Kit* has no button any more: what opened it is there.
      if (document.activeElement === document.body)
        document.querySelector<HTMLElement>('[data-kit-opener] button')?.focus();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [store, tools]);
}

/** After the first question and its neighbours. */
const AHEAD_MS = 1500;

/** Whether the desk has had the time to lay out what may be wanted next. */
function useAhead(): boolean {
  const [ahead, setAhead] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => atRest(() => setAhead(true)), AHEAD_MS);
    return () => clearTimeout(timer);
  }, []);
  return ahead;
}

/** An aid once its panel is here: open, or laid out ahead of time and out of sight, so that opening it only shows it. */
function Aid({ panel, open }: Pick<Tool, 'panel'> & { readonly open: boolean }) {
  if (!useReady(panels, panel)) return null;
  return (
    // A panel that is laid out ahead may fail before anybody opens it: nothing is shown then.
    <Guard
      instead={(again) =>
        open && <div className="fixed right-4 bottom-32 z-30 w-80">{partInstead(again)}</div>
      }
    >
      <Activity mode={open ? 'visible' : 'hidden'}>{panels.draw(panel, {})}</Activity>
    </Guard>
  );
}

/** The aids of the section in view, and what is drawn by them. */
export function OpenAids() {
  const tools = useTools();
  const aids = useDesk((s) => s.desk.aids);
  const ahead = useAhead();
  const canHighlight = useAids().includes('highlight');
  useDrawnHighlights(canHighlight);
  useEscape(tools);
  useEffect(watchFields, []);
  return (
    <>
      {tools.map(({ id, panel }) => {
        const open = aids[id]?.open === true;
        return (ahead || open) && <Aid key={id} panel={panel} open={open} />;
      })}
      <OpenHandouts />
    </>
  );
}
