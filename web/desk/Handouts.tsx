import { Files as FilesIcon } from 'lucide-react';
import { useContext } from 'react';
import { toggleAid } from '../kit/useAid';
import { ToolPanel } from '../ui/ToolPanel';
import { useNarrow } from '../ui/useNarrow';
import { DeskContext, useDesk } from './DeskContext';
import { t } from './words';

/** The section in view, with the names that its handouts have on this desk. */
export function useHandouts() {
  const key = useDesk((s) => s.paper.questions[s.index]!.section);
  const section = useDesk((s) => s.paper.sections.find((one) => one.key === key)!);
  return {
    key,
    handouts: section.handouts.map((handout, i) => ({ id: `handout-${key.toLowerCase()}-${i}`, handout })),
  };
}

/** The documents of the section, to be opened beside the question; not there where the section has none. */
export function HandoutsTool() {
  const { key, handouts } = useHandouts();
  const store = useContext(DeskContext)!;
  const aids = useDesk((s) => s.desk.aids);
  const narrow = useNarrow();
  if (handouts.length === 0) return null;
  const isOpen = (id: string) => aids[id]?.open === true;
  return (
    <ToolPanel icon={FilesIcon} name={t('handouts')} title={t('handoutsTitle', { key })} className="w-72 p-2">
      <ul data-kit>
        {handouts.map(({ id, handout }) => (
          <li key={id}>
            <button
              type="button"
              aria-pressed={isOpen(id)}
              onClick={() => toggleAid(store, id, narrow)}
              className="flex min-h-11 w-full items-center gap-3 rounded-control px-2.5 text-left hover:bg-shade"
            >
              <span className="min-w-0 flex-1">{handout.title}</span>
              <span className="text-[0.85rem] text-slate">
                {t(isOpen(id) ? 'handoutClose' : 'handoutOpen')}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </ToolPanel>
  );
}
