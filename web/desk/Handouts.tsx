import { Files as FilesIcon } from 'lucide-react';
import { lazy } from 'react';
import { useStore } from 'zustand';
import { ToolPanel } from '../ui/ToolPanel';
import { useNarrow } from '../ui/useNarrow';
import { useDesk } from './DeskContext';
import { closeHandout, openHandouts, raiseHandout } from './openHandouts';
import { t } from './words';

const HandoutPanel = lazy(async () => ({ default: (await import('./HandoutPanel')).HandoutPanel }));

/** The section in view, with the names that its handouts have on this desk. */
function useHandouts() {
  const key = useDesk((s) => s.paper.questions[s.index]!.section);
  const section = useDesk((s) => s.paper.sections.find((one) => one.key === key)!);
  return { key, handouts: section.handouts.map((handout, i) => ({ id: `${key}/${i}`, handout })) };
}

/** The documents of the section, to be opened beside the question; not there where the section has none. */
export function HandoutsTool() {
  const { key, handouts } = useHandouts();
  const open = useStore(openHandouts, (s) => s.open);
  const narrow = useNarrow();
  if (handouts.length === 0) return null;
  return (
    <ToolPanel icon={FilesIcon} name={t('handouts')} title={t('handoutsTitle', { key })} className="w-72 p-2">
      <ul>
        {handouts.map(({ id, handout }) => (
          <li key={id}>
            <button
              type="button"
              aria-pressed={open.includes(id)}
              onClick={() => {
                if (open.includes(id)) closeHandout(id);
                else {
                  // A phone has room for one.
                  if (narrow) for (const other of open) closeHandout(other);
                  raiseHandout(id);
                }
              }}
              className="flex min-h-11 w-full items-center gap-3 rounded-control px-2.5 text-left hover:bg-shade"
            >
              <span className="min-w-0 flex-1">{handout.title}</span>
              <span className="text-[0.85rem] text-slate">
                {t(open.includes(id) ? 'handoutClose' : 'handoutOpen')}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </ToolPanel>
  );
}

/** The open handouts of the section in view. */
export function OpenHandouts() {
  const { handouts } = useHandouts();
  const open = useStore(openHandouts, (s) => s.open);
  // In an order of their own: an element that is moved on the page lets go of the pointer that drags it.
  return handouts
    .filter(({ id }) => open.includes(id))
    .map(({ id, handout }) => <HandoutPanel key={id} id={id} handout={handout} />);
}
