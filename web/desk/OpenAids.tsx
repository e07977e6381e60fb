import { useContext, useEffect } from 'react';
import { watchFields } from '../kit/fieldInUse';
import { panels, type Tool } from '../kit/tools';
import { useReady } from '../ui/ComponentShelf';
import { lastTouched } from '../kit/useAid';
import { useDrawnHighlights } from '../kit/useHighlights';
import { DeskContext, useDesk } from './DeskContext';
import { OpenHandouts } from './OpenHandouts';
import { useAids, useTools } from './Kit';

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

/** An open aid, once its panel is here, which it nearly always is. */
const OpenAid = ({ panel }: Pick<Tool, 'panel'>) => (useReady(panels, panel) ? panels.draw(panel, {}) : null);

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
        .map(({ id, panel }) => (
          <OpenAid key={id} panel={panel} />
        ))}
      <OpenHandouts />
    </>
  );
}
